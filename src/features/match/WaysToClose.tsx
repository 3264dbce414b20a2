'use client';

import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { asSeen } from '@/core/records/pieceMeasures';
import { copyName, samePiece } from '@/core/model/pieceRef';
import { pouredDensity } from '@/core/mixing/ratio';
import { mendSeam, type SeamMend, type StandingJoint } from '@/core/seams/waysToClose';
import type { MatchSet } from '@/core/seams/matchSet';
import type { CornerHeights, SeamLimits } from '@/core/model/seamSchema';
import { LEAST_FILM_MM, topUp } from '@/core/seams/shims';
import { addShims, atEdge } from '@/core/seams/standing';
import { editText, formatMeasure, preferredUnit } from '@/core/units/formatMeasure';
import { GradeMark } from '@/ui/mark/GradeMark';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useDesk, useDeskPlan } from '../desk/DeskContext';
import styles from './WaysToClose.module.css';
import type { MatchSeam } from '@/core/seams/matchTypes';

interface WaysToCloseProps {
  seam: MatchSeam;
  match: MatchSet;
  limits: SeamLimits;
  joints: readonly StandingJoint[] | null;
  copies?: readonly [number, number] | undefined;
}

/** What closes a step, each way with what it does to the seams beside it; shims can be laid from here. */
export function WaysToClose({ seam, match, limits, joints, copies }: WaysToCloseProps) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const { request, plan } = useDeskPlan();
  const mends = useMemo(
    () =>
      seam.stepMm === null || Math.abs(seam.stepMm) <= limits.stepMm[0]
        ? []
        : mendSeam(match.edges, seam, limits, joints),
    [match, seam, limits, joints],
  );
  const [a, b] = [match.edges[seam.a]!, match.edges[seam.b]!];
  const shimmed = [a, b].flatMap((edge, i) => {
    const copy = edge.copy ?? copies?.[i];
    const piece = desk.pieces.find(({ data }) => data.designId === edge.designId && data.copy === copy);
    return piece?.data.shimsMm
      ? [
          {
            name: copyName(desk.designs.find(({ id }) => id === edge.designId)?.data.tag ?? '', piece.data.copy),
            designId: edge.designId,
            copy: piece.data.copy,
            shimsMm: piece.data.shimsMm,
          },
        ]
      : [];
  });
  if (mends.length === 0 && shimmed.length === 0) return null;
  /** The copy a mend is for: the one that was measured, the one that stands here, or the only one. */
  const copyOf = (mend: SeamMend): { designId: string; copy: number } | null => {
    const first = samePiece(a, mend) && a.edge === mend.edge;
    const edge = first ? a : b;
    const copy =
      edge.copy ??
      copies?.[first ? 0 : 1] ??
      (desk.designs.find(({ id }) => id === edge.designId)?.data.copies === 1 ? 1 : null);
    return copy === null ? null : { designId: edge.designId, copy };
  };
  const lay = (mend: SeamMend, who: { designId: string; copy: number }): void => {
    const corners: CornerHeights =
      mend.kind === 'shim' ? [mend.byMm[0], mend.byMm[0], mend.byMm[0], mend.byMm[0]] : atEdge(mend.edge, mend.byMm);
    void edits.run((view) => {
      const known = view.pieces.find(({ data }) => data.designId === who.designId && data.copy === who.copy)?.data
        .shimsMm;
      return {
        do: 'measure',
        setId: desk.set.id,
        pieces: asSeen(view, [{ ...who, shimsMm: addShims(known, corners) }]),
        label: `Lay a shim under ${mend.piece}`,
      };
    }, `Shim laid under ${mend.piece}`);
  };
  const takeOut = ({ designId, copy, name }: (typeof shimmed)[number]): void =>
    void edits.run(
      (view) => ({
        do: 'measure',
        setId: desk.set.id,
        pieces: asSeen(view, [{ designId, copy, shimsMm: null }]),
        label: `Take the shims out from under ${name}`,
      }),
      `Shims out from under ${name}`,
    );
  const gramsOf = ({ designId, copy, byMm }: SeamMend): number | null => {
    const surface = (
      plan?.pieces.find((piece) => samePiece(piece, { designId, copy })) ??
      plan?.pieces.find((piece) => piece.designId === designId)
    )?.water.surfaceCm2;
    return surface && request
      ? topUp(surface, byMm[0], pouredDensity(request.product), request.product.shrinkage).grams
      : null;
  };
  const mm = (value: number): string => formatMeasure(value, 'length', units);
  const exact = (value: number): string =>
    `${editText(value, 'length', units)}\u00a0${preferredUnit('length', units).symbol}`;
  return (
    <section aria-label="What closes it" className={styles.close}>
      <h3>{mends.length > 0 ? 'What closes it' : 'Shims'}</h3>
      <ul>
        {mends.map((mend) => {
          const who = copyOf(mend);
          return (
            <li key={mend.kind}>
              <p>
                <strong>{mendWords(mend, mm, gramsOf(mend), (grams) => formatMeasure(grams, 'mass', units))}</strong>{' '}
                <span className={styles.then}>
                  <GradeMark grade={mend.after.grade} /> {`step then ${mm(Math.abs(mend.after.stepMm ?? 0))}`}
                </span>
              </p>
              <Beside mend={mend} mm={mm} />
              {(mend.kind === 'shim' || mend.kind === 'shim corners') && who && (
                <Button size="small" onClick={() => lay(mend, who)}>
                  {mend.kind === 'shim'
                    ? `Lay the shim under ${mend.piece}`
                    : `Lay it under two corners of ${mend.piece}`}
                </Button>
              )}
            </li>
          );
        })}
        {shimmed.map((piece) => (
          <li key={piece.name}>
            <p>{`${piece.name} stands on shims: ${shimWords(piece.shimsMm, exact)}.`}</p>
            <Button size="small" onClick={() => takeOut(piece)}>
              {`Take the shims out from under ${piece.name}`}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Shims in words, alike or corner by corner. */
export function shimWords(
  [southWest, southEast, northEast, northWest]: CornerHeights,
  mm: (value: number) => string,
): string {
  if (southWest === southEast && southEast === northEast && northEast === northWest) return `${mm(southWest)} all over`;
  return [
    [southWest, 'south-west'],
    [southEast, 'south-east'],
    [northEast, 'north-east'],
    [northWest, 'north-west'],
  ]
    .flatMap(([value, name]) => ((value as number) > 0 ? [`${mm(value as number)} at its ${name} corner`] : []))
    .join(', ');
}

function mendWords(
  { kind, piece, edge, byMm: [left, right] }: SeamMend,
  mm: (value: number) => string,
  grams: number | null,
  mass: (grams: number) => string,
): string {
  if (kind === 'shim') return `Shim ${piece} by ${mm(left)}.`;
  if (kind === 'shim corners')
    return left === right
      ? `Or shim only its two corners at the ${edge} edge, ${mm(left)} each.`
      : `Or shim its corners at the ${edge} edge: ${mm(left)} at the left, ${mm(right)} at the right, seen from its middle.`;
  if (kind === 'sand down') return `Or sand ${piece} down by ${mm(left)}, wet and with a mask, and restore its gloss.`;
  const film = left <= LEAST_FILM_MM + 1e-9 ? ': a thinner film does not flow out' : '';
  return `Or top ${piece} up by ${mm(left)}${grams === null ? '' : `, ${mass(grams)} of clear mix over its whole surface`}${film}.`;
}

/** What a mend does to the seams beside it. */
function Beside({ mend: { others, possible, kind }, mm }: { mend: SeamMend; mm: (value: number) => string }) {
  const step = (mmOrNull: number | null): string => (mmOrNull === null ? 'no water' : mm(Math.abs(mmOrNull)));
  if (others.length > 0) {
    return (
      <ul className={styles.beside}>
        {others.map(({ piece, edge, before, after }) => (
          <li key={`${piece}${edge}`}>
            <GradeMark grade={after.grade} />{' '}
            {`beside it, ${piece} ${edge}: step ${step(before.stepMm)} → ${step(after.stepMm)}`}
          </li>
        ))}
      </ul>
    );
  }
  if (!possible)
    return (
      <p className={styles.note}>
        {kind === 'sand down' ? 'No other seam of it is in this arrangement.' : 'Nothing else of it meets here.'}
      </p>
    );
  return (
    <p
      className={styles.note}
    >{`Of ${possible.of} other seams it could make, ${possible.passNow} pass now and ${possible.passThen} then.`}</p>
  );
}
