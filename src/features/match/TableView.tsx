'use client';

import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { MatchSet } from '@/core/seams/matchSet';
import { checkWish, type LaidTile, type TableResult } from '@/core/seams/table';
import type { KeptTable } from '@/core/seams/tableSchema';
import { tableStock, type TableStock } from '@/core/seams/tableTiles';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { layInWorker } from '@/workers/matching';
import { useDesk } from '../desk/DeskContext';
import { LayoutWalk } from './LayoutWalk';
import { MakeListPanel } from './MakeListPanel';
import { TableGrid } from './TableGrid';
import { laidOf, MOST_EXTRAS, plain, resized, resultWords, type Brush } from './tableWish';
import { TileStock } from './TileStock';
import type { Matching } from './useMatch';
import { newTable, useTables, type Tables } from './useTables';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

const MOST_ACROSS = 20;

/** Tiles on tables: where water comes in and goes out, what it must reach; layouts from the stock; what to make for all of them. */
export function TableView({ matching: { match: set, request } }: { matching: Matching }) {
  const stock = useMemo(() => set && tableStock(request.pieces, set), [set, request]);
  const tables = useTables();
  const [openId, setOpenId] = useState<string | null>(null);
  // Layouts that were found stay while other tables are looked at.
  const [founds, setFounds] = useState<Readonly<Record<string, Found>>>({});
  const table = tables.tables.find(({ id }) => id === openId) ?? tables.tables[0]!;
  if (!set) return <p className={match.teach}>Matching the tiles…</p>;
  if (!stock)
    return (
      <p className={match.teach}>
        A table is laid with square tiles of one size. This set has none yet; add some on the Shape stage.
      </p>
    );
  const addTable = (): void => {
    let number = tables.tables.length + 1;
    while (tables.tables.some(({ id }) => id === `table-${number}`)) number++;
    const next = newTable(`table-${number}`, `Table ${number}`);
    tables.add(next);
    setOpenId(next.id);
  };
  return (
    <div className={styles.tables}>
      <nav aria-label="Tables" className={styles.list}>
        {tables.tables.map(({ id, name, laid }) => (
          <button key={id} type="button" aria-pressed={id === table.id} onClick={() => setOpenId(id)}>
            {name}
            {laid && <small> laid</small>}
          </button>
        ))}
        {tables.tables.length < 12 && (
          <button type="button" className={styles.add} onClick={addTable}>
            + another table
          </button>
        )}
      </nav>
      <OneTable
        key={table.id}
        table={table}
        tables={tables}
        stock={stock}
        match={set}
        limits={request.limits}
        found={founds[table.id] ?? NONE_FOUND}
        setFound={(found) => setFounds((all) => ({ ...all, [table.id]: found }))}
      />
      <div className={styles.below}>
        <TileStock stock={stock} />
        <MakeListPanel tables={tables.tables} stock={stock} />
      </div>
    </div>
  );
}

/** Layouts found since the wish last changed, and which of them is on the table. */
interface Found {
  layouts: LaidTile[][];
  at: number;
}
const NONE_FOUND: Found = { layouts: [], at: -1 };

interface OneTableProps {
  table: KeptTable;
  tables: Tables;
  stock: TableStock;
  match: MatchSet;
  limits: Matching['request']['limits'];
  found: Found;
  setFound: (found: Found) => void;
}

/** Seeds that are tried for a layout that is not the same again. */
const TRIES = 8;
type Search = { at: 'idle' } | { at: 'searching'; steps: number } | { at: 'done'; result: TableResult; again: boolean };

