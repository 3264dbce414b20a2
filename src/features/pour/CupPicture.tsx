'use client';

import type { CupPlan, PlanRequest } from '@/core/plan';
import { cupWork, fillsMore } from '@/core/pouring/cupWork';
import { colourPortionsOf, partGrams, portionWords, readerOf } from '@/core/pouring/portionWords';
import { formatMeasure, formatMinutes, formatOnScale } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { copyNames } from '@/core/model/pieceRef';
import { groupPours } from '../desk/summarise';
import styles from './CupPicture.module.css';

interface CupPictureProps {
  cup: CupPlan;
  request: PlanRequest;
  /** What the drawn cup holds when full. */
  fullGrams: number;
  colour: string;
  by: 'weight' | 'volume';
  /** A small piece that leftovers may fill, and what it takes. */
  filler: { tag: string; grams: number } | null;
  /** Whether the work of the cup is told: times, what stays in it. */
  told: boolean;
}

const HEIGHT = 112;
const TOP = 74;
const FOOT = 52;

/** One cup, drawn to how full it gets: part B on part A, and beside it what goes in and where it goes. */
export function CupPicture({ cup, request, fullGrams, colour, by, filler, told }: CupPictureProps) {
  const units = useUnits();
  const work = cupWork(cup, request.product, request.losses);
  const more = filler ? fillsMore(work.goodSpareGrams, filler.grams) : 0;
  const { scaleStepGrams } = request.bench;
  const { parts } = request.product;
  const grams = (value: number): string => formatOnScale(value, scaleStepGrams, units);
  const ml = (value: number): string => formatMeasure(value, 'volume', units);
  const fill = Math.min(1, cup.mixGrams / fullGrams) * (HEIGHT - 8);
  const partA = cup.parts ? (cup.parts.partAGrams / cup.mixGrams) * fill : fill;
  const x = (up: number): number => (TOP - (FOOT + ((TOP - FOOT) * up) / HEIGHT)) / 2 + 2;
  const band = (from: number, to: number): string =>
    `M${x(from)} ${HEIGHT - from}L${x(to)} ${HEIGHT - to}H${TOP + 4 - x(to)}L${TOP + 4 - x(from)} ${HEIGHT - from}Z`;
  const amounts = (way: 'part A' | 'part B', density: number): [string, string] => {
    const weighed = partGrams(cup.portions, way);
    const both: [string, string] = [grams(weighed), ml(weighed / density)];
    return by === 'weight' ? both : [both[1], both[0]];
  };
  return (
    <article className={styles.cup} aria-label={`Cup ${cup.number}, ${grams(cup.mixGrams)}`}>
      <svg width={TOP + 4} height={HEIGHT + 4} aria-hidden>
        <path d={band(0, partA)} fill={colour} />
        {cup.parts && <path d={band(partA, fill)} fill={colour} opacity="0.62" />}
        {cup.parts && <path d={`M${x(partA)} ${HEIGHT - partA}H${TOP + 4 - x(partA)}`} className={styles.partLine} />}
        <path d={`M2 2L${x(0)} ${HEIGHT}H${TOP + 4 - x(0)}L${TOP + 2} 2`} className={styles.glass} />
      </svg>
      <div className={styles.text}>
        <h4>
          Cup {cup.number} <span>{grams(cup.mixGrams)}</span>
        </h4>
        {cup.parts && (
          <p className={styles.parts}>
            <Part name="A" amounts={amounts('part A', parts?.densityA ?? 1)} />
            <Part name="B" amounts={amounts('part B', parts?.densityB ?? 1)} />
          </p>
        )}
        {colourPortionsOf(cup.portions).map((portion) => {
          const { act, note, care } = portionWords(portion, readerOf(request.product, { units, scaleStepGrams, by }));
          return (
            <p key={portion.key} className={styles.dose}>
              {portion.name}: <b className={care ? styles.weigh : undefined}>{act}</b> <i>{note}</i>
            </p>
          );
        })}
        <p className={styles.pours}>
          {groupPours(cup.pours).map(({ designId, tag, copies, grams: each }) => (
            <span key={`${designId} ${copies[0]}`}>
              {tag} {copyNames(copies)}: {grams(each)}
              {copies.length > 1 ? ' each' : ''}
            </span>
          ))}
        </p>
        {told && (
          <p className={styles.work}>
            {[
              work.stirMinutes > 0 && `stir ${formatMinutes(work.stirMinutes)}`,
              work.pourByMinutes !== null && `empty within ${formatMinutes(work.pourByMinutes)}`,
              work.leftGrams > 0.05 && `${grams(work.leftGrams)} stay in it`,
              more > 0 && `if little is lost, ${more} × ${filler!.tag} more`,
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
        )}
      </div>
    </article>
  );
}

/** A part as it is measured, and the same by the other school. */
function Part({ name, amounts: [amount, other] }: { name: string; amounts: readonly [string, string] }) {
  return (
    <span>
      {name} <b>{amount}</b> <i>{other}</i>
    </span>
  );
}
