'use client';

import { useId } from 'react';
import { hexFromLinear, type LinearRgb } from '@/core/tint/colour';
import { cupColour } from '@/core/tint/waterLook';
import { pourDoses, type WaterTint } from '@/core/tint/waterTint';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useWidth } from '@/ui/useWidth';
import { CutOpen } from '@/ui/waterline/CutOpen';
import styles from './PoursView.module.css';
import type { TintPour } from '@/core/model/tintSchema';

/** Water from the shore to the deep under some name. */
export interface Band {
  name: string;
  at: (depthMm: number) => LinearRgb;
}

const STOPS = 24;
const BAND = 34;
const LABEL = 21;

interface BandsPictureProps {
  bands: readonly Band[];
  deepestMm: number;
  /** Where the wish has its middle. */
  halfwayMm: number;
}

/** Waters side by side, from the shore to the deep. */
export function BandsPicture({ bands, deepestMm, halfwayMm }: BandsPictureProps) {
  const [box, width] = useWidth(720, 'poursPicture');
  const gradient = useId();
  const units = useUnits();
  const at = (halfwayMm / deepestMm) * width;
  return (
    <div ref={box}>
      <svg
        width={width}
        height={bands.length * (BAND + LABEL)}
        role="img"
        aria-label={`From the shore to ${formatMeasure(deepestMm, 'length', units)} deep: ${bands.map(({ name }) => name).join('; ')}`}
      >
        {bands.map((band, i) => (
          <g key={band.name} className={styles.band} transform={`translate(0 ${i * (BAND + LABEL)})`}>
            <linearGradient id={`${gradient}${i}`}>
              {Array.from({ length: STOPS + 1 }, (_, k) => (
                <stop key={k} offset={k / STOPS} stopColor={hexFromLinear(band.at((deepestMm * k) / STOPS))} />
              ))}
            </linearGradient>
            <text y={15}>{band.name}</text>
            <rect y={LABEL} width={width} height={BAND} fill={`url(#${gradient}${i})`} />
          </g>
        ))}
        <path className={styles.half} d={`M${at} ${LABEL}V${bands.length * (BAND + LABEL)}`} />
      </svg>
    </div>
  );
}

interface PoursPictureProps {
  pours: readonly TintPour[];
  /** The recipe and the product that they are of. */
  tint: WaterTint;
  deepestMm: number;
}

/** The pours cut open from the shore to the deep. */
export const PoursPicture = ({ pours, tint, deepestMm }: PoursPictureProps) => (
  <CutOpen
    title="Cut open: each pour in the colour of its cup"
    deepestMm={deepestMm}
    stretches={pours.map((pour) => ({
      thicknessMm: pour.thicknessMm,
      fill: cupColour({ ...tint, doses: pourDoses(tint.doses, pour) }),
      words: pourWords(pour, tint),
    }))}
  />
);

function pourWords(pour: TintPour, { doses }: WaterTint): string {
  if (!pour.own) return pour.strength === 0 ? 'clear' : `× ${pour.strength.toFixed(2)}`;
  const own = pourDoses(doses, pour).filter(({ gramsPer100 }) => gramsPer100 >= 0.0005);
  return own.length === 0
    ? 'clear'
    : own.map(({ colourant, gramsPer100 }) => `${gramsPer100.toFixed(3)} g ${colourant.name.toLowerCase()}`).join(', ');
}
