'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import type { LotRow } from '@/core/records/views';
import { dayWithYear } from '@/core/time/dayNames';
import { goodUntil, isPast as isPastLot } from '@/core/stock/lots';
import { formatMeasure, formatMoney } from '@/core/units/formatMeasure';
import { MenuButton } from '@/ui/controls/MenuButton';
import { focusSoon } from '@/ui/focusSoon';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { ShelfDoor } from '../shelfEdits';
import { Bottles } from './Bottles';
import { LotPanel } from './LotPanel';
import { StockFiles } from './StockFiles';
import { itemKey, readAllLots, stockThings, type StockThing } from './stockItems';
import styles from './Stock.module.css';

/** Two months ahead a lot is said to be near its date. */
const NEAR_DAYS = 60;

const holdsSome = ({ left }: LotRow): boolean => left.some(({ amount }) => amount > 0);

/** What stands on the shelf: every lot as full as it is, what is near its date, and where each gram went. */
export function StockShelf({ edits, asked }: { edits: ShelfDoor; asked: string | null }) {
  const units = useUnits();
  const { lots, emptied, now } = edits.view;
  const hidden = Object.values(emptied).reduce((sum, count) => sum + count, 0);
  const showAll = (): void =>
    void readAllLots().then((all) => edits.show((view) => ({ ...view, lots: all, emptied: {} })), reportError);
  const today = now.slice(0, 10);
  // The lot that the address asks for, until another is chosen.
  const [picked, setPicked] = useState<{ id: string; asked: string | null } | null>(null);
  const chosenId = picked?.asked === asked ? picked.id : asked;
  const setChosenId = (id: string): void => setPicked({ id, asked });
  const things = stockThings(edits.view);
  const thingOf = (row: LotRow): StockThing | undefined =>
    things.find(({ item }) => itemKey(item) === itemKey(row.data.of));
  const until = (row: LotRow): string | null => goodUntil(row.data, thingOf(row)?.shelfLifeMonths ?? null);
  const isPast = (row: LotRow): boolean => isPastLot(row.data, thingOf(row)?.shelfLifeMonths ?? null, today);
  const shown = things.filter(({ item }) => lots.some(({ data }) => itemKey(data.of) === itemKey(item)));
  const amount = (thing: StockThing, value: number): string =>
    thing.counted === 'grams' ? formatMeasure(value, 'mass', units) : `${Math.round(value)}`;
  const chosen = lots.find(({ id }) => id === chosenId) ?? lots.find(holdsSome) ?? lots[0];
  const near = new Date(Date.parse(`${today}T00:00Z`) + NEAR_DAYS * 86_400_000).toISOString().slice(0, 10);
  const worth = lots.reduce((sum, row) => {
    const whole = row.data.bought.reduce((all, one) => all + one.amount, 0);
    const left = row.left.reduce((all, one) => all + one.amount, 0);
    return sum + (whole > 0 && !isPast(row) ? (row.data.price * left) / whole : 0);
  }, 0);

  const buy = async ({ item, name, pack, price, lotWord }: StockThing): Promise<void> => {
    const count = lots.filter(({ data }) => itemKey(data.of) === itemKey(item)).length + (emptied[itemKey(item)] ?? 0);
    const outcome = await edits.run(
      () => ({
        do: 'add',
        kind: 'lot',
        data: {
          of: item,
          name: `${lotWord} ${count + 1}`,
          bought: pack,
          boughtOn: today,
          openedOn: null,
          bestBefore: null,
          price,
        },
        label: `Buy ${name.toLowerCase()}`.slice(0, 80),
      }),
      `${name} stands on the shelf`,
    );
    if (!outcome.ok || !outcome.id) return;
    setChosenId(outcome.id);
    focusSoon(() => document.querySelector<HTMLElement>(`[data-lot="${outcome.id}"]`));
  };
  const buyMenu = (kind: StockThing['item']['kind'], label: string): React.ReactNode => {
    const own = things.filter(({ item }) => item.kind === kind);
    return (
      own.length > 0 && (
        <MenuButton
          label={label}
          choices={own.map((thing) => ({ key: itemKey(thing.item), label: thing.name, onPick: () => void buy(thing) }))}
        />
      )
    );
  };
  return (
    <section aria-label="Stock" className={styles.stock} id="stock">
      <div>
        <h2 className={styles.heading}>
          What stands here
          {lots.length > 0 && <span>{`worth about ${formatMoney(worth, units)}`}</span>}
        </h2>
        {lots.length === 0 && (
          <p className={styles.teach}>
            Enter a bottle or a kit when you buy it. From then on every cup that you put in the log is taken out of it,
            plans say what is missing and which packs cover it, and old bottles are named before they spoil a pour.
          </p>
        )}
        <div className={styles.boards}>
          {shown.map((thing) => {
            const own = lots.filter(({ data }) => itemKey(data.of) === itemKey(thing.item));
            const sums = thing.pack.map(({ part }) => {
              const left = own
                .filter((row) => !isPast(row))
                .reduce((sum, row) => sum + (row.left.find((one) => one.part === part)?.amount ?? 0), 0);
              return `${part === 'all' ? '' : `${part} `}${amount(thing, left)}`;
            });
            const soon = own.filter((row) => {
              const date = until(row);
              return date !== null && date <= near && row.left.some((one) => one.amount > 0);
            });
            return (
              <div key={itemKey(thing.item)} className={styles.thing}>
                <h3>
                  {thing.name}
                  <span>{sums.join(' · ')} left</span>
                </h3>
                <Bottles
                  lots={own}
                  thing={thing}
                  chosenId={chosen?.id ?? null}
                  isPast={isPast}
                  wordsOf={(row) =>
                    `, ${row.left.map(({ part, amount: left }) => `${part === 'all' ? '' : `part ${part} `}${amount(thing, left)} left`).join(', ')}${isPast(row) ? ', past its date' : ''}`
                  }
                  onChoose={setChosenId}
                />
                {soon.length > 0 && (
                  <p className={styles.soon}>
                    {soon
                      .map(
                        (row) =>
                          `${row.data.name} ${isPast(row) ? 'was' : 'is'} good until ${dayWithYear(until(row)!)}`,
                      )
                      .join('; ')}
                    .
                  </p>
                )}
              </div>
            );
          })}
        </div>
        <div className={styles.actions}>
          {hidden > 0 && (
            <Button size="small" variant="text" onClick={showAll}>
              {`Show ${hidden} more that are empty`}
            </Button>
          )}
          {buyMenu('product', 'Bought a product')}
          {buyMenu('colourant', 'Bought a colourant')}
          {buyMenu('consumable', 'Bought a consumable')}
          <StockFiles edits={edits} />
        </div>
      </div>
      {chosen && (
        <LotPanel
          key={chosen.id}
          edits={edits}
          row={chosen}
          thing={thingOf(chosen)}
          until={until(chosen)}
          past={isPast(chosen)}
        />
      )}
    </section>
  );
}
