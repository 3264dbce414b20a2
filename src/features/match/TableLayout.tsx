'use client';

import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { MatchRequest, MatchSet } from '@/core/seams/matchSet';
import { checkWish, TABLE_SIDES, type LaidTile, type TableResult, type TableSide, type TableWish } from '@/core/seams/table';
import { tableStock, type TableStock } from '@/core/seams/tableTiles';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { layInWorker } from '@/workers/matching';
import { useDesk, useLiveDesk } from '../desk/DeskContext';
import { BedThumb } from '../tint/BedThumb';
import styles from './TableLayout.module.css';

const FIRST_WISH: TableWish = { columns: 4, rows: 3, blocked: [], pass: [], openings: [{ column: 0, row: 1, side: 3 }, { column: 3, row: 1, side: 1 }] };
const MOST_EXTRAS = 6;
type Search = { at: 'idle' } | { at: 'searching' } | { at: 'done'; result: TableResult };

/** Tiles on a table: where water comes in and goes out, what it must reach, what is blocked; and a layout from the stock. */
export function TableLayout({ match, request }: { match: MatchSet | null; request: MatchRequest }) {
  const units = useUnits();
  const stock = useMemo(() => match && tableStock(request.pieces, match, request.limits), [match, request]);
  const [wish, setWish] = useState(FIRST_WISH);
  const [search, setSearch] = useState<Search>({ at: 'idle' });
  const [seed, setSeed] = useState(1);
  const job = useRef<{ end: () => void } | null>(null);
  useEffect(() => () => job.current?.end(), []);
  if (!stock || !stock.tiles.some(({ wet }) => wet.some(Boolean))) return null;
  const problems = checkWish(wish, stock.tiles);
  const change = (next: TableWish): void => {
    job.current?.end();
    setWish(next);
    setSearch({ at: 'idle' });
  };
  const lay = (nextSeed: number): void => {
    job.current?.end();
    setSeed(nextSeed);
    setSearch({ at: 'searching' });
    const started = layInWorker(wish, stock, nextSeed, MOST_EXTRAS);
    job.current = started;
    started.result.then((result) => job.current === started && setSearch({ at: 'done', result }), reportError);
  };
  const stop = (): void => {
    job.current?.end();
    job.current = null;
    setSearch({ at: 'idle' });
  };
  const resize = (columns: number, rows: number): void => {
    const inside = ({ column, row }: { column: number; row: number }): boolean => column < columns && row < rows;
    change({ columns, rows, blocked: wish.blocked.filter(inside), pass: wish.pass.filter(inside), openings: wish.openings.filter((opening) => inside(opening) && onEdge(opening, columns, rows)) });
  };
  const found = search.at === 'done' && search.result.kind === 'found' ? search.result : null;
  return (
    <section aria-label="Table" className={styles.table}>
      <h2 className={styles.heading}>Tiles on a table</h2>
      <div className={styles.controls}>
        <MeasureField label="Places across" quantity="number" value={wish.columns} validate={(value) => (Number.isInteger(value) && value >= 1 && value <= 20 ? null : 'A whole number from 1 to 20')} onCommit={(columns) => resize(columns, wish.rows)} />
        <MeasureField label="Places up" quantity="number" value={wish.rows} validate={(value) => (Number.isInteger(value) && value >= 1 && value <= 20 ? null : 'A whole number from 1 to 20')} onCommit={(rows) => resize(wish.columns, rows)} />
        <p className={styles.quiet}>{`${formatMeasure(wish.columns * stock.sizeMm, 'length', units, 0)} × ${formatMeasure(wish.rows * stock.sizeMm, 'length', units, 0)}. Press a place: water must reach it, then blocked, then free. Press the table’s edge for water in or out; the first is upstream.`}</p>
      </div>
      <Grid wish={wish} stock={stock} laid={found?.layout.laid ?? []} onWish={change} />
      {problems.map((problem) => (
        <p key={problem} role="alert" className={styles.problem}>
          {problem}
        </p>
      ))}
      {stock.leftOut.map((words) => (
        <p key={words} className={styles.quiet}>
          {`Not on this grid: ${words}`}
        </p>
      ))}
      <div className={styles.actions}>
        {search.at === 'searching' ? (
          <Button onClick={stop}>Stop searching</Button>
        ) : (
          <Button variant="contained" disabled={problems.length > 0} onClick={() => lay(found ? seed + 1 : 1)}>
            {found ? 'Another layout' : 'Lay it'}
          </Button>
        )}
        <p role="status">{search.at === 'searching' ? 'Searching…' : search.at === 'done' ? resultWords(search.result, stock) : ''}</p>
      </div>
    </section>
  );
}

const onEdge = ({ column, row, side }: TableWish['openings'][number], columns: number, rows: number): boolean => (side === 0 ? row === 0 : side === 2 ? row === rows - 1 : side === 3 ? column === 0 : column === columns - 1);