function OneTable({ table, tables, stock, match: set, limits, found, setFound }: OneTableProps) {
  const { desk } = useDesk();
  const units = useUnits();
  const mm = (value: number): string => formatMeasure(value, 'length', units, 0);
  const { wish } = table;
  const [brush, setBrush] = useState<Brush>('pass');
  const [search, setSearch] = useState<Search>({ at: 'idle' });
  const job = useRef<{ end: () => void } | null>(null);
  const seed = useRef(0);
  useEffect(() => () => job.current?.end(), []);
  const problems = checkWish(wish, stock.tiles);
  const kept = useMemo(() => table.laid && laidOf(table.laid, stock), [table.laid, stock]);
  const fixed = useMemo(() => laidOf(wish.fixed, stock), [wish.fixed, stock]);
  // Without a layout at least the tiles that are kept lie on the table.
  const whole = found.layouts[found.at] ?? kept;
  const laid = whole ?? fixed ?? [];
  const forget = (): void => {
    job.current?.end();
    setSearch({ at: 'idle' });
    setFound(NONE_FOUND);
  };
  const change: Tables['wish'] = (id, make, label, holds = false) => {
    if (!holds) forget();
    tables.wish(id, make, label, holds);
  };
  const lay = (tries = TRIES): void => {
    job.current?.end();
    seed.current++;
    setSearch({ at: 'searching', steps: 0 });
    const started = layInWorker(
      wish,
      stock,
      seed.current,
      MOST_EXTRAS,
      (steps) => job.current === started && setSearch({ at: 'searching', steps }),
    );
    job.current = started;
    started.result.then((result) => {
      if (job.current !== started) return;
      const key = result.kind === 'found' ? JSON.stringify(plain(result.layout.laid)) : null;
      const known = found.layouts.findIndex((layout) => JSON.stringify(plain(layout)) === key);
      if (known >= 0 && tries > 1) return lay(tries - 1);
      setSearch({ at: 'done', result, again: known >= 0 });
      if (known >= 0) setFound({ ...found, at: known });
      else if (result.kind === 'found')
        setFound({ layouts: [...found.layouts, result.layout.laid], at: found.layouts.length });
    }, reportError);
  };
  const stop = (): void => {
    job.current?.end();
    job.current = null;
    setSearch({ at: 'idle' });
  };
  const keep = (): void =>
    tables.change(
      table.id,
      (newest) => ({
        ...newest,
        laid: laid.map(({ column, row, tile, quarters }) => ({ column, row, quarters, piece: stock.tiles[tile]!.tag })),
      }),
      `Keep a layout of ${table.name}`,
    );
  const isKept = kept !== null && JSON.stringify(plain(kept)) === JSON.stringify(plain(laid));
  const size = (key: 'columns' | 'rows', label: string): React.ReactNode => (
    <MeasureField
      label={label}
      quantity="length"
      step={stock.sizeMm}
      value={wish[key] * stock.sizeMm}
      hint={`${wish[key]} ${wish[key] === 1 ? 'place' : 'places'} of ${mm(stock.sizeMm)}`}
      validate={(value) =>
        value >= stock.sizeMm - 0.5 && value <= MOST_ACROSS * stock.sizeMm + stock.sizeMm
          ? null
          : `Between ${mm(stock.sizeMm)} and ${mm(MOST_ACROSS * stock.sizeMm)}`
      }
      onCommit={(value) =>
        change(
          table.id,
          (newest) =>
            resized({ ...newest, [key]: Math.min(MOST_ACROSS, Math.max(1, Math.floor((value + 0.5) / stock.sizeMm))) }),
          `Change the size of ${table.name}`,
        )
      }
    />
  );
  return (
    <section aria-label="Table" className={styles.table}>
      <div className={styles.side}>
        <WordField
          label="Name"
          value={table.name}
          validate={(name) => (name.trim() === '' || name.length > 40 ? 'Between 1 and 40 characters' : null)}
          onCommit={(name) => tables.change(table.id, (newest) => ({ ...newest, name }), `Rename ${table.name}`)}
        />
        <div className={styles.sizes}>
          {size('columns', 'Table across')}
          {size('rows', 'Table up')}
        </div>
        <Brushes brush={brush} onBrush={setBrush} laid={laid.length > 0} />
        {(['anyFork', 'anyPond'] as const).map((key) => (
          <label key={key} className={styles.check}>
            <input
              type="checkbox"
              checked={wish[key]}
              onChange={(event) =>
                change(
                  table.id,
                  (newest) => ({ ...newest, [key]: event.target.checked }),
                  `Change what ${table.name} wants`,
                )
              }
            />
            {key === 'anyFork' ? ' a fork somewhere' : ' a pond somewhere'}
          </label>
        ))}
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
            <Button variant="contained" disabled={problems.length > 0} onClick={() => lay()}>
              {found.layouts.length > 0 || kept ? 'Another layout' : 'Lay it'}
            </Button>
          )}
          {found.layouts.length > 1 && (
            <span className={styles.browse}>
              <button
                type="button"
                disabled={found.at === 0}
                onClick={() => setFound({ ...found, at: found.at - 1 })}
                aria-label="The layout before"
              >
                ‹
              </button>
              {`${found.at + 1} of ${found.layouts.length}`}
              <button
                type="button"
                disabled={found.at === found.layouts.length - 1}
                onClick={() => setFound({ ...found, at: found.at + 1 })}
                aria-label="The next layout"
              >
                ›
              </button>
            </span>
          )}
        </div>
        <p role="status" className={styles.status}>
          {search.at === 'searching'
            ? `Searching… ${search.steps.toLocaleString('en')} placements tried`
            : search.at === 'done'
              ? `${search.again ? `No other layout in ${TRIES} tries. ` : ''}${resultWords(search.result, stock)}`
              : ''}
        </p>
        {whole && (
          <p className={styles.keep}>
            {isKept ? (
              <>
                Kept. <a href={`/layouts/${desk.set.id}/${table.id}`}>Print it</a>
              </>
            ) : (
              <Button size="small" onClick={keep}>
                Keep this layout
              </Button>
            )}
          </p>
        )}
        {tables.tables.length > 1 && (
          <button
            type="button"
            className={styles.remove}
            onClick={() => tables.change(table.id, () => null, `Remove ${table.name}`)}
          >
            {`Remove ${table.name}`}
          </button>
        )}
      </div>
      <TableGrid
        wish={wish}
        stock={stock}
        laid={laid}
        brush={brush}
        onWish={(make, label, holds) => change(table.id, make, label, holds)}
      />
      {whole && whole.length > 1 && (
        <LayoutWalk
          key={JSON.stringify(plain(laid))}
          wish={wish}
          stock={stock}
          laid={laid}
          match={set}
          limits={limits}
        />
      )}
    </section>
  );
}

const BRUSHES: readonly { value: Brush; label: string }[] = [
  { value: 'pass', label: 'water must reach' },
  { value: 'fork', label: 'a fork here' },
  { value: 'pond', label: 'a pond here' },
  { value: 'blocked', label: 'no tile here' },
  { value: 'keep', label: 'keep this tile' },
];

/** What a press on a place means. */
function Brushes({ brush, onBrush, laid }: { brush: Brush; onBrush: (brush: Brush) => void; laid: boolean }) {
  return (
    <fieldset className={styles.brushes}>
      <legend>Press a place for</legend>
      {BRUSHES.map(({ value, label }) => (
        <label key={value}>
          <input
            type="radio"
            name="brush"
            value={value}
            checked={brush === value}
            disabled={value === 'keep' && !laid}
            onChange={() => onBrush(value)}
          />
          {` ${label}`}
        </label>
      ))}
      <p className={styles.quiet}>Press the table’s edge for water: the first is where it comes in.</p>
    </fieldset>
  );
}
