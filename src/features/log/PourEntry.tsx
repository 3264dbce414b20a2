'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { Controller, useForm, useWatch, type Control, type FieldPath } from 'react-hook-form';
import { ratioReading } from '@/core/mixing/ratio';
import { copyName } from '@/core/model/pieceRef';
import type { Parts } from '@/core/model/productSchema';
import type { CupPlan, LayerPlan, PlanRequest } from '@/core/plan';
import { broughtGrams } from '@/core/pouring/portions';
import type { PourRecord } from '@/core/records/recordSchemas';
import { editText, preferredUnit } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';
import { DateTimeField } from '@/ui/controls/MomentField';
import { useKeptForm } from '@/ui/keptDraft';
import { selectAll } from '@/ui/measure/fieldKeys';
import { useUnits } from '@/ui/measure/UnitsContext';
import { pourWords } from '../desk/summarise';
import type { Outcome } from '../edits/useEdits';
import { cupsToEnter, firstDraft, pourDraftSchema, pourFromDraft, type PourDraft } from './pourDraft';
import { tintForMore } from '@/core/tint/tintForMore';
import { DEFAULT_DROP_GRAMS } from '@/core/model/recipeSchema';
import { RatioMark } from './RatioMark';
import styles from './LogStage.module.css';

interface PourEntryProps {
  draftKey: string;
  layer: LayerPlan;
  request: PlanRequest;
  /** What was entered before, when it is being corrected. */
  before: PourRecord | undefined;
  now: string;
  onSave: (pour: PourRecord) => Promise<Outcome>;
  onClose: () => void;
}

/** Enter goes on to the next field; from the last one the layer goes into the log. */
function nextField(event: KeyboardEvent<HTMLFormElement>): void {
  const { target, currentTarget: form } = event;
  if (event.key !== 'Enter' || !(target instanceof HTMLInputElement) || event.defaultPrevented) return;
  const fields = [...form.querySelectorAll<HTMLElement>('input, textarea')].filter((field) => field.tabIndex >= 0);
  const next = fields[fields.indexOf(target) + 1];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

type DraftControl = Control<PourDraft, unknown, PourRecord>;

/** Enters what was really weighed into each cup of a layer, with the ratio read out while typing. */
export function PourEntry({ draftKey, layer, request, before, now, onSave, onClose }: PourEntryProps) {
  const units = useUnits();
  const { parts } = request.product;
  const resolver = useMemo(
    () => zodResolver(pourFromDraft(layer, parts !== null, units, before)),
    [layer, parts, units, before],
  );
  const dropGrams = (colourantId: string): number =>
    request.recipe.doses.find(({ colourant }) => colourant.id === colourantId)?.colourant.dropGrams ??
    DEFAULT_DROP_GRAMS;
  const entered = cupsToEnter(layer, before);
  const [draftShape] = useState(() => pourDraftSchema.refine(({ cups }) => cups.length === entered.length));
  const form = useForm<PourDraft, unknown, PourRecord>({
    resolver,
    defaultValues: firstDraft(layer, request, before, now, units),
  });
  const { control, handleSubmit, setError, formState } = form;
  const forget = useKeptForm(draftKey, form, draftShape);
  const pieceNames = (number: number): string[] =>
    (before?.cups.find((cup) => cup.number === number)?.pieces ?? []).map(({ tag, copy }) =>
      copyName(tag, copy > 0 ? copy : null),
    );
  const save = handleSubmit(async (pour) => {
    const outcome = await onSave(pour);
    if (outcome.ok) {
      forget();
      onClose();
    } else setError('root', { message: outcome.trouble.fields[0]?.message ?? outcome.trouble.message });
  });
  return (
    <form
      className={styles.entry}
      aria-label={`Layer ${layer.number} as poured`}
      noValidate
      onKeyDown={nextField}
      onSubmit={(event) => void save(event)}
    >
      <h3>Layer {layer.number}, as it was poured</h3>
      <div className={styles.entryHead}>
        <Controller
          control={control}
          name="pouredAt"
          render={({ field, fieldState }) => (
            <DateTimeField
              label="Poured at"
              name="pouredAt"
              value={field.value}
              onCommit={field.onChange}
              error={fieldState.error?.message}
            />
          )}
        />
        <Typed control={control} name="temperature" label={`Room, ${preferredUnit('temperature', units).symbol}`} big />
      </div>
      {entered.map((cup, i) => (
        <CupEntry
          key={cup.number}
          cup={cup}
          index={i}
          parts={parts}
          control={control}
          pieces={pieceNames(cup.number)}
          dropGrams={dropGrams}
          mayMend={before === undefined}
        />
      ))}
      <Typed
        control={control}
        name="note"
        label="Note on the whole layer"
        hint="Bubbles, leaks, what to do differently"
        multiline
      />
      {formState.errors.root && (
        <p role="alert" className={styles.formError}>
          {formState.errors.root.message}
        </p>
      )}
      <div className={styles.entryActions}>
        <Button type="button" onClick={onClose}>
          Not now
        </Button>
        <Button type="submit" variant="contained" disabled={formState.isSubmitting}>
          Put it in the log
        </Button>
      </div>
    </form>
  );
}

interface TypedProps {
  control: DraftControl;
  name: FieldPath<PourDraft>;
  label: string;
  hint?: string;
  placeholder?: string;
  multiline?: boolean;
  /** Read from across the bench. */
  big?: boolean;
}

/** A field whose text is read when the form is sent. */
function Typed({ control, name, label, hint, placeholder, multiline = false, big = false }: TypedProps) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, value, ...field }, fieldState: { error } }) => (
        <TextField
          {...field}
          value={value}
          inputRef={ref}
          label={label}
          placeholder={placeholder}
          multiline={multiline}
          {...(multiline && { minRows: 2 })}
          error={Boolean(error)}
          helperText={error?.message ?? hint}
          autoComplete="off"
          onFocus={(event) => big && selectAll(event.target)}
          slotProps={{
            inputLabel: { shrink: true },
            formHelperText: { role: error ? 'alert' : undefined },
            ...(big && { htmlInput: { inputMode: 'decimal', className: styles.bigInput } }),
          }}
        />
      )}
    />
  );
}

