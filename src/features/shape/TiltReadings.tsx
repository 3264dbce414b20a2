'use client';

import type { Explanation, PiecePlan, TiltPlan } from '@/core/plan';
import { formatMeasure, measureText } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import styles from './ShapeStage.module.css';

/** What the bench does to a piece: how far off each side stands, its colour there, and which corner to raise. */
export function TiltReadings({
  piece,
  tilt,
  explain,
}: {
  piece: PiecePlan;
  tilt: TiltPlan;
  explain: () => Explanation;
}) {
  const units = useUnits();
  const raise = tilt.raise.filter(({ raiseMm }) => raiseMm > 0.05).sort((a, b) => b.raiseMm - a.raiseMm);
  const wet = tilt.edges.filter(({ deepestMm }) => deepestMm > 0);
  return (
    <>
      <h2 className={styles.heading} style={{ marginTop: 18 }}>
        On this bench
      </h2>
      <Readings>
        {wet.map(({ edge, errorMm, deepestMm, colour }) => (
          <Reading
            key={edge}
            label={`${edge[0]!.toUpperCase()}${edge.slice(1)} side`}
            digits={`${errorMm > 0 ? '+' : ''}${measureText(errorMm, 'length', units).digits}`}
            unit={measureText(errorMm, 'length', units).unit}
            explain={explain}
            note={`${formatMeasure(deepestMm, 'length', units)} deep there`}
            swatch={colour}
          />
        ))}
        {raise[0] && (
          <Reading
            label={`Raise the ${raise[0].corner} corner`}
            {...measureText(raise[0].raiseMm, 'length', units)}
            explain={explain}
            note={
              raise
                .slice(1)
                .map(({ corner, raiseMm }) => `${corner} ${formatMeasure(raiseMm, 'length', units)}`)
                .join(', ') || `${piece.tag} then lies level`
            }
          />
        )}
      </Readings>
    </>
  );
}