function resultWords(result: TableResult, { tiles }: TableStock): string {
  if (result.kind === 'none') return `It cannot be laid, not even with ${MOST_EXTRAS} pieces more. Free a place, or move an opening.`;
  if (result.kind === 'gave up') return 'No layout found in the time allowed; there may be one. Try again, or ask for less.';
  const { extras, laid } = result.layout;
  if (extras.length === 0) return `${laid.length} tiles, all in stock.`;
  return `${laid.length} tiles. It needs ${extras.map(({ tile, count }) => `${count} more ${tiles[tile]!.tag}`).join(' and ')}${result.fewest ? '; fewer will not do' : ''}.`;
}

interface GridProps {
  wish: TableWish;
  stock: TableStock;
  laid: readonly LaidTile[];
  onWish: (wish: TableWish) => void;
}

/** The table from above, north at the top, with its four edges to press. */
function Grid({ wish, stock, laid, onWish }: GridProps) {
  const { columns, rows } = wish;
  const press = (column: number, row: number): void => {
    const is = (cell: { column: number; row: number }): boolean => cell.column === column && cell.row === row;
    const [passes, blocked] = [wish.pass.some(is), wish.blocked.some(is)];
    onWish({ ...wish, pass: passes || blocked ? wish.pass.filter((cell) => !is(cell)) : [...wish.pass, { column, row }], blocked: passes ? [...wish.blocked, { column, row }] : wish.blocked.filter((cell) => !is(cell)) });
  };
  const toggle = (column: number, row: number, side: TableSide): void => {
    const same = (opening: TableWish['openings'][number]): boolean => opening.column === column && opening.row === row && opening.side === side;
    onWish({ ...wish, openings: wish.openings.some(same) ? wish.openings.filter((opening) => !same(opening)) : [...wish.openings, { column, row, side }] });
  };
  const edge = (column: number, row: number, side: TableSide): React.ReactNode => {
    const number = wish.openings.findIndex((opening) => opening.column === column && opening.row === row && opening.side === side);
    const along = side === 0 || side === 2 ? `column ${column + 1}` : `row ${row + 1}`;
    return <button key={`${side}${column}${row}`} type="button" className={styles.edge} data-side={TABLE_SIDES[side]} aria-pressed={number >= 0} aria-label={`Water at the ${TABLE_SIDES[side]} edge, ${along}`} onClick={() => toggle(column, row, side)}>{number < 0 ? '' : number === 0 ? 'in' : 'out'}</button>;
  };
  const span = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
  return (
    <div className={styles.grid} style={{ gridTemplateColumns: `28px repeat(${columns}, minmax(0, 1fr)) 28px`, maxWidth: columns * 118 + 56 }}>
      <span />
      {span(columns).map((column) => edge(column, rows - 1, 2))}
      <span />
      {span(rows).reverse().flatMap((row) => [
        edge(0, row, 3),
        ...span(columns).map((column) => <Place key={`${column},${row}`} wish={wish} stock={stock} column={column} row={row} tile={laid.find((place) => place.column === column && place.row === row)} onPress={() => press(column, row)} />),
        edge(columns - 1, row, 1),
      ])}
      <span />
      {span(columns).map((column) => edge(column, 0, 0))}
      <span />
    </div>
  );
}

interface PlaceProps {
  wish: TableWish;
  stock: TableStock;
  column: number;
  row: number;
  tile: LaidTile | undefined;
  onPress: () => void;
}

const TURNS = ['', ', turned a quarter', ', turned by half', ', turned three quarters'];

function Place({ wish, stock, column, row, tile, onPress }: PlaceProps) {
  const { desk } = useDesk();
  const { levelMm, recipe } = useLiveDesk();
  const is = (cell: { column: number; row: number }): boolean => cell.column === column && cell.row === row;
  const state = wish.blocked.some(is) ? 'blocked' : wish.pass.some(is) ? 'water must reach it' : 'free';
  const design = tile && desk.designs.find(({ id }) => id === stock.designIds[tile.tile])?.data;
  const tag = tile && stock.tiles[tile.tile]!.tag;
  return (
    <button type="button" className={styles.place} data-state={state === 'free' ? undefined : state === 'blocked' ? 'blocked' : 'pass'} aria-label={`Column ${column + 1}, row ${row + 1}: ${tag ? `${tag}${TURNS[tile.quarters]}; ` : ''}${state}`} onClick={onPress}>
      {design && (
        <span className={styles.laid} style={{ transform: `rotate(${-90 * tile.quarters}deg)` }}>
          <BedThumb design={design} levelMm={levelMm} recipe={recipe?.doses ?? []} />
        </span>
      )}
      {tag && <span className={styles.tag}>{tag}</span>}
    </button>
  );
}
