'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { moveHandle, type Handle } from '@/core/bed/handles';
import type { PointMm } from '@/core/bed/outline';
import { insertPoint, LEVEL_MARKS, pointList, removePoint } from '@/core/bed/pointLists';
import type { PieceDesign } from '@/core/model/designSchema';
import type { PortSnap } from '@/core/bed/snaps';
import { roundStep } from '@/core/units/steps';
import { useUnits } from '../measure/UnitsContext';
import styles from './PlanView.module.css';

/** Changes a design: on its way (`done` false) or let go (`done` true). */
export type ChangeDesign = (change: (design: PieceDesign) => PieceDesign, label: string, done: boolean) => void;

interface HandleMarkProps {
  handle: Handle;
  /** Height of the plan, to turn y over. */
  lengthMm: number;
  unit: number;
  snaps: readonly PortSnap[];
  toPlan: (event: PointerEvent) => PointMm;
  onMove: ChangeDesign;
  onHold: (feature: number) => void;
}

/** What is dragged on the plan: ports and points are knobs, middles crosses, sizes small diamonds. */
export function HandleMark({ handle, lengthMm, unit, snaps, toPlan, onMove, onHold }: HandleMarkProps) {
  const units = useUnits();
  const held = useRef(false);
  const name = `Move ${handle.label.toLowerCase()}`;
  const move = (place: PointMm, done: boolean): void =>
    onMove((newest) => moveHandle(newest, handle, place, { snaps }), name, done);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (handle.grip === 'point' && (event.key === 'Delete' || event.key === 'Backspace')) {
      event.preventDefault();
      onMove(
        (newest) => removePoint(newest, handle.feature, handle.point ?? 0) ?? newest,
        `Take out ${handle.label.toLowerCase()}`,
        true,
      );
    }
    if (handle.grip === 'point' && event.key === 'Insert') {
      event.preventDefault();
      onMove(
        (newest) => withPointAfter(newest, handle),
        `Put in a ${handle.label.toLowerCase().replace(/ \d+$/, '')}`,
        true,
      );
    }
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!arrow) return;
    event.preventDefault();
    const step = roundStep(event.altKey ? 0.5 : 1, 'length', units) * (event.shiftKey ? 5 : 1);
    // A nudge goes where it is sent: what catches a dragged port would hold it fast.
    onMove(
      (newest) =>
        moveHandle(
          newest,
          handle,
          { xMm: handle.xMm + arrow[0]! * step, yMm: handle.yMm + arrow[1]! * step },
          { free: true },
        ),
      name,
      true,
    );
  };
  const [x, y] = [handle.xMm, lengthMm - handle.yMm];
  const keys =
    handle.grip === 'point'
      ? 'Drag, or use the arrow keys; Insert adds a point, Delete takes it out.'
      : 'Drag, or use the arrow keys.';
  return (
    <g
      className={styles.handle}
      role="slider"
      tabIndex={0}
      aria-label={handle.label}
      aria-valuetext={handle.place}
      aria-valuenow={Math.round(handle.grip === 'waterline' ? y : handle.xMm)}
      onFocus={() => onHold(handle.feature)}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
        onHold(handle.feature);
      }}
      onPointerMove={(event) => held.current && move(toPlan(event), false)}
      onPointerUp={(event) => {
        if (held.current) move(toPlan(event), true);
        held.current = false;
      }}
    >
      <title>{`${handle.label}: ${handle.place}. ${keys}`}</title>
      <circle cx={x} cy={y} r={unit * (handle.minor ? 9 : 14)} fill="transparent" />
      <Shape grip={handle.grip} mark={handle.feature === LEVEL_MARKS} x={x} y={y} unit={unit} />
    </g>
  );
}

const SIZES: ReadonlySet<Handle['grip']> = new Set(['width', 'length', 'turn', 'bank', 'rim', 'near', 'far']);

function Shape({
  grip,
  mark,
  x,
  y,
  unit,
}: {
  grip: Handle['grip'];
  mark: boolean;
  x: number;
  y: number;
  unit: number;
}) {
  if (mark)
    return (
      <path d={`M${x} ${y}l${-unit * 6} ${-unit * 9}h${unit * 12}z`} className={styles.knob} strokeWidth={unit * 1.6} />
    );
  if (grip === 'centre')
    return (
      <path
        d={`M${x - unit * 7} ${y}h${unit * 14}M${x} ${y - unit * 7}v${unit * 14}`}
        className={styles.cross}
        strokeWidth={unit * 2}
      />
    );
  if (SIZES.has(grip))
    return (
      <path
        d={`M${x - unit * 4.5} ${y}l${unit * 4.5} ${-unit * 4.5}l${unit * 4.5} ${unit * 4.5}l${-unit * 4.5} ${unit * 4.5}z`}
        className={styles.knob}
        strokeWidth={unit * 1.5}
      />
    );
  return (
    <circle
      cx={x}
      cy={y}
      r={unit * (grip === 'point' ? 4.5 : 6.5)}
      className={styles.knob}
      strokeWidth={unit * (grip === 'point' ? 1.6 : 2)}
    />
  );
}

/** A point put in halfway from this one to the next (or, after the last, from the one before). */
function withPointAfter(design: PieceDesign, { feature, point = 0 }: Handle): PieceDesign {
  const list = pointList(design, feature);
  const here = list?.points[point];
  const next = list?.points[point + 1] ?? (list?.closed ? list.points[0] : list?.points[point - 1]);
  if (!here) return design;
  const place = next
    ? { xMm: (here.xMm + next.xMm) / 2, yMm: (here.yMm + next.yMm) / 2 }
    : { xMm: here.xMm + 10, yMm: here.yMm + 10 };
  return insertPoint(design, feature, place)?.design ?? design;
}
