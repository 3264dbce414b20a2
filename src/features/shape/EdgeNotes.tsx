'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import type { EdgeName, PieceDesign } from '@/core/model/designSchema';
import { departure, edgeHeights } from '@/core/seams/seamEdge';
import { formatMeasure } from '@/core/units/formatMeasure';
import type { Stored } from '@/core/model/stored';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import { pictureBed } from '../desk/pictures';
import styles from './EdgeNotes.module.css';

/** Edges of a design whose own features depart from the standard they were given: where and by how much. */
export function EdgeNotes({ design }: { design: Stored<PieceDesign> }) {
  const { desk } = useDesk();
  const units = useUnits();
  const { standards } = desk.set.data;
  const { data } = design;
  const notes = useMemo(
    () =>
      (Object.entries(data.edgeStandards ?? {}) as [EdgeName, string][]).flatMap(([edge, id]) => {
        const standard = standards?.find((candidate) => candidate.id === id);
        const along =
          standard && pictureBed(data, false).profiles.find((candidate) => candidate.edge === edge)?.profile;
        const off = along && departure(edgeHeights(data.outline, edge, along, null), standard);
        return off ? [{ edge, off, standard }] : [];
      }),
    [data, standards],
  );
  if (notes.length === 0) return null;
  return (
    <div className={styles.notes} role="note" aria-label="Edges off their standard">
      {notes.map(({ edge, off: { offMm, atMm }, standard }) => (
        <p key={edge}>
          {Number.isFinite(offMm)
            ? `The ${edge} edge is carved ${formatMeasure(Math.abs(offMm), 'length', units)} ${offMm > 0 ? 'higher' : 'lower'} than ${standard.name}, ${formatMeasure(atMm, 'length', units, 0)} from its left${standard.blendMm > 0 ? `; its last ${formatMeasure(standard.blendMm, 'length', units, 0)} are drawn to it` : ''}.`
            : `The ${edge} edge is not as long as ${standard.name}, which is for edges of ${formatMeasure(standard.edgeMm, 'length', units, 0)}.`}
        </p>
      ))}
      <Link href={`/sets/${desk.set.id}/match?show=standards`}>Edge standards</Link>
    </div>
  );
}
