'use client';

import type { KeyboardEvent } from 'react';
import type { LotRow } from '@/core/records/views';
import type { StockPart } from '@/core/model/stockSchema';
import type { StockThing } from './stockItems';
import styles from './Stock.module.css';

interface BottlesProps {
  lots: readonly LotRow[];
  thing: StockThing;
  chosenId: string | null;
  /** What a lot says of itself, for those who do not see it. */
  wordsOf: (lot: LotRow) => string;
  isPast: (lot: LotRow) => boolean;
  onChoose: (id: string) => void;
}

const HEIGHT = 72;
const NECK = 10;
const WIDE: Record<StockPart, number> = { A: 34, B: 24, all: 34 };

const bottlePath = (wide: number): string =>
  `M${wide * 0.3} 1v${NECK - 4}L1 ${NECK + 3}V${HEIGHT - 1}H${wide - 1}V${NECK + 3}L${wide * 0.7} ${NECK - 3}V1Z`;
const boxPath = (wide: number): string => `M1 ${NECK + 1}H${wide - 1}V${HEIGHT - 1}H1Z`;

function toNeighbour(event: KeyboardEvent<HTMLButtonElement>): void {
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
  if (by === undefined) return;
  const all = [...event.currentTarget.closest('ul')!.querySelectorAll<HTMLElement>('[data-lot]')];
  event.preventDefault();
  all[all.indexOf(event.currentTarget) + by]?.focus();
}

/** Lots of one thing on their board, each part as full as it is. A lot past its date is struck through. */
export function Bottles({ lots, thing, chosenId, wordsOf, isPast, onChoose }: BottlesProps) {
  // One stop for the whole board: arrows go from lot to lot.
  const tabbed = lots.find(({ id }) => id === chosenId)?.id ?? lots[0]?.id;
  return (
    <ul className={styles.board}>
      {lots.map((row) => (
        <li key={row.id}>
          <button
            type="button"
            className={styles.lot}
            aria-pressed={row.id === chosenId}
            data-lot={row.id}
            tabIndex={row.id === tabbed ? 0 : -1}
            onKeyDown={toNeighbour}
            onClick={() => onChoose(row.id)}
          >
            <span className={styles.bottles} aria-hidden>
              {row.data.bought.map(({ part, amount }) => {
                const left = row.left.find((one) => one.part === part)?.amount ?? 0;
                const level = Math.max(0, Math.min(1, left / amount)) * (HEIGHT - NECK - 2);
                const wide = WIDE[part];
                return (
                  <svg key={part} width={wide} height={HEIGHT} viewBox={`0 0 ${wide} ${HEIGHT}`}>
                    <path d={thing.counted === 'pieces' ? boxPath(wide) : bottlePath(wide)} className={styles.glass} />
                    <rect
                      x={1.5}
                      y={HEIGHT - 1.5 - level}
                      width={wide - 3}
                      height={level}
                      className={styles.fill}
                      {...(thing.colour && { style: { fill: thing.colour } })}
                    />
                    {isPast(row) && <path d={`M1 ${HEIGHT - 1}L${wide - 1} ${NECK + 3}`} className={styles.past} />}
                    {part !== 'all' && (
                      <text x={wide / 2} y={HEIGHT - 8} textAnchor="middle" className={styles.part}>
                        {part}
                      </text>
                    )}
                  </svg>
                );
              })}
            </span>
            <span className={styles.lotName}>{row.data.name}</span>
            <span className="visually-hidden">{wordsOf(row)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
