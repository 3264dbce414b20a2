'use client';

import { useMemo } from 'react';
import { drawnDesigns, wholeSetRequest } from '@/core/records/buildRequest';
import type { DeskView } from '@/core/records/views';
import { samePlace } from '@/core/seams/tableRules';
import type { KeptTable } from '@/core/seams/tableSchema';
import { BedThumb } from '../tint/BedThumb';
import { PrintFrame } from '@/ui/print/PrintFrame';
import sheet from './Sheet.module.css';
import styles from './LayoutSheet.module.css';

const TURNS = ['', '↺ ¼', '↺ ½', '↺ ¾'];

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
  const { columns, rows, openings, blocked } = table.wish;
  const designs = useMemo(() => drawnDesigns(desk), [desk]);
  const doses = useMemo(() => wholeSetRequest(desk)?.recipe.doses ?? [], [desk]);
  const counts = [...new Set(laid.map(({ piece }) => piece))]
    .sort()
    .map((piece) => ({ piece, count: laid.filter((place) => place.piece === piece).length }));
  const span = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
  return (
    <PrintFrame label="Sheet" back={`/sets/${desk.set.id}/match?show=table`} backTo="Back to the tables">
      {() => (
        <main className={sheet.sheet}>
          <h1>{`${desk.set.data.name}: ${table.name}`}</h1>
          <p>{`${columns} × ${rows} places, ${laid.length} tiles. North is up; a quarter turn is anticlockwise from the way the tile is drawn.`}</p>
          <div className={styles.grid} style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}>
            {span(rows)
              .reverse()
              .flatMap((row) =>
                span(columns).map((column) => {
                  const place = laid.find(samePlace({ column, row }));
                  const design =
                    place && designs.find(({ data }) => data.tag === place.piece.replace(/ #\d+$/, ''))?.data;
                  const ways = openings.flatMap((opening, i) =>
                    opening.column === column && opening.row === row
                      ? [{ side: opening.side, word: i === 0 ? 'in' : 'out' }]
                      : [],
                  );
                  return (
                    <div
                      key={`${column},${row}`}
                      className={styles.place}
                      data-blocked={blocked.some(samePlace({ column, row })) || undefined}
                    >
                      {place && design && (
                        <span className={styles.laid} style={{ transform: `rotate(${-90 * place.quarters}deg)` }}>
                          <BedThumb design={design} levelMm={desk.set.data.levelMm} recipe={doses} />
                        </span>
                      )}
                      {place && <b>{`${place.piece} ${TURNS[place.quarters]}`}</b>}
                      {ways.map(({ side, word }) => (
                        <i key={side} data-side={side}>
                          {word}
                        </i>
                      ))}
                    </div>
                  );
                }),
              )}
          </div>
          <h2>To bring</h2>
          <ul className={sheet.counts}>
            {counts.map(({ piece, count }) => (
              <li key={piece}>{`☐ ${count} × ${piece}`}</li>
            ))}
          </ul>
        </main>
      )}
    </PrintFrame>
  );
}
