'use client';

import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { DamRun } from '@/core/bed/dams';
import type { BedGrid } from '@/core/bed/grid';
import { designHandles, moveHandle, type Handle } from '@/core/bed/handles';
import { outlinePolygon, type PointMm } from '@/core/bed/outline';
import { heightAt } from '@/core/bed/profile';
import type { PieceDesign } from '@/core/bed/schema';
import { spillWords, type PoolPlan } from '@/core/plan';
import type { WaterLook } from '@/core/tint/waterLook';
import { formatCut, formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import { contourIntervalMm, depthContours } from './contours';
import { paintBed, paintDifference } from './paintBed';
import styles from './PlanView.module.css';

interface PlanViewProps {
  design: PieceDesign;
  levelMm: number;
  grid: BedGrid;
  look: WaterLook;
  dams: readonly DamRun[];
  deepestMm: number;
  /** Named on the plan when there are several; where one would run over is marked. */
  pools: readonly PoolPlan[];
  /** Dots where the bed was measured. */
  readings?: readonly PointMm[] | undefined;
  /** The bed as drawn: with it the plan shows where the real one differs, instead of the water. */
  drawn?: BedGrid | undefined;
  /** True while something is dragged: fewer contours, so that no frame is dropped. */
  moving: boolean;
  /** A handle on its way (`done` false) or let go (`done` true). Without it the plan only shows. */
  onMove?: ((change: (design: PieceDesign) => PieceDesign, label: string, done: boolean) => void) | undefined;
}

/** The piece from above, north at the top: predicted water, depth contours, dams, and handles to move what is drawn. */
export function PlanView({ design, levelMm, grid, look, dams, deepestMm, pools, readings, drawn, moving, onMove }: PlanViewProps) {
  const units = useUnits();
  const canvas = useRef<HTMLCanvasElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const clip = useId();
  const [pointer, setPointer] = useState<{ xMm: number; yMm: number } | null>(null);
  const { widthMm, lengthMm } = design.outline;

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    element.width = grid.columns;
    element.height = grid.rows;
    element.getContext('2d')?.putImageData(drawn ? paintDifference(drawn, grid) : paintBed(grid, levelMm, design.landColour, look), 0, 0);
  }, [grid, levelMm, design.landColour, look, drawn]);

  const most = moving ? 3 : 8;
  const lines = useMemo(() => depthContours(grid, levelMm, deepestMm, most), [grid, levelMm, deepestMm, most]);
  const outline = useMemo(() => `M${Array.from(outlinePolygon(design.outline), (v, i) => `${v.toFixed(2)}${i % 2 ? 'L' : ' '}`).join('').replace(/L$/, '')}Z`, [design.outline]);
  const unit = Math.max(widthMm, lengthMm) / 400;

  const toPlan = (event: PointerEvent): { xMm: number; yMm: number } => {
    const box = svg.current!.getBoundingClientRect();
    return { xMm: ((event.clientX - box.left) / box.width) * widthMm, yMm: (1 - (event.clientY - box.top) / box.height) * lengthMm };
  };
  const inside = pointer && pointer.xMm >= 0 && pointer.yMm >= 0 && pointer.xMm <= widthMm && pointer.yMm <= lengthMm;
  const depth = inside ? levelMm - heightAt(grid, pointer.xMm, pointer.yMm) : 0;
  const measure = (value: number): string => formatMeasure(value, 'length', units);
  return (
    <figure className={styles.figure}>
      <div className={styles.margin}>
        <div className={styles.sheet} style={{ aspectRatio: `${widthMm} / ${lengthMm}`, ['--shape' as string]: widthMm / lengthMm }} onPointerMove={(event) => setPointer(toPlan(event))} onPointerLeave={() => setPointer(null)}>
          <canvas ref={canvas} className={styles.canvas} role="img" aria-label={`${design.name} from above, ${measure(deepestMm)} deep at most`} style={{ width: `${(grid.columns * grid.cellMm * 100) / widthMm}%`, height: `${(grid.rows * grid.cellMm * 100) / lengthMm}%` }} />
          <svg ref={svg} className={styles.overlay} viewBox={`0 0 ${widthMm} ${lengthMm}`}>
            <g transform={`translate(0 ${lengthMm}) scale(1 -1)`}>
              <clipPath id={clip}>
                <path d={outline} />
              </clipPath>
              <g clipPath={`url(#${clip})`}>
                {lines.map(({ depthMm, path }) => (
                  <path key={depthMm} d={path} className={depthMm === 0 ? styles.waterline : styles.contour} />
                ))}
              </g>
              <path d={outline} className={styles.outline} />
              {dams.map((dam) => (
                <path key={`${dam.edge}${dam.fromMm}`} d={damLine(design, dam, unit)} className={dam.method === 'none' ? styles.openEdge : styles.dam} strokeWidth={unit * 4} />
              ))}
            </g>
            {readings?.map(({ xMm, yMm }, i) => <circle key={i} cx={xMm} cy={lengthMm - yMm} r={unit * 4} className={styles.reading} strokeWidth={unit * 1.5} />)}
            {onMove && designHandles(design).map((handle) => <HandleMark key={`${handle.feature}${handle.grip}`} handle={handle} design={design} unit={unit} toPlan={toPlan} onMove={onMove} />)}
          </svg>
          {pools.map((pool) => (
            <PoolMark key={pool.name} pool={pool} named={pools.length > 1} design={design} levelMm={levelMm} measure={measure} />
          ))}
          {dams.filter(({ edge }) => edge !== 'rim').map((dam) => (
            <span key={`${dam.edge}${dam.fromMm}`} className={styles.damText} style={damTextPlace(design, dam)}>
              {dam.method === 'none' ? 'open' : `dam ${formatCut(dam.stripMm, units)}`}
            </span>
          ))}
        </div>
      </div>
      <figcaption className={styles.caption}>
        <span>{`From above, ${measure(widthMm)} × ${measure(lengthMm)} · contours every ${measure(contourIntervalMm(deepestMm, most))}`}</span>
        <span className={styles.pointer} aria-hidden>
          {drawn ? 'blue deeper than drawn, orange shallower' : inside ? `${measure(pointer.xMm)} across, ${measure(pointer.yMm)} up · ${depth > 0 ? `${measure(depth)} deep` : `land, ${measure(-depth)} above`}` : ''}
        </span>
      </figcaption>
    </figure>
  );
}

