'use client';

import type { KeyboardEvent, PointerEvent } from 'react';
import type { CupSizes } from '@/core/tint/cupSizes';
import { useWidth } from '@/ui/useWidth';
import styles from './CupsView.module.css';

interface CupRulerProps {
  sizes: CupSizes;
  mixGrams: number;
  mostGrams: number;
  onMix: (grams: number) => void;
}

const HEIGHT = 66;
const TOP = 14;
const BAR = 26;

/** Cup sizes along a ruler: where whole drops are right the water is drawn in; the cup in hand is dragged along it. */
export function CupRuler({ sizes, mixGrams, mostGrams, onMix }: CupRulerProps) {
  const [box, width] = useWidth(420, 'cupRuler');
  const x = (grams: number): number => Math.min(width, (grams / mostGrams) * width);
  const every = [5, 10, 20, 50, 100, 200, 500].find((step) => (step / mostGrams) * width > 44) ?? 1000;
  const right =
    mixGrams >= sizes.alwaysFromGrams || sizes.right.some((r) => mixGrams >= r.fromGrams && mixGrams <= r.toGrams);
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.buttons === 0) return;
    const { left } = event.currentTarget.getBoundingClientRect();
    onMix(Math.min(mostGrams, Math.max(1, Math.round(((event.clientX - left) / width) * mostGrams))));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageUp: 10, PageDown: -10 }[event.key];
    if (!step) return;
    event.preventDefault();
    onMix(Math.max(1, Math.round(mixGrams) + step));
  };
  return (
    <div ref={box} className={styles.rulerBox}>
      <svg
        width={width}
        height={HEIGHT}
        className={styles.ruler}
        role="slider"
        tabIndex={0}
        aria-label="Mix in the cup"
        aria-valuemin={1}
        aria-valuemax={Math.round(mostGrams)}
        aria-valuenow={Math.round(mixGrams)}
        aria-valuetext={`${Math.round(mixGrams)} g, whole drops ${right ? 'are right' : 'miss the recipe'}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drag(event);
        }}
        onPointerMove={drag}
        onKeyDown={onKeyDown}
      >
        <rect x={0.5} y={TOP} width={width - 1} height={BAR} className={styles.dry} />
        {[...sizes.right, { fromGrams: sizes.alwaysFromGrams, toGrams: mostGrams }].map(({ fromGrams, toGrams }) => (
          <rect
            key={fromGrams}
            x={x(fromGrams)}
            y={TOP}
            width={Math.max(1, x(toGrams) - x(fromGrams))}
            height={BAR}
            className={styles.wet}
          />
        ))}
        {Array.from({ length: Math.floor(mostGrams / every) + 1 }, (_, i) => i * every).map((grams) => (
          <g key={grams} className={styles.tick}>
            <path d={`M${x(grams)} ${TOP + BAR}v5`} />
            <text x={Math.min(width - 14, Math.max(10, x(grams)))} y={TOP + BAR + 20} textAnchor="middle">
              {grams === 0 ? '0 g' : grams}
            </text>
          </g>
        ))}
        <path className={styles.hand} data-right={right || undefined} d={`M${x(mixGrams)} ${TOP - 4}v${BAR + 8}`} />
        <path className={styles.grip} d={`M${x(mixGrams) - 6} ${TOP - 12}h12l-6 9z`} />
      </svg>
    </div>
  );
}
