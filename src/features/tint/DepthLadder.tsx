'use client';

import { useId } from 'react';
import type { RecipeDose } from '@/core/tint/doses';
import { colourByDepth, waterLook } from '@/core/tint/waterLook';
import { useWidth } from '@/ui/useWidth';
import styles from './TintStage.module.css';

interface DepthLadderProps {
  bedColour: string;
  recipe: readonly RecipeDose[];
  deepestMm: number;
  /** Where each design's water ends. */
  marks: readonly { tag: string; depthMm: number }[];
}

const HEIGHT = 230;
const BAR = { top: 34, height: 62 };
const WEDGE = { top: 112, height: 92 };
/** Details painted on the bed, lighter and darker than it. */
const DETAILS = ['#e9e2cf', '#5c5038'];

/** One bed under water that deepens from left to right: from above, and cut open. Pebbles show where details go under. */
export function DepthLadder({ bedColour, recipe, deepestMm, marks }: DepthLadderProps) {
  const [box, width] = useWidth(600);
  const gradient = useId();
  const look = waterLook({ bedColour }, recipe, deepestMm);
  const details = DETAILS.map((colour) => colourByDepth(colour, recipe));
  const x = (depthMm: number): number => (depthMm / deepestMm) * width;
  const stops = look.colours.map((colour, i) => (
    <stop key={i} offset={i / (look.colours.length - 1)} stopColor={colour} />
  ));
  const pebbles = Array.from({ length: 26 }, (_, i) => {
    const depthMm = ((i + 0.6) / 26.4) * deepestMm;
    const colour = details[i % 2]!(depthMm);
    return (
      <ellipse
        key={i}
        cx={x(depthMm)}
        cy={BAR.top + 14 + ((i * 37) % 36)}
        rx={4 + (i % 3)}
        ry={3 + (i % 2)}
        fill={colour}
      />
    );
  });
  const every = deepestMm > 12 ? 5 : deepestMm > 4 ? 1 : 0.5;
  return (
    <div ref={box} className={styles.ladder}>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The recipe over the bed, from the shore to ${deepestMm.toFixed(1)} mm deep`}
      >
        <defs>
          <linearGradient id={`${gradient}a`}>{stops}</linearGradient>
          <linearGradient id={`${gradient}b`} x1="0" x2="0" y1="0" y2="1">
            {stops}
          </linearGradient>
        </defs>
        <rect x="0" y={BAR.top} width={width} height={BAR.height} fill={`url(#${gradient}a)`} />
        {pebbles}
        <path d={`M0 ${WEDGE.top}H${width}V${WEDGE.top + WEDGE.height}Z`} fill={`url(#${gradient}b)`} />
        <path d={`M0 ${WEDGE.top}L${width} ${WEDGE.top + WEDGE.height}`} className={styles.bedLine} />
        <line x1="0" x2={width} y1={WEDGE.top} y2={WEDGE.top} className={styles.levelLine} />
        {Array.from({ length: Math.floor(deepestMm / every) + 1 }, (_, i) => i * every).map((depthMm) => (
          <g key={depthMm} className={styles.scale}>
            <line x1={x(depthMm)} x2={x(depthMm)} y1={BAR.top + BAR.height} y2={BAR.top + BAR.height + 5} />
            {(depthMm === 0 || (x(depthMm) > 84 && x(depthMm) < width - 4)) && (
              <text x={x(depthMm)} y={WEDGE.top + WEDGE.height + 20} textAnchor={depthMm === 0 ? 'start' : 'middle'}>
                {depthMm === 0 ? '0 mm deep' : depthMm}
              </text>
            )}
          </g>
        ))}
        {placeMarks(marks, x).map(({ tags, at }) => (
          <g key={tags} className={styles.mark}>
            <line x1={Math.min(width - 1, at)} x2={Math.min(width - 1, at)} y1={20} y2={BAR.top + BAR.height} />
            <text x={Math.min(width, at + 3)} y={15} textAnchor="end">
              {tags}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

/** Marks that would stand on each other share one. */
function placeMarks(marks: DepthLadderProps['marks'], x: (depthMm: number) => number): { tags: string; at: number }[] {
  const placed: { tags: string; at: number }[] = [];
  for (const { tag, depthMm } of [...marks].sort((a, b) => a.depthMm - b.depthMm)) {
    const at = x(depthMm);
    const last = placed.at(-1);
    if (last && at - last.at < 60)
      placed[placed.length - 1] = {
        tags: last.tags.length > 14 ? last.tags.replace(/ …$/, '') + ' …' : `${last.tags} ${tag}`,
        at,
      };
    else placed.push({ tags: tag, at });
  }
  return placed;
}
