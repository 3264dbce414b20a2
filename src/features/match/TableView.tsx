'use client';

import ChevronLeft from '@mui/icons-material/ChevronLeft';
import ChevronRight from '@mui/icons-material/ChevronRight';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { MatchSet } from '@/core/seams/matchSet';
import { checkWish, lacking } from '@/core/seams/table';
import { wantedTile } from '@/core/bed/starters';
import type { KeptTable, TableGridKind } from '@/core/model/tableSchema';
import { placesOn, tableExtent } from '@/core/seams/tableShape';
import { tableStock, type TableStock } from '@/core/seams/tableTiles';
import type { LaidTile, TableResult } from '@/core/seams/tableTypes';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Tick } from '@/ui/controls/Tick';
import { Toggles } from '@/ui/controls/Toggles';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { layInWorker } from '@/workers/matching';
import { useDesk } from '../desk/DeskContext';
import { LayoutWalk } from './LayoutWalk';
import { MakeListPanel } from './MakeListPanel';
import { pieceOf, TableGrid } from './TableGrid';
import { laidOf, MOST_ACROSS, MOST_EXTRAS, onTable, plain, resultWords, sizeOf, type Brush } from './tableWish';
import { TileStock } from './TileStock';
import type { Matching } from './useMatch';
import { newTable, useTables, type Tables } from './useTables';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

/** Tiles on tables: where water comes in and goes out, what it must reach; layouts from the stock; what to make for all of them. */
export function TableView({ matching: { match: set, request } }: { matching: Matching }) {
  const stock = useMemo(() => set && !set.partial && tableStock(request.pieces, set), [set, request]);
  if (!set || stock === false) return <p className={match.teach}>Matching the tiles…</p>;
  if (!stock)
    return (
      <p className={match.teach}>
        A table is laid with tiles of one size: squares, rectangles or hexagons. This set has none yet; add some on the
        Shape stage.
      </p>
    );
  return <TableList stock={stock} match={set} limits={request.limits} />;
}

