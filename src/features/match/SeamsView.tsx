'use client';

import { useDeferredValue, useMemo, useState } from 'react';
import { pieceKey } from '@/core/model/pieceRef';
import { seamBetween } from '@/core/seams/matchRow';
import { GRADES, type Grade, type SeamLimits } from '@/core/model/seamSchema';
import { isMeant, type MatchSet } from '@/core/seams/matchSet';
import { PickList } from '@/ui/controls/PickList';
import { GradeMark } from '@/ui/mark/GradeMark';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useAwake } from '@/ui/useAwake';
import { SeamMatrix } from './SeamMatrix';
import { SeamPanel } from './SeamPanel';
import { seamName, seamWords } from './seamWords';
import type { Matching } from './useMatch';
import styles from './MatchStage.module.css';
import type { MatchEdge, MatchSeam } from '@/core/seams/matchTypes';

/** More rows than this are no list to read. */
const MOST_ROWS = 60;

/** An edge by its piece: stays the same when the set is matched anew. */
const edgeKey = (edge: MatchEdge): string => `${pieceKey(edge)} ${edge.edge}`;
const pairKey = (a: string, b: string): string => [a, b].sort().join('|');
const keyOf = ({ edges }: MatchSet, { a, b }: MatchSeam): string => pairKey(edgeKey(edges[a]!), edgeKey(edges[b]!));

interface SeamsViewProps {
  matching: Matching;
  chosen: string | null;
  onChoose: (key: string) => void;
}

/** All seams of water against water, as a list and as a chart; the chosen one at eye level. */
export function SeamsView({ matching: { match, request }, chosen, onChoose }: SeamsViewProps) {
  // All of it is in a page that the server sends; after a step of navigation the figures at the top come first.
  const filled = useDeferredValue(true, !useAwake());
  const seams = match?.seams ?? [];
  const seam =
    (match && chosen ? heldTogether(match, chosen, request.limits) : null) ?? seams.find(isMeant) ?? seams[0] ?? null;
  const choose = (next: MatchSeam): void => onChoose(keyOf(match!, next));
  return (
    <div className={styles.stage}>
      <SeamList match={match} seams={seams} chosen={seam} onChoose={choose} />
      <section aria-label="The seam" className={styles.middle}>
        {match && <AnyTwo match={match} seam={seam} onChoose={onChoose} />}
        {seam && match ? (
          <SeamPanel match={match} seam={seam} limits={request.limits} joints={null} />
        ) : (
          match && <p className={styles.teach}>No two wet edges of this set are equally long.</p>
        )}
      </section>
      {filled && match && seams.length > 0 && <SeamMatrix match={match} chosen={seam} onChoose={choose} />}
    </div>
  );
}

/** Any two edges that were chosen, held against each other: one of the seams of the set, or two that are none. */
function heldTogether(match: MatchSet, key: string, limits: SeamLimits): MatchSeam | null {
  const seam = match.seams.find((candidate) => keyOf(match, candidate) === key);
  if (seam) return seam;
  const [a, b] = key.split('|').map((name) => match.edges.findIndex((edge) => edgeKey(edge) === name));
  if (a === undefined || b === undefined || a < 0 || b < 0) return null;
  return seamBetween(match.edges, a, b, limits);
}

const edgeName = ({ piece, edge }: MatchSet['edges'][number]): string => `${piece} ${edge}`;

/** Two edges of the set's choice face to face, dry ones and unequal ones too. */
function AnyTwo({
  match,
  seam,
  onChoose,
}: {
  match: MatchSet;
  seam: MatchSeam | null;
  onChoose: (key: string) => void;
}) {
  const choices = match.edges.map((edge) => ({ value: edgeKey(edge), label: edgeName(edge) }));
  const [a, b] = seam ? [choices[seam.a]!.value, choices[seam.b]!.value] : [choices[0]!.value, choices[0]!.value];
  return (
    <div className={`labelled ${styles.anyTwo}`}>
      <span>Hold</span>
      <ChoiceField
        bare
        label="Hold this edge"
        value={a}
        choices={choices}
        onCommit={(edge) => onChoose(pairKey(edge, b))}
      />
      <span>against</span>
      <ChoiceField
        bare
        label="against this one"
        value={b}
        choices={choices}
        onCommit={(edge) => onChoose(pairKey(a, edge))}
      />
    </div>
  );
}

interface SeamListProps {
  match: MatchSet | null;
  seams: readonly MatchSeam[];
  chosen: MatchSeam | null;
  onChoose: (seam: MatchSeam) => void;
}

type Shown = Grade | 'meant' | 'all';
const SHOWN: readonly { value: Shown; label: string }[] = [
  { value: 'meant', label: 'meant to meet' },
  { value: 'all', label: 'all of them' },
  ...GRADES.map((value) => ({
    value,
    label: `that ${value === 'passes' ? 'pass' : value === 'closes' ? 'close' : 'show'}`,
  })),
];

function SeamList({ match, seams, chosen, onChoose }: SeamListProps) {
  const units = useUnits();
  const [only, setOnly] = useState<Shown>('meant');
  const countOf = (shown: Exclude<Shown, 'all'>): number =>
    !match ? 0 : shown === 'meant' ? match.counts.meant : match.counts.grades[shown];
  const meant = useMemo(() => seams.filter(isMeant), [seams]);
  const listed = only === 'meant' ? meant : seams.filter((seam) => only === 'all' || seam.grade === only);
  return (
    <section aria-label="Seams" className={styles.seams}>
      <h2 className={styles.heading}>Seams, worst first</h2>
      <div className={`labelled ${styles.filter}`}>
        <span>Show</span>
        <ChoiceField
          bare
          label="Which seams to show"
          value={only}
          choices={SHOWN.map(({ value, label }) => ({
            value,
            label: value === 'all' ? label : `${countOf(value)} ${label}`,
          }))}
          onCommit={setOnly}
        />
      </div>
      {match && (
        <PickList
          label="Seams"
          chosenId={chosen && keyOf(match, chosen)}
          onChoose={(key) => onChoose(listed.find((seam) => keyOf(match, seam) === key)!)}
          items={listed.slice(0, MOST_ROWS).map((seam) => ({
            id: keyOf(match, seam),
            content: (
              <span className={styles.seam}>
                <GradeMark grade={seam.grade} />
                <span>
                  {seamName(match, seam)}
                  <small>{seamWords(match, seam, units)}</small>
                </span>
              </span>
            ),
          }))}
        />
      )}
      {listed.length > MOST_ROWS && <p className={styles.more}>{`and ${listed.length - MOST_ROWS} better ones`}</p>}
    </section>
  );
}
