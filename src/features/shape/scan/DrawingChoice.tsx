'use client';

import { useEffect, useState } from 'react';
import { outlineSize } from '@/core/bed/outline';
import type { Outline, PieceDesign } from '@/core/model/designSchema';
import type { ScanSummary } from '@/core/formats/scanFile';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { ScanJob } from '@/workers/scanner';
import type { ScanResult } from './scanResult';
import styles from './ScanDialog.module.css';

interface DrawingChoiceProps {
  summary: Extract<ScanSummary, { kind: 'svg' }>;
  job: ScanJob;
  onResult: (result: ScanResult) => void;
}

const ASKED_WIDTH_MM = 140;

/** Which shape of a drawing is the outline, and how wide it is when the drawing does not say. */
export function DrawingChoice({ summary, job, onResult }: DrawingChoiceProps) {
  const units = useUnits();
  const [shape, setShape] = useState(0);
  const chosen = summary.shapes[shape]!;
  const [widthMm, setWidthMm] = useState(summary.mmPerUnit ? chosen.widthUnits * summary.mmPerUnit : ASKED_WIDTH_MM);
  const [found, setFound] = useState<{ outline: Outline | null; complaint: string | null }>({
    outline: null,
    complaint: null,
  });
  const mmPerUnit = widthMm / chosen.widthUnits;
  useEffect(() => {
    let current = true;
    job.remote.outline(shape, mmPerUnit).then(
      (outline) => current && setFound({ outline, complaint: null }),
      (error: unknown) =>
        current && setFound({ outline: null, complaint: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      current = false;
    };
  }, [job, shape, mmPerUnit]);
  const { outline, complaint } = found;
  useEffect(() => {
    const change = (design: PieceDesign): PieceDesign => ({ ...design, outline: outline! });
    onResult({ change: outline ? change : null, what: 'Outline from a drawing' });
  }, [outline, onResult]);
  const choose = (value: string): void => {
    const next = Number(value);
    setShape(next);
    if (summary.mmPerUnit) setWidthMm(summary.shapes[next]!.widthUnits * summary.mmPerUnit);
  };
  const size = outline ? outlineSize(outline) : null;
  const path =
    outline?.kind === 'free'
      ? `M${outline.points.map(({ xMm, yMm }) => `${xMm} ${size!.lengthMm - yMm}`).join('L')}Z`
      : '';
  return (
    <div className={styles.sides}>
      <div className={styles.fields}>
        {summary.shapes.length > 1 && (
          <ChoiceField
            label="Which shape"
            value={String(shape)}
            choices={summary.shapes
              .slice(0, 60)
              .map(({ name }, i) => ({ value: String(i), label: i === 0 ? `${name}, the largest` : name }))}
            onCommit={choose}
          />
        )}
        <MeasureField
          label="Width of the outline"
          quantity="length"
          value={widthMm}
          hint={summary.mmPerUnit ? 'as the drawing says' : 'the drawing gives no size in mm or inches: say it'}
          validate={(value) => (value <= 0 || value > 3000 ? 'Between 0 and 3000 mm' : null)}
          onCommit={setWidthMm}
        />
      </div>
      <div>
        {complaint && (
          <p role="alert" className={styles.complaint}>
            {complaint}
          </p>
        )}
        {size && (
          <figure className={styles.picture}>
            <svg viewBox={`-2 -2 ${size.widthMm + 4} ${size.lengthMm + 4}`} role="img" aria-label="The outline">
              <path d={path} className={styles.outline} />
            </svg>
            <figcaption>{`${formatMeasure(size.widthMm, 'length', units)} × ${formatMeasure(size.lengthMm, 'length', units)}`}</figcaption>
          </figure>
        )}
      </div>
    </div>
  );
}
