'use client';

import type { EdgeStandard } from '@/core/model/edgeStandardSchema';
import { DEFAULT_KERF_MM, gaugeDrawing, GAUGE_SIDES, pageStretches, type GaugeSide } from '@/core/formats/gauge';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';
import { PrintFrame } from '@/ui/print/PrintFrame';
import styles from './Sheet.module.css';

/** What fits across an A4 or Letter page with its margins. */
const PAGE_MM = 180;
const OVERLAP_MM = 10;
/** A bar to check the print by, in tens of millimetres or in half inches. */
const BARS = { mm: { stepMm: 10, steps: 5, words: '50 mm' }, in: { stepMm: 12.7, steps: 4, words: '2″' } } as const;

interface GaugeSheetProps {
  setId: string;
  setName: string;
  standard: EdgeStandard;
  units: UnitPreferences;
}

/** Both gauges of a standard at true size, in stretches where they are longer than the page; a bar to check the print by. */
export function GaugeSheet({ setId, setName, standard, units }: GaugeSheetProps) {
  return (
    <PrintFrame label="Sheet" back={`/sets/${setId}/match?show=standards`} backTo="Back to the standards">
      {() => (
        <main className={styles.sheet}>
          <h1>{`${standard.name}: cutting gauges`}</h1>
          <p>{`${setName}. Print at 100 %, without fitting to the page, and lay a ruler on the bar before you cut. The cut is taken as ${formatMeasure(standard.kerfMm ?? DEFAULT_KERF_MM, 'length', units)} wide. Blades: cut away from your hand.`}</p>
          <Bar unit={units.length} />
          {GAUGE_SIDES.map((side) => (
            <Gauge key={side} {...{ standard, side, units }} />
          ))}
        </main>
      )}
    </PrintFrame>
  );
}

function Bar({ unit }: { unit: UnitPreferences['length'] }) {
  const { stepMm, steps, words } = BARS[unit];
  const long = stepMm * steps;
  const ticks = Array.from({ length: steps - 1 }, (_, i) => `M${(i + 1) * stepMm} -1V1`).join('');
  return (
    <svg
      className={styles.bar}
      width={`${long + 2}mm`}
      height="8mm"
      viewBox={`-1 -2 ${long + 2} 8`}
      role="img"
      aria-label={`A bar of ${words} to check the print by`}
    >
      <path d={`M0 0H${long}M0 -1.5V1.5M${long} -1.5V1.5${ticks}`} className={styles.line} />
      <text x="0" y="5.4" className={styles.words}>
        {words}
      </text>
    </svg>
  );
}

function Gauge({ standard, side, units }: Omit<GaugeSheetProps, 'setId' | 'setName'> & { side: GaugeSide }) {
  const drawing = gaugeDrawing(standard, side, standard.kerfMm ?? DEFAULT_KERF_MM);
  const stretches = pageStretches(drawing.widthMm, PAGE_MM, OVERLAP_MM);
  return (
    <section aria-label={`${side} gauge`}>
      <h2>
        {side === 'male'
          ? 'Male: pressed into the channel it touches bed and banks'
          : 'Female: the bed itself, to draw along and to hold against a cut'}
      </h2>
      {stretches.map(({ fromMm, toMm }, i) => (
        <div key={fromMm} className={styles.gauge}>
          <svg
            width={`${toMm - fromMm + 2}mm`}
            height={`${drawing.heightMm + 2}mm`}
            viewBox={`${fromMm - 1} -1 ${toMm - fromMm + 2} ${drawing.heightMm + 2}`}
            style={{ overflow: 'hidden' }}
            role="img"
            aria-label={`${drawing.label.text}${stretches.length > 1 ? `, part ${i + 1} of ${stretches.length}` : ''}, true size`}
          >
            <path d={drawing.path} className={styles.line} />
            <text x={(fromMm + toMm) / 2} y={drawing.label.yMm} textAnchor="middle" className={styles.words}>
              {`${drawing.label.text}${stretches.length > 1 ? ` · part ${i + 1} of ${stretches.length}` : ''}`}
            </text>
            {i > 0 && <path d={`M${fromMm + OVERLAP_MM} -1V${drawing.heightMm + 1}`} className={styles.cut} />}
          </svg>
        </div>
      ))}
      {stretches.length > 1 && (
        <p>{`Longer than a page: lay each part over the one before up to the dashed line, ${formatMeasure(OVERLAP_MM, 'length', units, 0)}, and glue.`}</p>
      )}
    </section>
  );
}
