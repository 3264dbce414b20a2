import { z } from 'zod';
import type { CupPlan, LayerPlan, PlanRequest } from '@/core/plan';
import { weighedGrams } from '@/core/records/compare';
import { pourRecordSchema, type PourRecord } from '@/core/records/recordSchemas';
import { isOfBench } from '@/core/records/rest';
import { editText, formatMeasure, preferredUnit, type UnitPreferences } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';

/** A pour as it is typed: text, so that a half-typed figure survives a closed tab. */
export const pourDraftSchema = z.object({
  pouredAt: z.string(),
  temperature: z.string(),
  note: z.string(),
  cups: z.array(z.object({ a: z.string(), b: z.string(), note: z.string() })),
});
export type PourDraft = z.infer<typeof pourDraftSchema>;

/** The cups that are entered: those of the plan; of what a run at the bench has logged those that there were. */
export function cupsToEnter(layer: LayerPlan, before: PourRecord | undefined): CupPlan[] {
  if (!before || !isOfBench(before)) return layer.cups;
  return before.cups.map(({ number, partAGrams, partBGrams, pouredGrams = 0, pieces = [] }) => ({
    number,
    pouredGrams,
    pours: pieces,
    mixGrams: weighedGrams({ partAGrams, partBGrams }),
    parts: partBGrams === null ? null : { partAGrams, partBGrams, partAMl: 0, partBMl: 0 },
    portions: [],
    doses: [],
    potLifeMinutes: 0,
    ...layer.cups.find((planned) => planned.number === number),
  }));
}

/** What the fields start with: what was entered before, else the workshop's room and the time of day. */
export function firstDraft(
  layer: LayerPlan,
  request: PlanRequest,
  before: PourRecord | undefined,
  now: string,
  units: UnitPreferences,
): PourDraft {
  const text = (value: number | null | undefined): string =>
    value === null || value === undefined ? '' : editText(value, 'mass', units);
  return {
    pouredAt: before?.pouredAt ?? now,
    temperature: editText(before?.temperatureC ?? request.room.temperatureC, 'temperature', units),
    note: before?.note ?? '',
    cups: cupsToEnter(layer, before).map(({ number }) => {
      const weighed = before?.cups.find((cup) => cup.number === number);
      return { a: text(weighed?.partAGrams), b: text(weighed?.partBGrams), note: weighed?.note ?? '' };
    }),
  };
}

/**
 * Reads a draft of a layer into a pour, with what is wrong said at each field of the draft. What a run at the bench knew of its cups
 * beside their parts stays as it was `before`.
 */
export function pourFromDraft(
  layer: LayerPlan,
  twoParts: boolean,
  units: UnitPreferences,
  before?: PourRecord,
): z.ZodType<PourRecord, PourDraft> {
  return pourDraftSchema.transform((draft, context): PourRecord => {
    const complain = (path: (string | number)[], message: string): void =>
      context.addIssue({ code: 'custom', path, message });
    const read = (
      path: (string | number)[],
      text: string,
      quantity: 'mass' | 'temperature',
      planned?: number,
    ): number => {
      const parsed = parseMeasure(text, quantity, preferredUnit(quantity, units));
      if (parsed.ok) return parsed.value;
      const missing = text.trim() === '' && planned !== undefined;
      complain(
        path,
        missing ? `Type what the scale showed; planned was ${formatMeasure(planned, 'mass', units)}.` : parsed.message,
      );
      return NaN;
    };
    const pour = {
      layer: layer.number,
      pouredAt: draft.pouredAt,
      temperatureC: read(['temperature'], draft.temperature, 'temperature'),
      note: draft.note,
      // Of another time the last piece is not known.
      ...(before?.pouredUntil && before.pouredAt === draft.pouredAt && { pouredUntil: before.pouredUntil }),
      ...(before?.expiredLots && { expiredLots: before.expiredLots }),
      ...(before?.tintLeft && { tintLeft: before.tintLeft }),
      cups: cupsToEnter(layer, before).map((cup, i): PourRecord['cups'][number] => {
        const typed = draft.cups[i] ?? { a: '', b: '', note: '' };
        return {
          ...before?.cups.find((known) => known.number === cup.number),
          number: cup.number,
          partAGrams: read(['cups', i, 'a'], typed.a, 'mass', cup.parts?.partAGrams ?? cup.mixGrams),
          partBGrams: twoParts ? read(['cups', i, 'b'], typed.b, 'mass', cup.parts?.partBGrams ?? 0) : null,
          note: typed.note,
        };
      }),
    };
    const parsed = pourRecordSchema.safeParse(pour);
    if (parsed.success) return parsed.data;
    for (const { path, message } of parsed.error.issues) {
      const [at, value] = draftField(path, pour);
      if (!Number.isNaN(value)) complain(at, message);
    }
    return z.NEVER;
  });
}

const DRAFT_FIELDS: Record<string, string> = { partAGrams: 'a', partBGrams: 'b', temperatureC: 'temperature' };

/** Where in the draft a field of the pour is typed, and what was read there. */
function draftField(path: readonly PropertyKey[], pour: object): [path: (string | number)[], value: unknown] {
  const value = path.reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | undefined)?.[key], pour);
  return [path.map((key) => (typeof key === 'number' ? key : (DRAFT_FIELDS[String(key)] ?? String(key)))), value];
}