function CupEntry({
  cup,
  index,
  parts,
  control,
  pieces,
  dropGrams,
  mayMend,
}: {
  cup: CupPlan;
  index: number;
  parts: Parts | null;
  control: DraftControl;
  /** What a run has poured out of it, by name. */
  pieces: readonly string[];
  /** Of a colourant, by its id. */
  dropGrams: (colourantId: string) => number;
  /** It is not in the pieces yet: what it lacks can be added. */
  mayMend: boolean;
}) {
  const units = useUnits();
  const unit = preferredUnit('mass', units);
  const typed = useWatch({ control, name: `cups.${index}` });
  const grams = (text: string): number => {
    const parsed = parseMeasure(text, 'mass', unit);
    return parsed.ok ? parsed.value : 0;
  };
  const [a, b] = [grams(typed.a), grams(typed.b)];
  const read = parts && a > 0 && b > 0 ? ratioReading(a, b, parts) : null;
  const reading = read && (mayMend ? read : { ...read, add: null });
  const brought = broughtGrams(cup.portions);
  const planned = (value: number): string => `planned ${editText(value, 'mass', units, 1)}`;
  return (
    <fieldset className={styles.cupEntry}>
      <legend>
        Cup {cup.number}
        <span>{pourWords(cup.pours)}</span>
      </legend>
      <div className={styles.cupFields}>
        <Typed
          control={control}
          name={`cups.${index}.a`}
          label={parts ? `Part A, ${unit.symbol}` : `Product, ${unit.symbol}`}
          placeholder={planned(cup.parts?.partAGrams ?? cup.mixGrams)}
          {...(brought > 0 && {
            hint: `with the ${editText(brought, 'mass', units, 1)} that come along with the tint`,
          })}
          big
        />
        {parts && cup.parts && (
          <Typed
            control={control}
            name={`cups.${index}.b`}
            label={`Part B, ${unit.symbol}`}
            placeholder={planned(cup.parts.partBGrams)}
            big
          />
        )}
        {reading && (
          <div className={styles.ratio}>
            <RatioMark
              reading={reading}
              units={units}
              live
              tint={reading.add ? tintForMore(reading.add, cup, dropGrams) : []}
            />
          </div>
        )}
        <Typed control={control} name={`cups.${index}.note`} label="Note" />
      </div>
      {pieces.length > 0 && (
        <div className={styles.pieceFields} role="group" aria-label={`Pieces of cup ${cup.number}`}>
          {pieces.map((name, at) => (
            <Typed
              key={name}
              control={control}
              name={`cups.${index}.pieces.${at}`}
              label={`${name}, ${unit.symbol}`}
              {...(at === 0 && { hint: '0: it got none' })}
            />
          ))}
        </div>
      )}
    </fieldset>
  );
}
