'use client';

import { NotRead } from '@/ui/held/NotRead';
import { useFetched } from '@/ui/useFetched';
import Button from '@mui/material/Button';
import { dayWithYear, shortTime } from '@/core/time/dayNames';
import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import type { LotRow, MovementRow } from '@/core/records/views';
import { lotSchema, type StockPart } from '@/core/model/stockSchema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { DateField } from '@/ui/controls/MomentField';
import { Tick } from '@/ui/controls/Tick';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import type { ShelfDoor } from '../shelfEdits';
import type { StockThing } from './stockItems';
import styles from './Stock.module.css';

interface LotPanelProps {
  edits: ShelfDoor;
  row: LotRow;
  thing: StockThing | undefined;
  until: string | null;
  past: boolean;
}

/** One lot: its label, what is left by the scale, and every movement. */
export function LotPanel({ edits, row, thing, until, past }: LotPanelProps) {
  const units = useUnits();
  const { data: lot } = row;
  const today = edits.view.now.slice(0, 10);
  const quantity = thing?.counted === 'pieces' ? 'number' : 'mass';
  const put = (path: Path, value: unknown): void =>
    void edits.run(({ lots }) => {
      const newest = lots.find(({ id }) => id === row.id);
      return newest
        ? {
            do: 'put',
            kind: 'lot',
            id: row.id,
            version: newest.version,
            label: `Change ${lot.name}`,
            data: replaceAt(newest.data, path, value) as LotRow['data'],
          }
        : null;
    }, `Changed ${lot.name}`);
  const validate = (path: Path) => (value: unknown) => complaintAt(lotSchema as never, lot as never, path, value);
  const move = (
    part: StockPart,
    amount: number,
    kind: 'corrected' | 'thrown away' | 'used',
    label: string,
  ): Promise<unknown> =>
    edits.run(
      (view) => ({
        do: 'add',
        kind: 'movement',
        data: { lotId: row.id, part, amount, kind, at: view.now, note: '' },
        label: label.slice(0, 80),
      }),
      label,
    );
  const throwAway = async (): Promise<void> => {
    for (const { part, amount } of row.left)
      if (amount > 0) await move(part, -amount, 'thrown away', `Throw away ${lot.name}`);
  };
  const words = (part: StockPart): string => (part === 'all' ? '' : ` of part ${part}`);
  return (
    <aside aria-label={lot.name} className={styles.panel}>
      <h2 className={styles.heading}>
        {lot.name}
        <span>{thing?.name}</span>
      </h2>
      {past && (
        <p className={styles.soon} role="status">
          {`Past its date since ${dayWithYear(until!)}. Old resin may stay sticky or cure yellow: test a little first. Plans leave it out.`}
        </p>
      )}
      <div className={styles.fields}>
        {lot.bought.map(({ part }) => {
          const left = row.left.find((one) => one.part === part)?.amount ?? 0;
          return (
            <MeasureField
              key={`${part} ${left}`}
              label={`What is left${words(part)}`}
              quantity={quantity}
              value={Math.round(left * 100) / 100}
              step={quantity === 'mass' ? 5 : 1}
              hint="weigh it without the bottle"
              validate={(value) => (value >= 0 ? null : 'Cannot be negative')}
              onCommit={(value) =>
                void move(part, value - left, 'corrected', `What is left of ${lot.name}${words(part)}`)
              }
            />
          );
        })}
        <WordField
          label="Name of the lot"
          value={lot.name}
          validate={validate(['name'])}
          onCommit={(name) => put(['name'], name)}
        />
        {lot.bought.map(({ part, amount }, i) => (
          <MeasureField
            key={part}
            label={`Held when bought${part === 'all' ? '' : `, part ${part}`}`}
            quantity={quantity}
            value={amount}
            step={10}
            validate={validate(['bought', i, 'amount'])}
            onCommit={(value) => put(['bought', i, 'amount'], value)}
          />
        ))}
        <MeasureField
          label={`Price, ${units.currency}`}
          quantity="number"
          value={lot.price}
          step={1}
          validate={validate(['price'])}
          onCommit={(value) => put(['price'], value)}
        />
        <DateField label="Bought on" value={lot.boughtOn} onCommit={(day) => put(['boughtOn'], day)} />
        <DateField
          label="Best before"
          value={lot.bestBefore ?? ''}
          onCommit={(day) => put(['bestBefore'], day || null)}
          hint="from the label, if it has one"
        />
        <div>
          <Tick
            label="Opened"
            checked={lot.openedOn !== null}
            onChange={(open) => put(['openedOn'], open ? (today < lot.boughtOn ? lot.boughtOn : today) : null)}
          />
          {lot.openedOn !== null && (
            <DateField
              label="Opened on"
              value={lot.openedOn}
              error={validate(['openedOn'])(lot.openedOn)}
              onCommit={(day) => put(['openedOn'], day || null)}
            />
          )}
        </div>
      </div>
      {until && !past && <p className={styles.small}>{`Good until ${dayWithYear(until)}.`}</p>}
      <div className={styles.actions}>
        <Button size="small" onClick={() => void throwAway()} disabled={row.left.every(({ amount }) => amount <= 0)}>
          Throw away what is left
        </Button>
        <Button
          size="small"
          variant="text"

          onClick={() =>
            void edits.run(({ lots }) => {
              const newest = lots.find(({ id }) => id === row.id);
              return newest ? { do: 'remove', kind: 'lot', id: row.id, version: newest.version } : null;
            }, `${lot.name} is out of the books`)
          }
        >
          Entered by mistake
        </Button>
      </div>
      <History row={row} pieces={quantity === 'number'} />
    </aside>
  );
}

/** Every movement of a lot, the latest first. */
function History({ row, pieces }: { row: LotRow; pieces: boolean }) {
  const units = useUnits();
  const read = useFetched<MovementRow[]>(
    `/api/lots/${encodeURIComponent(row.id)}`,
    JSON.stringify([row.version, row.left, row.lastAt]),
  );
  const amount = (value: number): string =>
    pieces ? String(Math.round(value)) : formatMeasure(Math.abs(value), 'mass', units);
  const signed = (value: number): string => (value === 0 ? '' : `${value < 0 ? '−' : '+'}${amount(Math.abs(value))}`);
  return (
    <>
      <h3>Where it went</h3>
      {read.failed ? (
        <NotRead what="Its movements could not be read." again={read.again} />
      ) : (
        !read.data && <p className={styles.small}>Reading its movements…</p>
      )}
      {/* It scrolls, so keys have to get into it. */}
      <ol className={styles.history} tabIndex={0} aria-label="Movements">
        {read.data?.map((one) => (
          <li key={one.id}>
            <span>{shortTime(one.at)}</span>
            <span>
              {one.kind}
              {one.part === 'all' ? '' : `, part ${one.part}`}
              {one.note && <small>{`${one.note}${one.cup === null ? '' : `, cup ${one.cup}`}`}</small>}
            </span>
            <b>{signed(one.amount)}</b>
            <span>{amount(one.leftAfter)}</span>
          </li>
        ))}
      </ol>
    </>
  );
}
