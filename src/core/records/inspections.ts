import { FINDING_KINDS } from '../findings/findingKinds';
import { pieceKey, type PieceRef } from '../model/pieceRef';
import type { Batch, CopyFate, CopyInspection, Finding, Inspection } from './recordSchemas';

type Copy = Pick<CopyInspection, 'designId' | 'copy'>;

/** The last word on a copy that was looked over; null when it was not. */
export const lastInspection = (
  { inspections = [] }: Pick<Batch, 'inspections'>,
  piece: PieceRef,
): CopyInspection | null => inspections.findLast((one) => pieceKey(one) === pieceKey(piece)) ?? null;

/** A batch with what became of some of its copies; null: nothing did. */
export function withFate(
  { fates = [], ...data }: Batch,
  own: readonly Copy[],
  fate: Pick<CopyFate, 'fate' | 'at' | 'why'> | null,
): Batch {
  const named = new Set(own.map(pieceKey));
  const next = [
    ...fates.filter((one) => !named.has(pieceKey(one))),
    ...(fate ? own.map((piece) => ({ ...piece, ...fate })) : []),
  ];
  return { ...data, ...(next.length > 0 && { fates: next }) };
}

/**
 * A batch with copies looked over. What is said again on the same day takes the place of what was said; on another day both stand and
 * the last counts. Null takes the last word back. What is to be made anew is spoilt, for what was found; what is not is no longer.
 */
export function withInspection(data: Batch, own: readonly Copy[], inspection: Inspection | null): Batch {
  const { inspections = [], ...rest } = data;
  const named = new Set(own.map(pieceKey));
  const last = new Map(own.map((piece) => [pieceKey(piece), lastInspection(data, piece)]));
  const dayOf = ({ at }: Pick<Inspection, 'at'>): string => at.slice(0, 10);
  const stay = inspections.filter(
    (one) =>
      !named.has(pieceKey(one)) || (inspection ? dayOf(one) !== dayOf(inspection) : one !== last.get(pieceKey(one))),
  );
  const next = [...stay, ...(inspection ? own.map((piece) => ({ ...piece, ...inspection })) : [])];
  const looked: Batch = { ...rest, ...(next.length > 0 && { inspections: next }) };
  if (inspection?.outcome === 'remake')
    return withFate(looked, own, { fate: 'spoilt', at: inspection.at, why: findingWords(inspection.findings) });
  const unspoilt = own.filter((piece) =>
    (data.fates ?? []).some((one) => pieceKey(one) === pieceKey(piece) && one.fate === 'spoilt'),
  );
  return unspoilt.length > 0 ? withFate(looked, unspoilt, null) : looked;
}

/**
 * A batch with inspections of other days put in where they belong, whenever they are taken in: of one piece on one day the latest
 * stands, and the newest of all is the last word on it.
 */
export function withInspectionsTakenIn(data: Batch, found: readonly CopyInspection[]): Batch {
  const byTime = [...(data.inspections ?? []), ...found].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const dayOf = (one: CopyInspection): string => `${pieceKey(one)} ${one.at.slice(0, 10)}`;
  const lastOfDay = new Map(byTime.map((one) => [dayOf(one), one]));
  const inspections = byTime.filter((one) => lastOfDay.get(dayOf(one)) === one);
  // Said once more, the last word on a piece does to it what it does: a piece to be made anew is spoilt.
  return found.reduce<Batch>(
    (batch, { designId, copy }) => {
      const { designId: _, copy: __, ...word } = lastInspection(batch, { designId, copy })!;
      return withInspection(batch, [{ designId, copy }], word);
    },
    { ...data, inspections },
  );
}

/** Copies that are to be mended by the last word on them, with what was found; those made anew or handed over since are left out. */
export const toMend = (
  batches: readonly { id: string; data: Pick<Batch, 'inspections' | 'fates'> }[],
): (CopyInspection & { batchId: string })[] =>
  batches.flatMap(({ id: batchId, data }) =>
    (data.inspections ?? [])
      .filter(
        (one) =>
          one.outcome === 'mend' &&
          lastInspection(data, one) === one &&
          !(data.fates ?? []).some((fate) => pieceKey(fate) === pieceKey(one)),
      )
      .map((one) => ({ ...one, batchId })),
  );

/**
 * What comes of a piece once these findings stand on it: with none it passes, with a new one it is to be mended, else what was said of
 * it stays.
 */
export function outcomeOf(
  was: Pick<Inspection, 'findings' | 'outcome'> | null,
  findings: readonly Finding[],
): Inspection['outcome'] {
  if (findings.length === 0) return 'pass';
  const isNew = findings.some(({ kind }) => !was?.findings.some((one) => one.kind === kind));
  return isNew || !was ? 'mend' : was.outcome;
}

/** A level is read to about this, mm: what is nearer to the plan is as planned. */
const LEVEL_READS_MM = 0.1;

/** How far the water stands above what was planned by what was found, mm; below it, negative. */
export const levelOffMm = (findings: readonly Finding[]): number =>
  findings.reduce((off, { kind, mm = 0 }) => (kind === 'high' ? off + mm : kind === 'low' ? off - mm : off), 0);

/** Findings with a level that was read: low, high, or neither. */
export function withLevelOff(findings: readonly Finding[], offMm: number): Finding[] {
  const others = findings.filter(({ kind }) => kind !== 'low' && kind !== 'high');
  const mm = Math.round(100 * Math.abs(offMm)) / 100;
  return mm <= LEVEL_READS_MM ? others : [{ kind: offMm < 0 ? 'low' : 'high', mm }, ...others];
}

/** Water so far from its recipe, ΔE, is another shade even to somebody who does not know it; a photo does not tell less. */
const ANOTHER_SHADE = 5;

/** Findings with a colour that was held against the recipe: off, or not. */
export const withColour = (findings: readonly Finding[], { apart }: NonNullable<Inspection['colour']>): Finding[] => [
  ...findings.filter(({ kind }) => kind !== 'off colour'),
  ...(apart >= ANOTHER_SHADE ? [{ kind: 'off colour' as const }] : []),
];

/** What was found, short: `low by 0.5 mm, tacky`. */
export const findingWords = (findings: readonly Finding[]): string =>
  findings
    .map(({ kind, mm }) => `${FINDING_KINDS[kind].short}${mm === undefined ? '' : ` by ${mm} mm`}`)
    .join(', ')
    .slice(0, 200);
