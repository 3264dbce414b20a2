'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { ratioReading } from '@/core/mixing/ratio';
import type { LayerPlan, PlanRequest } from '@/core/plan';
import { complaintsByField } from '@/core/records/replaceAt';
import { pourRecordSchema, type PourRecord } from '@/core/records/schema';
import { editText, formatMeasure, preferredUnit, type UnitPreferences } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';
import { useKeptDraft } from '@/ui/keptDraft';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { Outcome } from '../door/editDoor';
import { copyNames, groupPours } from '../pour/summarise';
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

/** The form as text, so that a half-typed figure survives a closed tab. */
interface EntryDraft {
  pouredAt: string;
  temperature: string;
  note: string;
  cups: { a: string; b: string; note: string }[];
}

function acceptDraft(cups: number) {
  return (value: unknown): EntryDraft | null =>
    typeof value === 'object' &&
    value !== null &&
    'cups' in value &&
    Array.isArray(value.cups) &&
    value.cups.length === cups
      ? (value as EntryDraft)
      : null;
}

/** Enters what was really weighed into each cup of a layer, with the ratio read out while typing. */
export function PourEntry({ draftKey, layer, request, before, now, onSave, onClose }: PourEntryProps) {
  const units = useUnits();
  const { parts } = request.product;
  const initial = firstDraft(layer, request, before, now, units);
  const { draft, setDraft, forget } = useKeptDraft(draftKey, initial, acceptDraft(layer.cups.length));
  const [errors, setErrors] = useState<Record<string, string>>({});
  const [saving, setSaving] = useState(false);
  const setCup = (index: number, change: Partial<EntryDraft['cups'][number]>): void =>
    setDraft({ ...draft, cups: draft.cups.map((cup, i) => (i === index ? { ...cup, ...change } : cup)) });
  const grams = (text: string): number | null => {
    const parsed = parseMeasure(text, 'mass', preferredUnit('mass', units));
    return parsed.ok ? parsed.value : null;
  };
  const save = async (): Promise<void> => {
    const read = readDraft(draft, layer, parts !== null, units);
    setErrors(read.errors);
    if (!read.pour) {
      document.querySelector<HTMLElement>(`[name="${Object.keys(read.errors)[0]}"]`)?.focus();
      return;
    }
    setSaving(true);
    const outcome = await onSave(read.pour);
    setSaving(false);
    if (outcome.ok) {
      forget();
      onClose();
    } else setErrors(Object.fromEntries(outcome.trouble.fields.map(({ field, message }) => [field, message])));
  };
  const field = (
    name: string,
    label: string,
    value: string,
    onChange: (text: string) => void,
    placeholder?: string,
  ): React.ReactNode => (
    <TextField
      label={label}
      name={name}
      value={value}
      placeholder={placeholder}
      onChange={(event) => onChange(event.target.value)}
      error={Boolean(errors[name])}
      helperText={errors[name]}
      autoComplete="off"
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'decimal', className: styles.bigInput } }}
    />
  );
  const mass = preferredUnit('mass', units).symbol;
  return (
    <form
      className={styles.entry}
      aria-label={`Layer ${layer.number} as poured`}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <h3>Layer {layer.number}, as it was poured</h3>
      <div className={styles.entryHead}>
        <TextField
          label="Poured at"
          name="pouredAt"
          type="datetime-local"
          value={draft.pouredAt}
          slotProps={{ htmlInput: { className: styles.bigInput } }}
          onChange={(event) => setDraft({ ...draft, pouredAt: event.target.value })}
          error={Boolean(errors['pouredAt'])}
          helperText={errors['pouredAt']}
        />
        {field(
          'temperatureC',
          `Room, ${preferredUnit('temperature', units).symbol}`,
          draft.temperature,
          (temperature) => setDraft({ ...draft, temperature }),
        )}
      </div>
      {layer.cups.map((cup, i) => {
        const typed = draft.cups[i]!;
        const [a, b] = [grams(typed.a), grams(typed.b)];
        return (
          <fieldset key={cup.number} className={styles.cupEntry}>
            <legend>
              Cup {cup.number}
              <span>
                {groupPours(cup.pours)
                  .map(({ tag, copies }) => `${tag} ${copyNames(copies)}`)
                  .join(', ')}
              </span>
            </legend>
            <div className={styles.cupFields}>
              {field(
                `cups.${i}.partAGrams`,
                parts ? `Part A, ${mass}` : `Product, ${mass}`,
                typed.a,
                (text) => setCup(i, { a: text }),
                `planned ${editText(cup.parts?.partAGrams ?? cup.mixGrams, 'mass', units, 1)}`,
              )}
              {parts &&
                cup.parts &&
                field(
                  `cups.${i}.partBGrams`,
                  `Part B, ${mass}`,
                  typed.b,
                  (text) => setCup(i, { b: text }),
                  `planned ${editText(cup.parts.partBGrams, 'mass', units, 1)}`,
                )}
              {parts && a !== null && b !== null && a > 0 && b > 0 && (
                <div className={styles.ratio}>
                  <RatioMark reading={ratioReading(a, b, parts)} units={units} />
                </div>
              )}
              <TextField
                label="Note"
                name={`cups.${i}.note`}
                value={typed.note}
                onChange={(event) => setCup(i, { note: event.target.value })}
                autoComplete="off"
              />
            </div>
          </fieldset>
        );
      })}
      <TextField
        label="Note on the whole layer"
        name="note"
        value={draft.note}
        multiline
        minRows={2}
        onChange={(event) => setDraft({ ...draft, note: event.target.value })}
        error={Boolean(errors['note'])}
        helperText={errors['note'] ?? 'Bubbles, leaks, what to do differently'}
      />
      {errors['layer'] && (
        <p role="alert" className={styles.formError}>
          {errors['layer']}
        </p>
      )}
      <div className={styles.entryActions}>
        <Button type="button" onClick={onClose}>
          Not now
        </Button>
        <Button type="submit" variant="contained" disabled={saving}>
          Put it in the log
        </Button>
      </div>
    </form>
  );
}

