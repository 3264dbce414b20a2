'use client';

import Button from '@mui/material/Button';
import {
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
} from 'react';
import { channelCentreline } from '@/core/bed/centreline';
import type { DamRun } from '@/core/bed/dams';
import type { BedGrid } from '@/core/bed/grid';
import { designHandles } from '@/core/bed/handles';
import { outlinePolygon, outlineSize, type PointMm } from '@/core/bed/outline';
import { insertPoint, nearestDrawn, OUTLINE } from '@/core/bed/pointLists';
import { heightAt, runPath } from '@/core/bed/profile';
import type { PieceDesign } from '@/core/model/designSchema';
import type { PortSnap } from '@/core/bed/snaps';
import type { PoolPlan } from '@/core/plan';
import type { WaterLook } from '@/core/tint/waterLook';
import { formatCut, formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import { contourIntervalMm, depthContours, depthLines } from './contours';
import { HandleMark, type ChangeDesign } from './HandleMark';
import { paintBed, paintDifference } from './paintBed';
import { DamLabel, PoolMark } from './PlanLabels';
import { SectionLine, type Cut } from './SectionLine';
import { useZoom } from './useZoom';
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
  /** From this depth on a pale detail on the bed is not seen any more across the table; null where it is seen to the bottom. */
  lostMm?: number | null;
  /** True while something is dragged: fewer contours, so that no frame is dropped. */
  moving: boolean;
  /** Without it the plan only shows. */
  onMove?: ChangeDesign | undefined;
  /** Ports of the set, by which a dragged port is caught. */
  snaps?: readonly PortSnap[] | undefined;
  cut?: Cut | null | undefined;
  onCut?: ((cut: Cut | null) => void) | undefined;
}

const NO_SNAPS: readonly PortSnap[] = [];

