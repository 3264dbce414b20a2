'use client';

import { samePlace } from '@/core/seams/tableRules';
import type { Opening, TablePlace, TableWish } from '@/core/model/tableSchema';
import { TABLE_SHAPES, turnedWords } from '@/core/seams/tableShape';
import type { TableStock } from '@/core/seams/tableTiles';
import type { LaidTile } from '@/core/seams/tableTypes';
import { BedThumb } from '../desk/BedThumb';
import { useLiveDesk } from '../desk/DeskContext';
import { TablePlan, TurnedTile } from './TablePlan';
import { brushed, toggledOpening, type Brush } from './tableWish';
import styles from './TableView.module.css';

interface TableGridProps {
  wish: TableWish;
  stock: TableStock;
  laid: readonly LaidTile[];
  brush: Brush;
  onWish: (make: (wish: TableWish) => TableWish, label: string, holds?: boolean) => void;
}

/** The table from above, north at the top: its places and its edges to press. */
export function TableGrid({ wish, stock, laid, brush, onWish }: TableGridProps) {
  const { grid, columns, rows } = wish;
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
            : [...newest.fixed, { ...place, piece: pieceOf(stock, tile!), turns: tile!.turns }],
        }),
        free ? 'Let a tile go' : 'Keep a tile where it lies',
        true,
      );
      return;
    }
    onWish((newest) => brushed(newest, place, brush), 'Change what the table wants');
  };
  const edge = ({ column, row, side }: Opening): React.ReactNode => {
    const number = wish.openings.findIndex(
      (opening) => opening.column === column && opening.row === row && opening.side === side,
    );
    return (
      <button
        type="button"
        className={styles.edge}
        aria-pressed={number >= 0}
        aria-label={`Water at the ${edgeWords(wish, { column, row, side })}${number === 0 ? ', comes in' : ''}`}
        onClick={() =>
          onWish((newest) => toggledOpening(newest, { column, row }, side), 'Change where water leaves the table')
        }
      >
        {number < 0 ? '' : number === 0 ? 'in' : 'out'}
      </button>
    );
  };
  return (
    <TablePlan
      grid={grid}
      columns={columns}
      rows={rows}
      sizeMm={stock.sizeMm}
      edge={edge}
      place={(place) => (
        <Place
          wish={wish}
          stock={stock}
          place={place}
          tile={laid.find(samePlace(place))}
          onPress={() => press(place)}
        />
      )}
    />
  );
}

/** A laid tile as what it is. */
export const pieceOf = ({ tiles }: TableStock, { tile }: LaidTile): TableWish['fixed'][number]['piece'] => {
  const { designId, copy } = tiles[tile]!;
  return { designId, copy };
};

/** An edge of the table in words: `west edge, row 2`. */
export function edgeWords({ grid }: Pick<TableWish, 'grid'>, { column, row, side }: Opening): string {
  const { names } = TABLE_SHAPES[grid];
  if (names.length > 4) return `${names[side]} side of column ${column + 1}, row ${row + 1}`;
  return `${names[side]} edge, ${side % 2 === 0 ? `column ${column + 1}` : `row ${row + 1}`}`;
}

const STATES = [
  ['blocked', 'blocked', 'blocked'],
  ['forks', 'fork', 'a fork is wanted'],
  ['ponds', 'pond', 'a pond is wanted'],
  ['pass', 'pass', 'water must reach it'],
] as const;

interface PlaceProps {
  wish: TableWish;
  stock: TableStock;
  place: TablePlace;
  tile: LaidTile | undefined;
  onPress: () => void;
}

function Place({ wish, stock, place, tile, onPress }: PlaceProps) {
  const { designs, levelMm, tint } = useLiveDesk();
  const [, state, words] = STATES.find(([list]) => wish[list].some(samePlace(place))) ?? [null, undefined, 'free'];
  const kept = wish.fixed.some(samePlace(place));
  const kind = tile && stock.tiles[tile.tile]!;
  const design = kind && designs.find(({ id }) => id === kind.designId)?.data;
  const turned = tile ? turnedWords(wish.grid, tile.turns) : '';
  return (
    <button
      type="button"
      className={styles.place}
      data-state={state}
      data-kept={kept || undefined}
      aria-label={`Column ${place.column + 1}, row ${place.row + 1}: ${kind ? `${kind.tag}${turned && `, ${turned}`}; ` : ''}${words}${kept ? ', kept' : ''}`}
      onClick={onPress}
    >
      {tile && design && (
        <TurnedTile grid={wish.grid} sizeMm={stock.sizeMm} turns={tile.turns}>
          <BedThumb design={design} levelMm={levelMm} tint={tint} filling />
        </TurnedTile>
      )}
      {state === 'fork' && <Sign path="M20 36V22M20 22L9 8M20 22L31 8" />}
      {state === 'pond' && <Sign path="M7 20c0-8 6-11 13-11s13 3 13 11-6 11-13 11S7 28 7 20Z" />}
      {kind && <span className={styles.tag}>{kept ? `${kind.tag}, kept` : kind.tag}</span>}
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