interface PoolMarkProps {
  pool: PoolPlan;
  named: boolean;
  design: PieceDesign;
  levelMm: number;
  measure: (mm: number) => string;
}

/** A pool's name at its deepest, and the place where it would run over first when that is near the level. */
function PoolMark({ pool, named, design: { outline }, levelMm, measure }: PoolMarkProps) {
  const place = ({ xMm, yMm }: { xMm: number; yMm: number }): React.CSSProperties => ({ left: `${(xMm / outline.widthMm) * 100}%`, top: `${(1 - yMm / outline.lengthMm) * 100}%` });
  const { spill } = pool;
  return (
    <>
      {named && (
        <span className={styles.pool} style={place(pool.deepest)}>
          {pool.name}
        </span>
      )}
      {spill && spill.over !== 'dam' && spill.levelMm < levelMm + 3 && (
        <span className={styles.spill} data-over={spill.levelMm < levelMm || undefined} style={place(spill)} title={`${pool.name}: ${spillWords(spill)} at ${measure(spill.levelMm)}`}>
          <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden>
            <path d="M7 1v9M3 7l4 5 4-5" fill="none" stroke="currentColor" strokeWidth="2" />
          </svg>
          {measure(spill.levelMm)}
        </span>
      )}
    </>
  );
}

interface HandleMarkProps {
  handle: Handle;
  design: PieceDesign;
  unit: number;
  toPlan: (event: PointerEvent) => { xMm: number; yMm: number };
  onMove: NonNullable<PlanViewProps['onMove']>;
}

