'use client';

import { useId } from 'react';
import { inLight, type Light } from '@/core/tint/lamp';
import { DETAILS, SEEN_FROM, seenToMm, type Detail, type SeenFrom } from '@/core/tint/visibility';
import { linearFromHex } from '@/core/tint/colour';
import { colourByDepth, waterLook } from '@/core/tint/waterLook';
import type { WaterTint } from '@/core/tint/waterTint';
import { useWidth } from '@/ui/useWidth';
import { editText, formatMeasure } from '@/core/units/formatMeasure';
import { roundStep } from '@/core/units/steps';
import { useUnits } from '@/ui/measure/UnitsContext';
import styles from './RecipeWedge.module.css';

export interface RecipeWedgeProps {
  name: string;
  bedColour: string;
  tint: WaterTint;
  deepestMm: number;
  /** Where each design's water ends. */
  marks: readonly { tag: string; depthMm: number }[];
  light: Light;
  from: SeenFrom;
}

/** Beds that the recipe is shown over, and the detail that stands out most on each. */
const DARK_BED = '#4a3f30';
const PALE_BED = '#ddd6c2';
const ROW = 36;
const TOP = 26;
const WEDGE = 84;
const GAP = 22;

/**
 * The recipe over a dark, the set's own and a pale bed, from no water to the deepest; where a detail is no longer seen a line
 * crosses it. Under that the water cut open over the set's own bed.
 */
export function RecipeWedge({ name, bedColour, tint, deepestMm, marks, light, from }: RecipeWedgeProps) {
  const [box, width] = useWidth(600, 'recipeWedge');
  const gradient = useId();
  const rows = [
    { bed: DARK_BED, words: 'dark bed', detail: 'light' },
    { bed: bedColour, words: 'this bed', detail: 'light' },
    { bed: PALE_BED, words: 'pale bed', detail: 'dark' },
  ] satisfies { bed: string; words: string; detail: Detail }[];
  const x = (depthMm: number): number => (depthMm / deepestMm) * width;
  const stops = (bed: string): React.ReactNode => {
    const { colours } = waterLook({ bedColour: bed }, tint, deepestMm);
    return colours.map((colour, i) => (
      <stop key={i} offset={i / (colours.length - 1)} stopColor={inLight(colour, light)} />
    ));
  };
  const wedgeTop = TOP + rows.length * ROW + GAP;
  const units = useUnits();
  const length = (mm: number): string => formatMeasure(mm, 'length', units);
  const every = roundStep(deepestMm > 12 ? 5 : deepestMm > 4 ? 1 : 0.5, 'length', units);
  return (
    <div ref={box} className={styles.wedge}>
      <svg
        width={width}
        height={wedgeTop + WEDGE + 24}
        role="img"
        aria-label={`${name} over a dark, the set’s and a pale bed, from the shore to ${length(deepestMm)} deep`}
      >
        <defs>
          {rows.map(({ bed }, i) => (
            <linearGradient key={i} id={`${gradient}${i}`}>
              {stops(bed)}
            </linearGradient>
          ))}
          <linearGradient id={`${gradient}w`} x1="0" x2="0" y1="0" y2="1">
            {stops(bedColour)}
          </linearGradient>
        </defs>
        {rows.map(({ bed, words, detail }, i) => {
          const top = TOP + i * ROW;
          const seen = seenToMm(linearFromHex(bed), linearFromHex(DETAILS[detail]), tint, SEEN_FROM[from]);
          const colourAt = colourByDepth(DETAILS[detail], tint);
          const lostAt = seen === null || seen > deepestMm ? null : x(seen);
          return (
            <g key={words}>
              <rect y={top} width={width} height={ROW} fill={`url(#${gradient}${i})`} />
              {Array.from({ length: 16 }, (_, k) => {
                const depthMm = ((k + 0.5) / 16) * deepestMm;
                return (
                  <ellipse
                    key={k}
                    cx={x(depthMm)}
                    cy={top + 11 + ((k * 23 + i * 7) % 15)}
                    rx={4 + (k % 3)}
                    ry={3 + (k % 2)}
                    fill={inLight(colourAt(depthMm), light)}
                  />
                );
              })}
              {lostAt !== null && (
                <path className={styles.lost} d={`M${lostAt} ${top}v${ROW}`}>
                  <title>{`a ${detail} detail on a ${words} is seen to ${length(seen!)}`}</title>
                </path>
              )}
            </g>
          );
        })}
        <path d={`M0 ${wedgeTop}H${width}V${wedgeTop + WEDGE}Z`} fill={`url(#${gradient}w)`} />
        <path d={`M0 ${wedgeTop}L${width} ${wedgeTop + WEDGE}`} className={styles.bedLine} />
        <line x1="0" x2={width} y1={wedgeTop} y2={wedgeTop} className={styles.levelLine} />
        {Array.from({ length: Math.floor(deepestMm / every) + 1 }, (_, i) => i * every).map((depthMm) => (
          <g key={depthMm} className={styles.scale}>
            <line x1={x(depthMm)} x2={x(depthMm)} y1={wedgeTop - GAP} y2={wedgeTop - GAP + 5} />
            {(depthMm === 0 || (x(depthMm) > 84 && x(depthMm) < width - 4)) && (
              <text x={x(depthMm)} y={wedgeTop + WEDGE + 20} textAnchor={depthMm === 0 ? 'start' : 'middle'}>
                {depthMm === 0 ? `0 ${units.length} deep` : editText(depthMm, 'length', units)}
              </text>
            )}
          </g>
        ))}
        {placeMarks(marks, x).map(({ tags, at }) => (
          <g key={tags} className={styles.mark}>
            <line x1={Math.min(width - 1, at)} x2={Math.min(width - 1, at)} y1={18} y2={wedgeTop - GAP} />
            <text x={Math.min(width, at + 3)} y={14} textAnchor="end">
              {tags}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

/** Marks that would stand on each other share one. */
function placeMarks(marks: RecipeWedgeProps['marks'], x: (depthMm: number) => number): { tags: string; at: number }[] {
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