/** The piece from above, north at the top: predicted water, depth contours, dams, and handles to move what is drawn. */
export function PlanView({
  design,
  levelMm,
  grid,
  look,
  dams,
  deepestMm,
  pools,
  readings,
  drawn,
  moving,
  onMove,
  snaps = NO_SNAPS,
  cut,
  onCut,
  lostMm = null,
}: PlanViewProps) {
  const units = useUnits();
  const canvas = useRef<HTMLCanvasElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const clip = useId();
  const [pointer, setPointer] = useState<PointMm | null>(null);
  const [inHand, setInHand] = useState(0);
  const { zoom, nearer, further, whole, pan } = useZoom(sheet);
  const panning = useRef<{ x: number; y: number } | null>(null);
  const { widthMm, lengthMm } = outlineSize(design.outline);

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    element.width = grid.columns;
    element.height = grid.rows;
    element
      .getContext('2d')
      ?.putImageData(
        drawn ? paintDifference(drawn, grid) : paintBed(grid, levelMm, design.landColour, look, design.grainMm),
        0,
        0,
      );
  }, [grid, levelMm, design.landColour, design.grainMm, look, drawn]);

  const most = moving ? 3 : 8;
  const lines = useMemo(() => depthContours(grid, levelMm, deepestMm, most), [grid, levelMm, deepestMm, most]);
  const lost = useMemo(
    () => (lostMm === null || moving || lostMm >= deepestMm ? [] : depthLines(grid, levelMm, [lostMm])),
    [grid, levelMm, deepestMm, lostMm, moving],
  );
  const outline = useMemo(() => pathOf(outlinePolygon(design.outline), true), [design.outline]);
  const unit = Math.max(widthMm, lengthMm) / 400 / zoom.scale;

  const toPlan = (event: { clientX: number; clientY: number }): PointMm => {
    const box = svg.current!.getBoundingClientRect();
    return {
      xMm: ((event.clientX - box.left) / box.width) * widthMm,
      yMm: (1 - (event.clientY - box.top) / box.height) * lengthMm,
    };
  };
  const onPointerMove = (event: PointerEvent): void => {
    setPointer(toPlan(event));
    if (!panning.current) return;
    const box = sheet.current!.getBoundingClientRect();
    pan((event.clientX - panning.current.x) / box.width, (event.clientY - panning.current.y) / box.height);
    panning.current = { x: event.clientX, y: event.clientY };
  };
  const onPointerDown = (event: PointerEvent): void => {
    if (zoom.scale > 1) panning.current = { x: event.clientX, y: event.clientY };
  };
  const putPointIn = (event: MouseEvent): void => {
    const place = toPlan(event);
    const feature = onMove ? nearestDrawn(design, place) : null;
    if (feature === null || !onMove) return;
    setInHand(feature);
    onMove((newest) => insertPoint(newest, feature, place)?.design ?? newest, 'Put in a point', true);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const act = { '+': nearer, '=': nearer, '-': further, '0': whole }[event.key];
    if (!act || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  const inside = pointer && pointer.xMm >= 0 && pointer.yMm >= 0 && pointer.xMm <= widthMm && pointer.yMm <= lengthMm;
  const depth = inside ? levelMm - heightAt(grid, pointer.xMm, pointer.yMm) : 0;
  const measure = (value: number): string => formatMeasure(value, 'length', units);
  const handles = onMove ? designHandles(design).filter(({ minor, feature }) => !minor || feature === inHand) : [];
  const held = design.features[inHand];
  return (
    <figure className={styles.figure} onKeyDown={onKeyDown}>
      <div className={styles.margin}>
        <div
          ref={sheet}
          className={styles.sheet}
          data-enlarged={zoom.scale > 1 || undefined}
          style={{ aspectRatio: `${widthMm} / ${lengthMm}`, ['--shape' as string]: widthMm / lengthMm }}
          onPointerMove={onPointerMove}
          onPointerDown={onPointerDown}
          onPointerUp={() => (panning.current = null)}
          onPointerLeave={() => {
            setPointer(null);
            panning.current = null;
          }}
          onDoubleClick={putPointIn}
        >
          <div
            className={styles.world}
            style={
              zoom.scale > 1
                ? {
                    transform: `translate(${zoom.x * 100}%, ${zoom.y * 100}%) scale(${zoom.scale})`,
                    ['--zoom' as string]: zoom.scale,
                  }
                : undefined
            }
          >
            <canvas
              ref={canvas}
              className={styles.canvas}
              role="img"
              aria-label={`${design.name} from above, ${measure(deepestMm)} deep at most`}
              style={{
                width: `${(grid.columns * grid.cellMm * 100) / widthMm}%`,
                height: `${(grid.rows * grid.cellMm * 100) / lengthMm}%`,
              }}
            />
            <svg ref={svg} className={styles.overlay} viewBox={`0 0 ${widthMm} ${lengthMm}`}>
              <g transform={`translate(0 ${lengthMm}) scale(1 -1)`}>
                <clipPath id={clip}>
                  <path d={outline} />
                </clipPath>
                <g clipPath={`url(#${clip})`}>
                  {lines.map(({ depthMm, path }) => (
                    <path key={depthMm} d={path} className={depthMm === 0 ? styles.waterline : styles.contour} />
                  ))}
                  {lost.map(({ path }) => (
                    <path key="lost" d={path} className={styles.lost} />
                  ))}
                  {onMove && held?.kind === 'channel' && (
                    <path
                      d={pathOf(channelCentreline(design.outline, held, 0).line, false)}
                      className={styles.centreline}
                    />
                  )}
                </g>
                {onMove && inHand === OUTLINE && <path d={gridPath(widthMm, lengthMm)} className={styles.grid} />}
                <path d={outline} className={styles.outline} />
                {dams.map((dam) => (
                  <path
                    key={`${dam.edge}${dam.fromMm}`}
                    d={pathOfPoints(runPath(design.outline, dam, unit * 4))}
                    className={dam.method === 'none' ? styles.openEdge : styles.dam}
                    strokeWidth={unit * 4}
                  />
                ))}
              </g>
              {readings?.map(({ xMm, yMm }, i) => (
                <circle
                  key={i}
                  cx={xMm}
                  cy={lengthMm - yMm}
                  r={unit * 4}
                  className={styles.reading}
                  strokeWidth={unit * 1.5}
                />
              ))}
              {cut && onCut && (
                <SectionLine
                  cut={cut}
                  widthMm={widthMm}
                  lengthMm={lengthMm}
                  unit={unit}
                  toPlan={toPlan}
                  onCut={onCut}
                />
              )}
              {onMove &&
                handles.map((handle) => (
                  <HandleMark
                    key={`${handle.feature}${handle.grip}${handle.point ?? ''}`}
                    handle={handle}
                    lengthMm={lengthMm}
                    unit={unit}
                    snaps={snaps}
                    toPlan={toPlan}
                    onMove={onMove}
                    onHold={setInHand}
                  />
                ))}
            </svg>
            {pools.map((pool) => (
              <PoolMark
                key={pool.name}
                pool={pool}
                named={pools.length > 1}
                design={design}
                ownLevel={pool.levelMm !== levelMm}
                measure={measure}
              />
            ))}
            {dams.map((dam) => (
              <DamLabel
                key={`${dam.edge}${dam.fromMm}`}
                outline={design.outline}
                dam={dam}
                cut={formatCut(dam.stripMm, units)}
              />
            ))}
          </div>
        </div>
      </div>
      <figcaption className={styles.caption}>
        <span>{`From above, ${measure(widthMm)} × ${measure(lengthMm)} · contours every ${measure(contourIntervalMm(deepestMm, most))}${lost.length > 0 ? ` · within the white line, below ${measure(lostMm ?? 0)}, a pale detail is lost across the table` : ''}`}</span>
        <span className={styles.pointer} aria-hidden>
          {drawn
            ? 'blue deeper than drawn, orange shallower'
            : inside
              ? `${measure(pointer.xMm)} across, ${measure(pointer.yMm)} up · ${depth > 0 ? `${measure(depth)} deep` : `land, ${measure(-depth)} above`}`
              : ''}
        </span>
      </figcaption>
      <div className={styles.tools} role="group" aria-label="Look closer">
        <Button size="small" onClick={further} disabled={zoom.scale === 1} aria-label="Smaller">
          −
        </Button>
        <Button
          size="small"
          onClick={whole}
          disabled={zoom.scale === 1}
          aria-label={`Whole piece, now ${Math.round(zoom.scale * 100)} %`}
        >
          {`${Math.round(zoom.scale * 100)} %`}
        </Button>
        <Button size="small" onClick={nearer} aria-label="Larger">
          +
        </Button>
        {onCut && (
          <Button
            size="small"
            aria-pressed={Boolean(cut)}
            onClick={() =>
              onCut(cut ? null : { from: { xMm: 0, yMm: lengthMm / 2 }, to: { xMm: widthMm, yMm: lengthMm / 2 } })
            }
          >
            Section line
          </Button>
        )}
      </div>
    </figure>
  );
}

const GRID_MM = 10;

/** Lines every 10 mm over the whole sheet, to draw an outline by. */
function gridPath(widthMm: number, lengthMm: number): string {
  const across = Array.from({ length: Math.floor(widthMm / GRID_MM) + 1 }, (_, i) => `M${i * GRID_MM} 0V${lengthMm}`);
  const up = Array.from({ length: Math.floor(lengthMm / GRID_MM) + 1 }, (_, i) => `M0 ${i * GRID_MM}H${widthMm}`);
  return [...across, ...up].join('');
}

/** A line of points as a path in mm. */
function pathOf(line: Float64Array, closed: boolean): string {
  const pairs = Array.from(
    { length: line.length / 2 },
    (_, i) => `${line[2 * i]!.toFixed(2)} ${line[2 * i + 1]!.toFixed(2)}`,
  );
  return `M${pairs.join('L')}${closed ? 'Z' : ''}`;
}

const pathOfPoints = (points: readonly PointMm[]): string =>
  `M${points.map(({ xMm, yMm }) => `${xMm.toFixed(2)} ${yMm.toFixed(2)}`).join('L')}`;
