'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { pieceKey } from '@/core/model/pieceRef';
import type { MatchSet } from '@/core/seams/matchSet';
import { standardFrom } from '@/core/seams/seamEdge';
import type { EdgeStandard } from '@/core/model/edgeStandardSchema';
import { MenuButton } from '@/ui/controls/MenuButton';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';
import own from './StandardsView.module.css';
import type { MatchEdge } from '@/core/seams/matchTypes';
import { OneStandard } from './OneStandard';
import { Keeper } from './Keeper';
import { SeamLimitFields } from './SeamLimitFields';

/** The set's edge standards: taken from an edge or typed, given to edges, departures flagged, gauges to cut by. */
export function StandardsView({ match }: { match: MatchSet | null }) {
  const { desk, edits, changeSet: put } = useDesk();
  const { data } = desk.set;
  const standards = data.standards ?? [];
  // One that was just added stands open: its fields are what comes next.
  const [added, setAdded] = useState<number | null>(null);
  const add = (make: (id: string) => EdgeStandard, label: string): void => {
    setAdded(standards.length);
    put((set) => {
      const known = set.standards ?? [];
      let number = known.length + 1;
      while (known.some(({ id }) => id === `standard-${number}`)) number++;
      return { ...set, standards: [...known, make(`standard-${number}`)] };
    }, label);
  };
  const take = (edge: MatchEdge): void =>
    add(
      (id) =>
        standardFrom(edge.heightMm, edge.lengthMm, edge.levelMm[1], `${edge.piece} ${edge.edge}`.slice(0, 40), id),
      `Take a standard from ${edge.piece} ${edge.edge}`,
    );
  const type = (): void =>
    add(
      (id) =>
        typedStandard(
          id,
          match?.edges.find(({ wet }) => wet)?.lengthMm ?? match?.edges[0]?.lengthMm ?? 140,
          data.levelMm,
        ),
      'Add an edge standard',
    );
  const give = (to: readonly MatchEdge[], standardId: string): void => {
    const standard = standards.find(({ id }) => id === standardId);
    const label =
      to.length === 1
        ? `Give ${to[0]!.piece} ${to[0]!.edge} a standard`
        : `Give ${to.length} edges ${standard?.name ?? 'no standard'}`;
    void edits.run(({ designs }) => {
      const edges = to.flatMap(({ designId, edge }) => {
        const design = designs.find(({ id }) => id === designId);
        return design ? [{ designId, version: design.version, edge, standardId: standardId || null }] : [];
      });
      return { do: 'give', setId: desk.set.id, label: label.slice(0, 80), edges };
    }, label);
  };
  // Copies that were measured stand beside their design; one of each edge is enough here.
  const edges = (match?.edges ?? []).filter(
    ({ designId, edge }, i, all) => all.findIndex((other) => other.designId === designId && other.edge === edge) === i,
  );
  const sources = (match?.edges ?? []).filter((edge) => edge.measured || edges.includes(edge));
  return (
    <div className={own.standards}>
      <section aria-label="Edge standards">
        <h2 className={styles.heading}>Edge standards</h2>
        <p className={styles.small}>
          An agreed profile for edges that must meet. Take one from an edge that is right or type it, then give it to
          the others: their beds are drawn to it, and what was carved otherwise is flagged.
        </p>
        {standards.map((standard, index) => (
          <OneStandard
            key={standard.id}
            standard={standard}
            index={index}
            open={index === added}
            put={put}
            edges={edges}
            give={give}
          />
        ))}
        {standards.length < 12 && (
          <div className={own.add}>
            <MenuButton
              label="Take one from"
              choices={sources.map((edge) => ({
                key: `${pieceKey(edge)} ${edge.edge}`,
                label: `${edge.piece} ${edge.edge}${edge.measured ? ', measured' : edge.wet ? '' : ', dry'}`,
                onPick: () => take(edge),
              }))}
            />
            <Button size="small" onClick={type}>
              Type one
            </Button>
          </div>
        )}
        <SeamLimitFields put={put} />
      </section>
      <section aria-label="Who keeps to what">
        <h2 className={styles.heading}>Who keeps to what</h2>
        {standards.length === 0 && (
          <p className={styles.small}>Once there is a standard, each edge can take it here.</p>
        )}
        {standards.length > 0 && (
          <ul className={styles.given}>
            {edges.map((edge) => (
              <Keeper
                key={`${edge.designId} ${edge.edge}`}
                edge={edge}
                all={(match?.edges ?? []).filter(
                  ({ designId, edge: name }) => designId === edge.designId && name === edge.edge,
                )}
                standards={standards}
                give={give}
              />
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

/** A standard to start from: a creek as wide as two fifths of the edge. */
const typedStandard = (id: string, edgeMm: number, levelMm: number): EdgeStandard => ({
  id,
  name: 'New standard',
  edgeMm: Math.round(edgeMm * 10) / 10,
  portMm: Math.round(edgeMm / 2),
  widthMm: Math.round(edgeMm * 0.4),
  depthMm: Math.max(1, Math.min(6, levelMm - 4)),
  section: 'trapezoid',
  bankSlope: 1,
  levelMm,
  bankMm: levelMm + 3,
  toleranceMm: 0.5,
  blendMm: 12,
});
