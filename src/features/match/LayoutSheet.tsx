'use client';

import { useMemo } from 'react';
import { outlineSize } from '@/core/bed/outline';
import { copyName, type PieceRef } from '@/core/model/pieceRef';
import type { PieceDesign } from '@/core/model/designSchema';
import { drawnDesigns, setTint } from '@/core/records/buildRequest';
import type { DeskView } from '@/core/records/views';
import { samePlace } from '@/core/seams/tableRules';
import type { KeptTable, TableGridKind } from '@/core/model/tableSchema';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { useAwake } from '@/ui/useAwake';
import { BedThumb } from '../desk/BedThumb';
import { TablePlan, TurnedTile } from './TablePlan';
import sheet from './Sheet.module.css';
import styles from './LayoutSheet.module.css';

/** How a tile is turned, short enough for a corner of it. */
function turnSign(grid: TableGridKind, turns: number): string {
  if (turns === 0) return '';
  return `↺ ${grid === 'hexagon' ? `${turns}/6` : ['', '¼', '½', '¾'][turns]}`;
}

/** A kept layout on paper: which tile lies where, turned how far, and how many of each to bring. */
export function LayoutSheet({
  desk,
  table,
  laid,
}: {
  desk: DeskView;
  table: KeptTable;
  laid: NonNullable<KeptTable['laid']>;
}) {
  const { grid, columns, rows, openings, blocked } = table.wish;
  const designs = useMemo(() => drawnDesigns(desk), [desk]);
  const tint = useMemo(() => setTint(desk), [desk]);
  const awake = useAwake();
  const designOf = (id: string): PieceDesign | undefined => designs.find((design) => design.id === id)?.data;
  const nameOf = ({ designId, copy }: PieceRef): string => copyName(designOf(designId)?.tag ?? 'gone', copy);
  const counts = [...new Set(laid.map(({ piece }) => nameOf(piece)))]
    .sort()
    .map((name) => ({ name, count: laid.filter(({ piece }) => nameOf(piece) === name).length }));
  const first = laid.map(({ piece }) => designOf(piece.designId)).find(Boolean);
  const sizeMm = first ? outlineSize(first.outline) : { widthMm: 100, lengthMm: 100 };
  return (
    <PrintFrame label="Sheet" back={`/sets/${desk.set.id}/match?show=table`} backTo="Back to the tables">
      {() => (
        <main className={sheet.sheet}>
          <h1>{`${desk.set.data.name}: ${table.name}`}</h1>
          <p>{`${columns} × ${rows} places, ${laid.length} tiles. North is up; turns are anticlockwise from the way the tile is drawn.`}</p>
          <TablePlan
            grid={grid}
            columns={columns}
            rows={rows}
            sizeMm={sizeMm}
            edge={(opening) => {
              const at = openings.findIndex((other) => samePlace(other)(opening) && other.side === opening.side);
              return at < 0 ? null : <i className={styles.way}>{at === 0 ? 'in' : 'out'}</i>;
            }}
            place={(at) => {
              const place = laid.find(samePlace(at));
              const design = place && designOf(place.piece.designId);
              return (
                <div className={styles.place} data-blocked={blocked.some(samePlace(at)) || undefined}>
                  {place && design && awake && (
                    <TurnedTile grid={grid} sizeMm={sizeMm} turns={place.turns}>
                      <BedThumb design={design} levelMm={desk.set.data.levelMm} tint={tint} filling />
                    </TurnedTile>
                  )}
                  {place && <b>{`${nameOf(place.piece)} ${turnSign(grid, place.turns)}`}</b>}
                </div>
              );
            }}
          />
          <h2>To bring</h2>
          <ul className={sheet.counts}>
            {counts.map(({ name, count }) => (
              <li key={name}>{`☐ ${count} × ${name}`}</li>
            ))}
          </ul>
        </main>
      )}
    </PrintFrame>
  );
}
