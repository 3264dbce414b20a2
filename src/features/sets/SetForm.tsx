'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useWatch, type Control, type UseFormSetValue } from 'react-hook-form';
import { Controller } from 'react-hook-form';
import { FIGURE_SCALES_MM } from '@/core/plan/request';
import { complaintAt, type Path } from '@/core/records/replaceAt';
import { waterSetSchema, type WaterSet } from '@/core/records/recordSchemas';
import type { Shelf } from '@/core/records/views';
import { DateField } from '@/ui/controls/MomentField';
import { Toggles } from '@/ui/controls/Toggles';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { BenchWindows } from '@/ui/measure/BenchWindows';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import type { SetInput } from './setDraft';
import styles from './SetForm.module.css';

interface SetFormProps {
  control: Control<SetInput, unknown, WaterSet>;
  setValue: UseFormSetValue<SetInput>;
  shelf: Shelf;
}

const SCALES = FIGURE_SCALES_MM.map((mm) => ({ value: String(mm), label: `${mm} mm` }));
const named = (rows: readonly { id: string; data: { name: string } }[]): { value: string; label: string }[] =>
  rows.map(({ id, data }) => ({ value: id, label: data.name }));

/** The fields of a set: what holds for all its pieces. */
export function SetForm({ control, setValue, shelf }: SetFormProps) {
  const set = useWatch({ control }) as SetInput;
  const { settings, products, recipes } = shelf;
  const validate =
    (path: Path) =>
    (value: number): string | null =>
      complaintAt<SetInput>(waterSetSchema as never, set, path, value);
  const change = <N extends 'benchWindows' | 'job'>(name: N, value: SetInput[N]): void =>
    (setValue as (name: string, value: unknown, options: object) => void)(name, value, { shouldDirty: true });
  const focusGroup = (name: string): void =>
    focusSoon(() => controlIn(document.querySelector(`[data-group="${name}"]`)));
  return (
    <div className={styles.form}>
      <Controller
        control={control}
        name="name"
        render={({ field: { ref, ...field }, fieldState: { error } }) => (
          <TextField
            {...field}
            inputRef={ref}
            label="Name"
            error={Boolean(error)}
            helperText={error?.message}
            slotProps={{ formHelperText: { role: error ? 'alert' : undefined } }}
            autoComplete="off"
            autoFocus
          />
        )}
      />
      <div className={styles.pair}>
        <Controller
          control={control}
          name="figureScaleMm"
          render={({ field, fieldState }) => (
            <ChoiceField
              label="Figures"
              value={String(field.value)}
              choices={SCALES}
              onCommit={(value) => field.onChange(Number(value))}
              error={fieldState.error?.message}
            />
          )}
        />
        <Controller
          control={control}
          name="levelMm"
          render={({ field, fieldState }) => (
            <MeasureField
              label="Level above the underside"
              quantity="length"
              value={field.value}
              step={0.5}
              onCommit={field.onChange}
              validate={validate(['levelMm'])}
              error={fieldState.error?.message}
            />
          )}
        />
      </div>
      <div className={styles.pair}>
        <Controller
          control={control}
          name="productId"
          render={({ field, fieldState }) => (
            <ChoiceField
              label="Product"
              value={field.value}
              choices={named(products)}
              onCommit={field.onChange}
              error={fieldState.error?.message}
            />
          )}
        />
        <Controller
          control={control}
          name="recipeId"
          render={({ field, fieldState }) => (
            <ChoiceField
              label="Recipe"
              value={field.value}
              choices={named(recipes)}
              onCommit={field.onChange}
              error={fieldState.error?.message}
            />
          )}
        />
      </div>
      <fieldset className={styles.group} data-group="windows">
        <legend>When you are at the bench for it</legend>
        <Toggles
          label="Bench windows"
          value={set.benchWindows ? 'own' : 'workshop'}
          choices={[
            { value: 'workshop', label: 'whenever in the workshop' },
            { value: 'own', label: 'only at some times' },
          ]}
          onChoose={(which) => change('benchWindows', which === 'own' ? [...settings.data.benchWindows] : null)}
        />
        {set.benchWindows && (
          <BenchWindows
            windows={set.benchWindows}
            onChange={(windows) => change('benchWindows', windows)}
            none="None: nothing can be poured for this set."
          />
        )}
      </fieldset>
      <fieldset className={styles.group} data-group="job">
        <legend>Job: what it is for</legend>
        {set.job ? (
          <>
            <div className={styles.triple}>
              <Controller
                control={control}
                name="job.customer"
                render={({ field, fieldState }) => (
                  <WordField
                    label="Customer, or own"
                    value={field.value}
                    onCommit={field.onChange}
                    error={fieldState.error?.message}
                  />
                )}
              />
              <Controller
                control={control}
                name="job.due"
                render={({ field, fieldState }) => (
                  <DateField
                    label="Due"
                    value={field.value ?? ''}
                    onCommit={(value) => field.onChange(value === '' ? null : value)}
                    error={fieldState.error?.message}
                  />
                )}
              />
              <Controller
                control={control}
                name="job.budget"
                render={({ field, fieldState }) => (
                  <MeasureField
                    label={`Budget, ${settings.data.units.currency}`}
                    quantity="number"
                    value={field.value ?? 0}
                    onCommit={field.onChange}
                    validate={validate(['job', 'budget'])}
                    error={fieldState.error?.message}
                    step={5}
                  />
                )}
              />
            </div>
            <Button variant="text" size="small" onClick={() => (change('job', null), focusGroup('job'))}>
              No job
            </Button>
          </>
        ) : (
          <Button
            size="small"
            onClick={() => (change('job', { customer: '', due: null, budget: null }), focusGroup('job'))}
          >
            Add a job
          </Button>
        )}
      </fieldset>
    </div>
  );
}
