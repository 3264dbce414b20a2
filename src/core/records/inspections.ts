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

/** What was found, short: `low by 0.5 mm, tacky`. */
export const findingWords = (findings: readonly Finding[]): string =>
  findings
    .map(({ kind, mm }) => `${FINDING_KINDS[kind].short}${mm === undefined ? '' : ` by ${mm} mm`}`)
    .join(', ')
    .slice(0, 200);
