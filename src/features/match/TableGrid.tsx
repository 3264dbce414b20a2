'use client';

import { samePlace } from '@/core/seams/tableRules';
import type { LaidTile } from '@/core/seams/table';
import { TABLE_SIDES, type TablePlace, type TableSide, type TableWish } from '@/core/seams/tableSchema';
import type { TableStock } from '@/core/seams/tableTiles';
import { useLiveDesk } from '../desk/DeskContext';
import { BedThumb } from '../tint/BedThumb';
import { brushed, toggledOpening, type Brush } from './tableWish';
import styles from './TableView.module.css';

interface TableGridProps {
  wish: TableWish;
  stock: TableStock;
  laid: readonly LaidTile[];
  brush: Brush;
  onWish: (make: (wish: TableWish) => TableWish, label: string, holds?: boolean) => void;
}

/** The table from above, north at the top, with its four edges to press. */
export function TableGrid({ wish, stock, laid, brush, onWish }: TableGridProps) {
  const { columns, rows } = wish;
  const press = (place: TablePlace): void => {
    if (brush === 'keep') {
      const tile = laid.find(samePlace(place));
      const free = wish.fixed.some(samePlace(place));
      if (!tile && !free) return;
      onWish(
        (newest) => ({
          ...newest,
          fixed: free
            ? newest.fixed.filter((other) => !samePlace(place)(other))
            : [...newest.fixed, { ...place, piece: stock.tiles[tile!.tile]!.tag, quarters: tile!.quarters }],
        }),
        free ? 'Let a tile go' : 'Keep a tile where it lies',
        true,
      );
      return;
    }
    onWish((newest) => brushed(newest, place, brush), 'Change what the table wants');
  };
  const toggle = (place: TablePlace, side: TableSide): void => {
    onWish((newest) => toggledOpening(newest, place, side), 'Change where water leaves the table');
  };
  const edge = (column: number, row: number, side: TableSide): React.ReactNode => {
    const number = wish.openings.findIndex(
      (opening) => opening.column === column && opening.row === row && opening.side === side,
    );
    const along = side === 0 || side === 2 ? `column ${column + 1}` : `row ${row + 1}`;
    return (
      <button
        key={`${side}${column}${row}`}
        type="button"
        className={styles.edge}
        data-side={TABLE_SIDES[side]}
        aria-pressed={number >= 0}
        aria-label={`Water at the ${TABLE_SIDES[side]} edge, ${along}${number === 0 ? ', comes in' : ''}`}
        onClick={() => toggle({ column, row }, side)}
      >
        {number < 0 ? '' : number === 0 ? 'in' : 'out'}
      </button>
    );
  };
  const span = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
  return (
    <div
      className={styles.grid}
      style={{ gridTemplateColumns: `30px repeat(${columns}, minmax(0, 1fr)) 30px`, maxWidth: columns * 150 + 60 }}
    >
      <span />
      {span(columns).map((column) => edge(column, rows - 1, 2))}
      <span />
      {span(rows)
        .reverse()
        .flatMap((row) => [
          edge(0, row, 3),
          ...span(columns).map((column) => (
            <Place
              key={`${column},${row}`}
              wish={wish}
              stock={stock}
              place={{ column, row }}
              tile={laid.find(samePlace({ column, row }))}
              onPress={() => press({ column, row })}
            />
          )),
          edge(columns - 1, row, 1),
        ])}
      <span />
      {span(columns).map((column) => edge(column, 0, 0))}
      <span />
    </div>
  );
}

const STATES = [
  ['blocked', 'blocked', 'blocked'],
  ['forks', 'fork', 'a fork is wanted'],
  ['ponds', 'pond', 'a pond is wanted'],
  ['pass', 'pass', 'water must reach it'],
] as const;
const TURNS = ['', ', turned a quarter', ', turned by half', ', turned three quarters'];

interface PlaceProps {
  wish: TableWish;
  stock: TableStock;
  place: TablePlace;
  tile: LaidTile | undefined;
  onPress: () => void;
}

function Place({ wish, stock, place, tile, onPress }: PlaceProps) {
  const { designs, levelMm, recipe } = useLiveDesk();
  const [, state, words] = STATES.find(([list]) => wish[list].some(samePlace(place))) ?? [null, undefined, 'free'];
  const kept = wish.fixed.some(samePlace(place));
  const design = tile && designs.find(({ id }) => id === stock.designIds[tile.tile])?.data;
  const tag = tile && stock.tiles[tile.tile]!.tag;
  return (
    <button
      type="button"
      className={styles.place}
      data-state={state}
      data-kept={kept || undefined}
      aria-label={`Column ${place.column + 1}, row ${place.row + 1}: ${tag ? `${tag}${TURNS[tile.quarters]}; ` : ''}${words}${kept ? ', kept' : ''}`}
      onClick={onPress}
    >
      {design && (
        <span className={styles.laid} style={{ transform: `rotate(${-90 * tile.quarters}deg)` }}>
          <BedThumb design={design} levelMm={levelMm} recipe={recipe?.doses ?? []} />
        </span>
      )}
      {state === 'fork' && <Sign path="M20 36V22M20 22L9 8M20 22L31 8" />}
      {state === 'pond' && <Sign path="M7 20c0-8 6-11 13-11s13 3 13 11-6 11-13 11S7 28 7 20Z" />}
      {tag && <span className={styles.tag}>{kept ? `${tag}, kept` : tag}</span>}
    </button>
  );
}

/** What is wanted of a place, drawn over whatever lies there. */
function Sign({ path }: { path: string }) {
  return (
    <svg className={styles.sign} viewBox="0 0 40 40" aria-hidden>
      <path d={path} />
    </svg>
  );
}
