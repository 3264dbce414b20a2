'use client';

import Link from 'next/link';
import { useDeferredValue } from 'react';
import { copyName, pieceKey, type PieceRef } from '@/core/model/pieceRef';
import { findingWords, toMend } from '@/core/records/inspections';
import type { MatchSet } from '@/core/seams/matchSet';
import type { StandingJoint } from '@/core/seams/waysToClose';
import type { SeamLimits } from '@/core/model/seamSchema';
import { GradeMark, GRADE_WORDS } from '@/ui/mark/GradeMark';
import { SeamPicture } from '@/ui/waterline/SeamPicture';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import { useAwake } from '@/ui/useAwake';
import { useDesk } from '../desk/DeskContext';
import { EdgeMeasures } from './EdgeMeasures';
import { SeamFigures } from './SeamFigures';
import { seamName, seamWords } from './seamWords';
import { WaysToClose } from './WaysToClose';
import styles from './MatchStage.module.css';
import type { MatchSeam } from '@/core/seams/matchTypes';

interface SeamPanelProps {
  match: MatchSet;
  seam: MatchSeam;
  limits: SeamLimits;
  /** The arrangement that the seam is part of. */
  joints: readonly StandingJoint[] | null;
  /** Which copies meet here, where the arrangement knows: of the first edge and of the second. */
  copies?: readonly [number, number] | undefined;
}

interface ToMendHereProps {
  /** The pieces that meet; of a design without a copy any of it. */
  sides: readonly PieceRef[];
  nameOf: (piece: { designId: string; copy: number }) => string;
}

/** What was found on the pieces of a seam and is still to be mended: a low piece is low here too. */
function ToMendHere({ sides, nameOf }: ToMendHereProps) {
  const { desk } = useDesk();
  const own = useOwnWords();
  const found = toMend(desk.batches).filter(({ designId, copy }) =>
    sides.some((side) => side.designId === designId && (side.copy === null || side.copy === copy)),
  );
  if (found.length === 0) return null;
  return (
    <ul className={styles.toMend}>
      {found.map(({ batchId, findings, ...piece }) => (
        <li key={pieceKey(piece)}>
          <Link href={`/sets/${desk.set.id}/log?show=looked&batch=${encodeURIComponent(batchId)}`}>
            {nameOf(piece)}
          </Link>
          {own(` is to be mended: ${findingWords(findings)}.`)}
        </li>
      ))}
    </ul>
  );
}

/** One seam at eye level: the two edges face to face, its figures, what closes it, and what was measured. */
export function SeamPanel({ match, seam, limits, joints, copies }: SeamPanelProps) {
  const units = useUnits();
  const { desk } = useDesk();
  const tagOf = (id: string): string => desk.designs.find((design) => design.id === id)?.data.tag ?? '';
  // All of it is in a page that the server sends; after a step of navigation the figures at the top come first.
  const filled = useDeferredValue(true, !useAwake());
  const words = seamWords(match, seam, units);
  const [a, b] = [match.edges[seam.a]!, match.edges[seam.b]!];
  return (
    <>
      <h2 className={styles.heading}>
        {copies
          ? [a, b].map((edge, i) => `${copyName(tagOf(edge.designId), copies[i]!)} ${edge.edge}`).join(' and ')
          : seamName(match, seam)}
      </h2>
      <p className={styles.verdict}>
        <GradeMark grade={seam.grade} />{' '}
        {seam.grade === 'closes' ? 'It closes.' : `It ${GRADE_WORDS[seam.grade]}: ${words}.`}
      </p>
      <ToMendHere
        sides={[a, b].map(({ designId, copy }, i) => ({ designId, copy: copies?.[i] ?? copy }))}
        nameOf={(one) => copyName(tagOf(one.designId), one.copy)}
      />
      <SeamPicture a={a} b={b} seam={seam} words={words} />
      <SeamFigures seam={seam} match={match} limits={limits} />
      {filled && <WaysToClose seam={seam} match={match} limits={limits} joints={joints} copies={copies} />}
      {filled && <EdgeMeasures key={`${pieceKey(a)}${a.edge}${copies?.[0] ?? ''}`} edge={a} first={copies?.[0]} />}
      {filled && seam.b !== seam.a && (
        <EdgeMeasures key={`${pieceKey(b)}${b.edge}${copies?.[1] ?? ''}.`} edge={b} first={copies?.[1]} />
      )}
    </>
  );
}