function HandleMark({ handle, design, unit, toPlan, onMove }: HandleMarkProps) {
  const held = useRef(false);
  const name = `Move ${handle.label.toLowerCase()}`;
  const move = (place: { xMm: number; yMm: number }, done: boolean): void => {
    onMove((newest) => moveHandle(newest, handle, place), name, done);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!arrow) return;
    event.preventDefault();
    const step = event.shiftKey ? 5 : 1;
    move({ xMm: handle.xMm + arrow[0]! * step, yMm: handle.yMm + arrow[1]! * step }, true);
  };
  const y = design.outline.lengthMm - handle.yMm;
  return (
    <g
      className={styles.handle}
      role="slider"
      tabIndex={0}
      aria-label={handle.label}
      aria-valuetext={handle.place}
      aria-valuenow={Math.round(handle.grip === 'waterline' ? y : handle.xMm)}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
      }}
      onPointerMove={(event) => held.current && move(toPlan(event), false)}
      onPointerUp={(event) => {
        if (held.current) move(toPlan(event), true);
        held.current = false;
      }}
    >
      <title>{`${handle.label}: ${handle.place}. Drag, or use the arrow keys.`}</title>
      <circle cx={handle.xMm} cy={y} r={unit * 15} fill="transparent" />
      {handle.grip === 'centre' ? (
        <path d={`M${handle.xMm - unit * 7} ${y}h${unit * 14}M${handle.xMm} ${y - unit * 7}v${unit * 14}`} className={styles.cross} strokeWidth={unit * 2} />
      ) : (
        <circle cx={handle.xMm} cy={y} r={unit * 6.5} className={styles.knob} strokeWidth={unit * 2} />
      )}
    </g>
  );
}

/** A dam just outside its edge, in mm, y upwards. A rim's dam follows the whole outline. */
function damLine({ outline }: PieceDesign, { edge, fromMm, toMm, lengthMm }: DamRun, unit: number): string {
  const [w, l, off] = [outline.widthMm, outline.lengthMm, unit * 4];
  if (edge === 'south') return `M${fromMm} ${-off}H${toMm}`;
  if (edge === 'north') return `M${fromMm} ${l + off}H${toMm}`;
  if (edge === 'west') return `M${-off} ${fromMm}V${toMm}`;
  if (edge === 'east') return `M${w + off} ${fromMm}V${toMm}`;
  const rim = outlinePolygon(outline);
  const count = rim.length / 2;
  const perPoint = Math.max(lengthMm, 1e-6) / Math.max(1, Math.round((lengthMm / rimLength(rim)) * count));
  const first = Math.round(fromMm / perPoint);
  const steps = Math.round(lengthMm / perPoint);
  return Array.from({ length: steps + 1 }, (_, i) => `${i ? 'L' : 'M'}${rim[2 * ((first + i) % count)]!.toFixed(2)} ${rim[2 * ((first + i) % count) + 1]!.toFixed(2)}`).join('');
}

function rimLength(rim: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < rim.length; i += 2) sum += Math.hypot(rim[(i + 2) % rim.length]! - rim[i]!, rim[(i + 3) % rim.length]! - rim[i + 1]!);
  return sum;
}

function damTextPlace({ outline }: PieceDesign, { edge, fromMm, toMm }: DamRun): React.CSSProperties {
  const middle = (fromMm + toMm) / 2;
  if (edge === 'south' || edge === 'north') return { left: `${(middle / outline.widthMm) * 100}%`, [edge === 'south' ? 'top' : 'bottom']: 'calc(100% + 10px)', transform: 'translateX(-50%)' };
  return { top: `${(1 - middle / outline.lengthMm) * 100}%`, [edge === 'west' ? 'right' : 'left']: 'calc(100% + 10px)', transform: `translate(${edge === 'west' ? '50%' : '-50%'}, -50%) rotate(-90deg) translateY(${edge === 'west' ? '-8px' : '8px'})` };
}