function firstDraft(
  layer: LayerPlan,
  request: PlanRequest,
  before: PourRecord | undefined,
  now: string,
  units: UnitPreferences,
): EntryDraft {
  const text = (value: number | null | undefined): string =>
    value === null || value === undefined ? '' : editText(value, 'mass', units);
  return {
    pouredAt: before?.pouredAt ?? now,
    temperature: editText(before?.temperatureC ?? request.room.temperatureC, 'temperature', units),
    note: before?.note ?? '',
    cups: layer.cups.map(({ number }) => {
      const weighed = before?.cups.find((cup) => cup.number === number);
      return { a: text(weighed?.partAGrams), b: text(weighed?.partBGrams), note: weighed?.note ?? '' };
    }),
  };
}

/** Turns the typed form into a pour, or says at each field what is wrong. */
function readDraft(
  draft: EntryDraft,
  layer: LayerPlan,
  twoParts: boolean,
  units: UnitPreferences,
): { pour: PourRecord | null; errors: Record<string, string> } {
  const errors: Record<string, string> = {};
  const read = (name: string, text: string, quantity: 'mass' | 'temperature'): number => {
    const parsed = parseMeasure(text, quantity, preferredUnit(quantity, units));
    if (!parsed.ok)
      errors[name] =
        text.trim() === '' && quantity === 'mass'
          ? `Type what the scale showed; planned was ${formatMeasure(plannedOf(layer, name), 'mass', units)}.`
          : parsed.message;
    return parsed.ok ? parsed.value : 0;
  };
  const candidate = {
    layer: layer.number,
    pouredAt: draft.pouredAt,
    temperatureC: read('temperatureC', draft.temperature, 'temperature'),
    note: draft.note,
    cups: draft.cups.map((cup, i) => ({
      number: layer.cups[i]!.number,
      partAGrams: read(`cups.${i}.partAGrams`, cup.a, 'mass'),
      partBGrams: twoParts ? read(`cups.${i}.partBGrams`, cup.b, 'mass') : null,
      note: cup.note,
    })),
  };
  const parsed = pourRecordSchema.safeParse(candidate);
  const all = parsed.success ? errors : { ...complaintsByField(parsed.error), ...errors };
  return { pour: parsed.success && Object.keys(all).length === 0 ? parsed.data : null, errors: all };
}

function plannedOf(layer: LayerPlan, name: string): number {
  const cup = layer.cups[Number(name.split('.')[1])];
  if (!cup) return 0;
  if (!cup.parts) return cup.mixGrams;
  return name.endsWith('partAGrams') ? cup.parts.partAGrams : cup.parts.partBGrams;
}
