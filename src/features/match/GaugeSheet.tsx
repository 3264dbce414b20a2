'use client';

import type { EdgeStandard } from '@/core/model/edgeStandardSchema';
import { DEFAULT_KERF_MM, gaugeDrawing, GAUGE_SIDES, pageStretches, type GaugeSide } from '@/core/formats/gauge';
import { PrintFrame } from '@/ui/print/PrintFrame';
import styles from './Sheet.module.css';

/** What fits across an A4 or Letter page with its margins. */
const PAGE_MM = 180;
const OVERLAP_MM = 10;
const BAR_MM = 50;

/** Both gauges of a standard at true size, in stretches where they are longer than the page; a bar to check the print by. */
export function GaugeSheet({ setId, setName, standard }: { setId: string; setName: string; standard: EdgeStandard }) {
  return (
    <PrintFrame label="Sheet" back={`/sets/${setId}/match?show=standards`} backTo="Back to the standards">
      {() => (
        <main className={styles.sheet}>
          <h1>{`${standard.name}: cutting gauges`}</h1>
          <p>{`${setName}. Print at 100 %, without fitting to the page, and lay a ruler on the bar before you cut. The cut is taken as ${standard.kerfMm ?? DEFAULT_KERF_MM} mm wide. Blades: cut away from your hand.`}</p>
          <svg
            className={styles.bar}
            width={`${BAR_MM + 2}mm`}
            height="8mm"
            viewBox={`-1 -2 ${BAR_MM + 2} 8`}
            role="img"
            aria-label="A bar of 50 mm to check the print by"
          >
            <path
              d={`M0 0H${BAR_MM}M0 -1.5V1.5M${BAR_MM} -1.5V1.5M10 -1V1M20 -1V1M30 -1V1M40 -1V1`}
              className={styles.line}
            />
            <text x="0" y="5.4" className={styles.words}>{`${BAR_MM} mm`}</text>
          </svg>
          {GAUGE_SIDES.map((side) => (
            <Gauge key={side} standard={standard} side={side} />
          ))}
        </main>
      )}
    </PrintFrame>
  );
}

function Gauge({ standard, side }: { standard: EdgeStandard; side: GaugeSide }) {
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
        <p>{`Longer than a page: lay each part over the one before up to the dashed line, ${OVERLAP_MM} mm, and glue.`}</p>
      )}
    </section>
  );
}
