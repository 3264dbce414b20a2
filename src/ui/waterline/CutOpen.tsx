'use client';

import { useWidth } from '../useWidth';
import styles from './CutOpen.module.css';

interface CutOpenProps {
  title: string;
  /** From the surface down; the last goes on to the bed. */
  stretches: readonly { thicknessMm: number | null; fill: string; words: string }[];
  deepestMm: number;
}

const TITLE = 21;
const CUT = 132;

/** Water in layers, cut open from the shore to the deep. */
export function CutOpen({ title, stretches, deepestMm }: CutOpenProps) {
  const [box, width] = useWidth(720, 'cutOpen');
  const x = (depthMm: number): number => (depthMm / deepestMm) * width;
  const y = (depthMm: number): number => TITLE + 4 + (depthMm / deepestMm) * CUT;
  const drawn = placed(stretches, deepestMm);
  // In the layer where it is long enough, else beneath the bed, clear of its line.
  const placeOf = (words: string, depthMm: number): { x: number; y: number } =>
    roomFor(words) < width - x(depthMm)
      ? { x: width - 8, y: y(depthMm) + 5 }
      : { x: x(depthMm) - 12, y: Math.min(y(deepestMm), y(depthMm) + 16) };
  return (
    <div ref={box}>
      <svg
        width={width}
        height={y(deepestMm) + 4}
        role="img"
        aria-label={`${title}: ${drawn.map(({ words }) => words).join('; ')}, from the surface down`}
      >
        <text className={styles.title} y={15}>
          {title}
        </text>
        {drawn.map(({ fromMm, toMm, fill, words }, i) => (
          <g key={i}>
            <path
              d={`M${x(fromMm)} ${y(fromMm)}H${width}V${y(toMm)}H${x(toMm)}Z`}
              fill={fill}
              className={styles.stretch}
            />
            <text className={styles.words} textAnchor="end" {...placeOf(words, (fromMm + toMm) / 2)}>
              {words}
            </text>
          </g>
        ))}
        <path d={`M0 ${y(0)}H${width}`} className={styles.line} />
        <path d={`M0 ${y(0)}L${width} ${y(deepestMm)}`} className={styles.line} />
      </svg>
    </div>
  );
}

/** Width of some words in the picture, px, roughly. */
const roomFor = (words: string): number => 7 * words.length + 24;

interface Placed {
  fromMm: number;
  toMm: number;
  fill: string;
  words: string;
}

function placed(stretches: CutOpenProps['stretches'], deepestMm: number): Placed[] {
  let top = 0;
  return stretches.flatMap(({ thicknessMm, ...stretch }, i) => {
    const fromMm = top;
    const last = thicknessMm === null || i === stretches.length - 1;
    top = last ? deepestMm : Math.min(deepestMm, fromMm + thicknessMm);
    return top > fromMm ? [{ ...stretch, fromMm, toMm: top }] : [];
  });
}
