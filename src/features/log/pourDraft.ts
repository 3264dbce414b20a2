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
  cups: z.array(
    z.object({
      a: z.string(),
      b: z.string(),
      note: z.string(),
      /** What went into each piece, where a run at the bench has read it. */
      pieces: z.array(z.string()),
    }),
  ),
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
      return {
        a: text(weighed?.partAGrams),
        b: text(weighed?.partBGrams),
        note: weighed?.note ?? '',
        pieces: (weighed?.pieces ?? []).map(({ grams }) => text(grams)),
      };
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
    const massText = (value: number): string => editText(value, 'mass', units);
    const pour = {
      layer: layer.number,
      pouredAt: draft.pouredAt,
      temperatureC: read(['temperature'], draft.temperature, 'temperature'),
      note: draft.note,
      // Of another time the last piece is not known.
      ...(before?.pouredUntil && before.pouredAt === draft.pouredAt && { pouredUntil: before.pouredUntil }),
      ...(before?.expiredLots && { expiredLots: before.expiredLots }),
      ...(before?.tintLeft && { tintLeft: before.tintLeft }),
      ...(before?.hardened && { hardened: before.hardened }),
      cups: cupsToEnter(layer, before).map((cup, i): PourRecord['cups'][number] => {
        const typed = draft.cups[i] ?? { a: '', b: '', note: '', pieces: [] };
        const was = before?.cups.find((known) => known.number === cup.number);
        const gramsOf = (field: string | number, text: string, planned: number, before?: number): number =>
          // What was read more finely than it is shown stays as it was read, until another figure is typed.
          before !== undefined && text === massText(before)
            ? before
            : read(['cups', i, ...(typeof field === 'number' ? ['pieces', field] : [field])], text, 'mass', planned);
        const pieces = was?.pieces?.map((piece, at) => ({
          ...piece,
          grams: gramsOf(at, typed.pieces[at] ?? '', piece.grams, piece.grams),
        }));
        const more = pieces ? sumOf(pieces) - sumOf(was?.pieces ?? []) : 0;
        return {
          ...was,
          // A piece that got nothing is still dry.
          ...(pieces &&
            more !== 0 && {
              pieces: pieces.filter(({ grams }) => grams !== 0),
              pouredGrams: Math.max(0, (was?.pouredGrams ?? 0) + more),
            }),
          number: cup.number,
          partAGrams: gramsOf('a', typed.a, cup.parts?.partAGrams ?? cup.mixGrams, was?.partAGrams),
          partBGrams: twoParts ? gramsOf('b', typed.b, cup.parts?.partBGrams ?? 0, was?.partBGrams ?? undefined) : null,
          note: typed.note,
        };
      }),
    };
    pour.cups.forEach((cup, i) => {
      const held = weighedGrams(cup) + (cup.doses ?? []).reduce((sum, { grams }) => sum + grams, 0);
      const over = (cup.pouredGrams ?? 0) - held;
      if (cup.pieces && over > READING_SLACK_GRAMS)
        complain(
          ['cups', i, 'pieces', 0],
          `The pieces got ${formatMeasure(over, 'mass', units)} more than was in the cup.`,
        );
    });
    const parsed = pourRecordSchema.safeParse(pour);
    if (parsed.success) return parsed.data;
    for (const { path, message } of parsed.error.issues) {
      const [at, value] = draftField(path, pour);
      if (!Number.isNaN(value)) complain(at, message);
    }
    return z.NEVER;
  });
}

const sumOf = (parts: readonly { grams: number }[]): number => parts.reduce((sum, { grams }) => sum + grams, 0);
/** A drop of tint, a scale that drifted. */
const READING_SLACK_GRAMS = 1;

const DRAFT_FIELDS: Record<string, string> = { partAGrams: 'a', partBGrams: 'b', temperatureC: 'temperature' };

/** Where in the draft a field of the pour is typed, and what was read there. */
function draftField(path: readonly PropertyKey[], pour: object): [path: (string | number)[], value: unknown] {
  const value = path.reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | undefined)?.[key], pour);
  return [path.map((key) => (typeof key === 'number' ? key : (DRAFT_FIELDS[String(key)] ?? String(key)))), value];
}
