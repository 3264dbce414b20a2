'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { WEEKDAYS } from '@/core/cure/benchWindows';
import { FIGURE_SCALES_MM } from '@/core/plan/request';
import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import { waterSetSchema, type WaterSet } from '@/core/records/schema';
import type { ShelfView } from '@/core/records/views';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import styles from './SetForm.module.css';

interface SetFormProps {
  set: WaterSet;
  shelf: Omit<ShelfView, 'history'>;
  /** Complaints by dotted field. */
  errors: Record<string, string>;
  onChange: (set: WaterSet) => void;
}

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
const minutesOf = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));

/** The fields of a set: what holds for all its pieces. */
export function SetForm({ set, shelf, errors, onChange }: SetFormProps) {
  const put = (path: Path, value: unknown): void => onChange(replaceAt(set, path, value));
  const validate =
    (path: Path) =>
    (value: number): string | null =>
      complaintAt(waterSetSchema, set, path, value);
  return (
    <div className={styles.form}>
      <TextField
        label="Name"
        value={set.name}
        onChange={(event) => put(['name'], event.target.value)}
        error={Boolean(errors['name'])}
        helperText={errors['name']}
        autoComplete="off"
        autoFocus
      />
      <div className={styles.pair}>
        <ChoiceField
          label="Figures"
          value={String(set.figureScaleMm)}
          choices={FIGURE_SCALES_MM.map((mm) => ({ value: String(mm), label: `${mm} mm` }))}
          onCommit={(value) => put(['figureScaleMm'], Number(value))}
          error={errors['figureScaleMm']}
        />
        <MeasureField
          label="Level above the underside"
          quantity="length"
          value={set.levelMm}
          step={0.5}
          onCommit={(value) => put(['levelMm'], value)}
          validate={validate(['levelMm'])}
          error={errors['levelMm']}
        />
      </div>
      <div className={styles.pair}>
        <ChoiceField
          label="Product"
          value={set.productId}
          choices={shelf.products.map(({ id, data }) => ({ value: id, label: data.name }))}
          onCommit={(value) => put(['productId'], value)}
          error={errors['productId']}
        />
        <ChoiceField
          label="Recipe"
          value={set.recipeId}
          choices={shelf.recipes.map(({ id, data }) => ({ value: id, label: data.name }))}
          onCommit={(value) => put(['recipeId'], value)}
          error={errors['recipeId']}
        />
      </div>
      <fieldset className={styles.group}>
        <legend>Bench windows: when you are at the bench</legend>
        {set.benchWindows.length === 0 && <p className={styles.hint}>None: any hour will do.</p>}
        {set.benchWindows.map((window, i) => (
          <div key={i} className={styles.window}>
            <ChoiceField
              label="Day"
              value={String(window.weekday)}
              choices={WEEKDAYS.map((name, day) => ({ value: String(day), label: name }))}
              onCommit={(value) => put(['benchWindows', i, 'weekday'], Number(value))}
            />
            <TextField
              label="From"
              type="time"
              value={clock(window.fromMinute)}
              onChange={(event) =>
                event.target.value && put(['benchWindows', i, 'fromMinute'], minutesOf(event.target.value))
              }
            />
            <TextField
              label="To"
              type="time"
              value={clock(window.toMinute)}
              onChange={(event) =>
                event.target.value && put(['benchWindows', i, 'toMinute'], minutesOf(event.target.value))
              }
              error={Boolean(errors[`benchWindows.${i}.toMinute`])}
              helperText={errors[`benchWindows.${i}.toMinute`]}
            />
            <Button
              variant="text"
              size="small"
              aria-label={`Remove the window on ${WEEKDAYS[window.weekday]}`}
              onClick={() =>
                put(
                  ['benchWindows'],
                  set.benchWindows.filter((_, other) => other !== i),
                )
              }
            >
              Remove
            </Button>
          </div>
        ))}
        <Button
          size="small"
          onClick={() =>
            put(
              ['benchWindows'],
              [
                ...set.benchWindows,
                {
                  weekday: Math.min(6, (set.benchWindows.at(-1)?.weekday ?? -1) + 1),
                  fromMinute: 19 * 60,
                  toMinute: 21 * 60,
                },
              ],
            )
          }
        >
          Add a window
        </Button>
      </fieldset>
      <fieldset className={styles.group}>
        <legend>Job: what it is for</legend>
        {set.job ? (
          <>
            <div className={styles.triple}>
              <WordField
                label="Customer, or own"
                value={set.job.customer}
                onCommit={(value) => put(['job', 'customer'], value)}
                error={errors['job.customer']}
              />
              <WordField
                label="Due"
                type="date"
                value={set.job.due ?? ''}
                onCommit={(value) => put(['job', 'due'], value === '' ? null : value)}
                error={errors['job.due']}
              />
              <MeasureField
                label={`Budget, ${shelf.settings.data.units.currency}`}
                quantity="number"
                value={set.job.budget ?? 0}
                onCommit={(value) => put(['job', 'budget'], value)}
                validate={validate(['job', 'budget'])}
                error={errors['job.budget']}
                step={5}
              />
            </div>
            <Button variant="text" size="small" onClick={() => put(['job'], null)}>
              No job
            </Button>
          </>
        ) : (
          <Button size="small" onClick={() => put(['job'], { customer: '', due: null, budget: null })}>
            Add a job
          </Button>
        )}
      </fieldset>
    </div>
  );
}