function TableList({ stock, match: set, limits }: Pick<OneTableProps, 'stock' | 'match' | 'limits'>) {
  const tables = useTables(stock.grids[0]!);
  const [openId, setOpenId] = useState<string | null>(null);
  // Layouts that were found stay while other tables are looked at.
  const [founds, setFounds] = useState<Readonly<Record<string, Found>>>({});
  const table = tables.tables.find(({ id }) => id === openId) ?? tables.tables[0]!;
  const addTable = (): void => {
    let number = tables.tables.length + 1;
    while (tables.tables.some(({ id }) => id === `table-${number}`)) number++;
    const next = newTable(`table-${number}`, `Table ${number}`, stock.grids[0]!);
    tables.add(next);
    setOpenId(next.id);
  };
  return (
    <div className={styles.tables}>
      <div className={styles.list}>
        <Toggles
          label="Tables"
          value={table.id}
          choices={tables.tables.map(({ id, name, laid }) => ({ value: id, label: laid ? `${name}, laid` : name }))}
          onChoose={setOpenId}
        />
        {tables.tables.length < 12 && (
          <Button size="small" variant="text" onClick={addTable}>
            Another table
          </Button>
        )}
      </div>
      <OneTable
        key={table.id}
        table={table}
        tables={tables}
        stock={stock}
        match={set}
        limits={limits}
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
  const { desk, edits } = useDesk();
  const { wish } = table;
  const [brush, setBrush] = useState<Brush>('pass');
  const [search, setSearch] = useState<Search>({ at: 'idle' });
  const job = useRef<{ end: () => void } | null>(null);
  const seed = useRef(0);
  useEffect(() => () => job.current?.end(), []);
  const problems = checkWish(wish, stock.tiles);
  const makeTile = (wanted: 'fork' | 'pond'): void => {
    const { widthMm, lengthMm } = stock.sizeMm;
    void edits.run(({ set, designs, shelf }) => {
      const tags = designs.map(({ data }) => data.tag);
      const outline = { kind: 'rectangle', widthMm, lengthMm } as const;
      const data = wantedTile(wanted, outline, set.data.levelMm, tags, shelf.settings.data.units);
      return { do: 'add', kind: 'design', setId: set.id, data, label: `Add ${data.tag} ${data.name}` };
    }, `A ${wanted} is among the pieces: draw it as you like it on Shape`);
  };
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
        laid: laid.map((place) => ({
          column: place.column,
          row: place.row,
          turns: place.turns,
          piece: pieceOf(stock, place),
        })),
      }),
      `Keep a layout of ${table.name}`,
    );
  const isKept = kept !== null && JSON.stringify(plain(kept)) === JSON.stringify(plain(laid));
  return (
    <section aria-label="Table" className={styles.table}>
      <div className={styles.side}>
        <WordField
          label="Name"
          value={table.name}
          validate={(name) => (name.trim() === '' || name.length > 40 ? 'Between 1 and 40 characters' : null)}
          onCommit={(name) => tables.change(table.id, (newest) => ({ ...newest, name }), `Rename ${table.name}`)}
        />
        <TableSizes
          table={table}
          stock={stock}
          onTable={(make, label) => {
            forget();
            tables.change(table.id, make, label);
          }}
        />
        <Brushes brush={brush} onBrush={setBrush} laid={laid.length > 0} />
        {(['anyFork', 'anyPond'] as const).map((key) => (
          <Tick
            key={key}
            label={key === 'anyFork' ? 'a fork somewhere' : 'a pond somewhere'}
            checked={wish[key]}
            onChange={(on) =>
              change(table.id, (newest) => ({ ...newest, [key]: on }), `Change what ${table.name} wants`)
            }
          />
        ))}
        {problems.map((problem) => (
          <p key={problem} role="alert" className={styles.problem}>
            {problem}
          </p>
        ))}
        {lacking(wish, stock.tiles).map((wanted) => (
          <Button key={wanted} size="small" onClick={() => makeTile(wanted)}>
            {wanted === 'fork' ? 'Draw a fork tile' : 'Draw a pond tile'}
          </Button>
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
              <IconButton
                disabled={found.at === 0}
                onClick={() => setFound({ ...found, at: found.at - 1 })}
                aria-label="The layout before"
              >
                <ChevronLeft />
              </IconButton>
              {`${found.at + 1} of ${found.layouts.length}`}
              <IconButton
                disabled={found.at === found.layouts.length - 1}
                onClick={() => setFound({ ...found, at: found.at + 1 })}
                aria-label="The next layout"
              >
                <ChevronRight />
              </IconButton>
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
          <Button
            size="small"
            variant="text"

            onClick={() => tables.change(table.id, () => null, `Remove ${table.name}`)}
          >
            {`Remove ${table.name}`}
          </Button>
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

interface TableSizesProps {
  table: KeptTable;
  stock: TableStock;
  onTable: (make: (table: KeptTable) => KeptTable, label: string) => void;
}

const GRID_WORDS: Partial<Record<TableGridKind, string>> = {
  rectangle: 'width across',
  'rectangle across': 'length across',
};

/** How large the table is, how many tiles it takes which way round, and what strip is left over. */
function TableSizes({ table, stock, onTable: put }: TableSizesProps) {
  const units = useUnits();
  const mm = (value: number): string => formatMeasure(value, 'length', units, 0);
  const [lost, setLost] = useState<string | null>(null);
  const { wish } = table;
  const { grids, sizeMm: tile } = stock;
  const size = sizeOf(table, stock);
  const change = (make: (table: KeptTable) => KeptTable, label: string): void => {
    const gone = wish.openings.length - make(table).wish.openings.length;
    setLost(gone > 0 ? `${gone === 1 ? 'An opening' : `${gone} openings`} had no place left and went.` : null);
    put(make, label);
  };
  const measure = (key: 'acrossMm' | 'upMm', label: string): React.ReactNode => {
    const least = tableExtent(wish.grid, tile, 1, 1)[key];
    const most = tableExtent(wish.grid, tile, MOST_ACROSS, MOST_ACROSS)[key] + least;
    return (
      <MeasureField
        label={label}
        quantity="length"
        step={least}
        value={size[key]}
        validate={(value) => (value >= least - 0.5 && value <= most ? null : `Between ${mm(least)} and ${mm(most)}`)}
        onCommit={(value) =>
          change(
            (newest) => onTable(newest, stock, { ...sizeOf(newest, stock), [key]: value }),
            `Change the size of ${table.name}`,
          )
        }
      />
    );
  };
  return (
    <>
      <div className={styles.sizes}>
        {measure('acrossMm', 'Table across')}
        {measure('upMm', 'Table up')}
      </div>
      {grids.length > 1 && (
        <Toggles
          label="Which way round tiles lie"
          value={wish.grid}
          choices={grids.map((grid) => ({ value: grid, label: GRID_WORDS[grid] ?? grid }))}
          onChoose={(grid) =>
            change((newest) => onTable(newest, stock, sizeOf(newest, stock), grid), `Turn the tiles of ${table.name}`)
          }
        />
      )}
      {!grids.includes(wish.grid) && (
        <p className={styles.problem}>
          This table was made for other tiles.{' '}
          <Button
            size="small"
            onClick={() =>
              change(
                (newest) => onTable(newest, stock, sizeOf(newest, stock), grids[0]),
                `Fit ${table.name} to the tiles`,
              )
            }
          >
            Fit it to these
          </Button>
        </p>
      )}
      {grids.map((grid) => {
        const { columns, rows, leftAcrossMm, leftUpMm } = placesOn(grid, tile, size);
        return (
          <p key={grid} className={styles.quiet}>
            {`${GRID_WORDS[grid] ? `With ${GRID_WORDS[grid]}: ` : ''}${columns} × ${rows} places, ${columns * rows} in all; ${leftWords(leftAcrossMm, leftUpMm, mm)}.`}
          </p>
        );
      })}
      {lost && (
        <p role="status" className={styles.problem}>
          {lost}
        </p>
      )}
    </>
  );
}

function leftWords(across: number, up: number, mm: (value: number) => string): string {
  const parts = [
    ...(across >= 0.5 ? [`a strip of ${mm(across)} left at the side`] : []),
    ...(up >= 0.5 ? [`one of ${mm(up)} left up the table`] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : 'nothing is left over';
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
      <RadioGroup value={brush} onChange={(event) => onBrush(event.target.value as Brush)}>
        {BRUSHES.map(({ value, label }) => (
          <FormControlLabel
            key={value}
            value={value}
            label={label}
            disabled={value === 'keep' && !laid}
            control={<Radio size="small" />}
          />
        ))}
      </RadioGroup>
      <p className={styles.quiet}>Press the table’s edge for water: the first is where it comes in.</p>
    </fieldset>
  );
}
