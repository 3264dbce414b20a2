'use client';

import { cureTimes } from '@/core/cure/cureLine';
import type { Room } from '@/core/model/roomSchema';
import type { Product } from '@/core/model/productSchema';
import { potLifeMinutes } from '@/core/mixing/potLife';
import { formatMinutes } from '@/core/units/formatMeasure';
import { useWidth } from '../useWidth';
import styles from './CureLine.module.css';

const TICKS = [
  [1, '1 min'],
  [10, '10 min'],
  [60, '1 h'],
  [360, '6 h'],
  [1440, '1 day'],
  [10080, '1 week'],
] as const;
const [FIRST, LAST] = [0.8, 20160];
const MID = 46;

/** A product's life in this room from the first stir to full cure, on a line where each step is several times the last. */
export function ProductLine({ product, room }: { product: Product; room: Room }) {
  const [box, width] = useWidth(700, 'productLine');
  const times = cureTimes(product, room, product.greatestLayerMm);
  const x = (minutes: number): number =>
    (Math.log(Math.min(LAST, Math.max(FIRST, minutes)) / FIRST) / Math.log(LAST / FIRST)) * (width - 20) + 8;
  const life = potLifeMinutes(product, room.temperatureC, 100);
  const closes = times.recoatCloses;
  const words = `Pot life ${formatMinutes(life)}, recoat from ${formatMinutes(times.recoatOpens)}${closes === null ? '' : ` to ${formatMinutes(closes)}`}, demould ${formatMinutes(times.demould)}, full cure ${formatMinutes(times.fullCure)}`;
  return (
    <div ref={box} className={styles.box}>
      <svg width={width} height="98" role="img" aria-label={words} className={styles.line}>
        {TICKS.map(([minutes, label]) => (
          <g key={label}>
            <line className={styles.midnight} x1={x(minutes)} x2={x(minutes)} y1={MID + 18} y2={MID + 25} />
            <text className={styles.day} x={x(minutes)} y={MID + 40} textAnchor="middle">
              {label}
            </text>
          </g>
        ))}
        <line className={styles.base} x1={x(FIRST)} x2={x(times.fullCure)} y1={MID} y2={MID} />
        <rect className={styles.setting} x={x(FIRST)} width={x(life) - x(FIRST)} y={MID - 7} height="14" />
        <rect
          className={styles.recoat}
          x={x(times.recoatOpens)}
          width={Math.max(2, x(closes ?? times.fullCure) - x(times.recoatOpens))}
          y={MID - 7}
          height="14"
        />
        <path className={styles.demould} d={`M${x(times.demould)} ${MID - 12}v24`} />
        <path className={styles.full} d={`M${x(times.fullCure)} ${MID - 9}l8 9l-8 9l-8 -9Z`} />
        <text className={styles.note} x={x(FIRST)} y={MID - 16}>{`pot life ${formatMinutes(life)}`}</text>
        <text className={styles.note} x={Math.max(x(times.recoatOpens), x(FIRST) + 130)} y={MID - 16}>
          recoat
        </text>
        <text
          className={styles.note}
          x={Math.min(width - 2, x(times.fullCure) + 10)}
          y={MID - 16}
          textAnchor="end"
        >{`full cure ${formatMinutes(times.fullCure)}`}</text>
      </svg>
    </div>
  );
}
