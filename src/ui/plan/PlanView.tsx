'use client';

import Button from '@mui/material/Button';
import {
  useEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import type { DamRun } from '@/core/bed/dams';
import type { BedGrid } from '@/core/bed/grid';
import { designHandles } from '@/core/bed/handles';
import { outlineSize, type PointMm } from '@/core/bed/outline';
import { insertPoint, nearestDrawn } from '@/core/bed/pointLists';
import { heightAt } from '@/core/bed/profile';
import type { PieceDesign } from '@/core/model/designSchema';
import type { PortSnap } from '@/core/bed/snaps';
import type { PoolPlan } from '@/core/plan';
import type { WaterLook } from '@/core/tint/waterLook';
import { formatCut, formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '../measure/UnitsContext';
import { contourIntervalMm } from './contours';
import { HandleMark, type ChangeDesign } from './HandleMark';
import { PlanLines } from './PlanLines';
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
/** The most contours, at rest and while something is dragged. */
const CONTOURS = 8;
const MOVING_CONTOURS = 3;

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
  const svg = useRef<SVGSVGElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [pointer, setPointer] = useState<PointMm | null>(null);
  const [inHand, setInHand] = useState(0);
  const view = useZoom(sheet);
  const { zoom, nearer, further, whole, pan } = view;
  const panning = useRef<{ x: number; y: number } | null>(null);
  const { widthMm, lengthMm } = outlineSize(design.outline);

  const most = moving ? MOVING_CONTOURS : CONTOURS;
  const isLost = lostMm !== null && !moving && lostMm < deepestMm;
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
            <BedCanvas
              design={design}
              levelMm={levelMm}
              grid={grid}
              look={look}
              drawn={drawn}
              label={`${design.name} from above, ${measure(deepestMm)} deep at most`}
            />
            <svg ref={svg} className={styles.overlay} viewBox={`0 0 ${widthMm} ${lengthMm}`}>
              <PlanLines
                design={design}
                levelMm={levelMm}
                grid={grid}
                dams={dams}
                deepestMm={deepestMm}
                most={most}
                lostMm={isLost ? lostMm : null}
                inHand={onMove ? inHand : null}
                unit={unit}
              />
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
        <span>{`From above, ${measure(widthMm)} × ${measure(lengthMm)} · contours every ${measure(contourIntervalMm(deepestMm, most))}${isLost ? ` · within the white line, below ${measure(lostMm ?? 0)}, a pale detail is lost across the table` : ''}`}</span>
        <span className={styles.pointer} aria-hidden>
          {drawn
            ? 'blue deeper than drawn, orange shallower'
            : inside
              ? `${measure(pointer.xMm)} across, ${measure(pointer.yMm)} up · ${depth > 0 ? `${measure(depth)} deep` : `land, ${measure(-depth)} above`}`
              : ''}
        </span>
      </figcaption>
      <ZoomTools zoom={view}>
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
      </ZoomTools>
    </figure>
  );
}

interface BedCanvasProps extends Pick<PlanViewProps, 'design' | 'levelMm' | 'grid' | 'look' | 'drawn'> {
  label: string;
}

/** The water as it is predicted, or where the real bed differs from the drawn one. */
function BedCanvas({ design, levelMm, grid, look, drawn, label }: BedCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { widthMm, lengthMm } = outlineSize(design.outline);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    element.width = grid.columns;
    element.height = grid.rows;
    const picture = drawn
      ? paintDifference(drawn, grid)
      : paintBed(grid, levelMm, design.landColour, look, design.grainMm);
    element.getContext('2d')?.putImageData(picture, 0, 0);
  }, [grid, levelMm, design.landColour, design.grainMm, look, drawn]);
  return (
    <canvas
      ref={canvas}
      className={styles.canvas}
      role="img"
      aria-label={label}
      style={{
        width: `${(grid.columns * grid.cellMm * 100) / widthMm}%`,
        height: `${(grid.rows * grid.cellMm * 100) / lengthMm}%`,
      }}
    />
  );
}

/** Looking closer, by press. */
function ZoomTools({
  zoom: { zoom, nearer, further, whole },
  children,
}: {
  zoom: ReturnType<typeof useZoom>;
  children: ReactNode;
}) {
  return (
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
      {children}
    </div>
  );
}
