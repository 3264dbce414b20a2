'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { PointMm } from '@/core/bed/outline';
import { formatMeasure } from '@/core/units/formatMeasure';
import { roundStep } from '@/core/units/steps';
import { useUnits } from '../measure/UnitsContext';
import styles from './PlanView.module.css';

/** A straight cut through a piece. */
export interface Cut {
  from: PointMm;
  to: PointMm;
}

interface SectionLineProps {
  cut: Cut;
  widthMm: number;
  lengthMm: number;
  unit: number;
  toPlan: (event: PointerEvent) => PointMm;
  onCut: (cut: Cut) => void;
}

/** The section line on the plan: dragged whole, or by either end; the arrow keys move an end. */
export function SectionLine({ cut, widthMm, lengthMm, unit, toPlan, onCut }: SectionLineProps) {
  const held = useRef<{ part: 'from' | 'to' | 'whole'; at: PointMm; cut: Cut } | null>(null);
  const units = useUnits();
  const fineMm = units.length === 'mm' ? 0.5 : 25.4 / 64;
  const within = (mm: number, most: number): number => Math.round(Math.min(most, Math.max(0, mm)) / fineMm) * fineMm;
  const length = (mm: number): string => formatMeasure(mm, 'length', units);
  const keep = ({ xMm, yMm }: PointMm): PointMm => ({ xMm: within(xMm, widthMm), yMm: within(yMm, lengthMm) });
  const hold = (event: PointerEvent<SVGElement>, part: 'from' | 'to' | 'whole'): void => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { part, at: toPlan(event), cut };
  };
  const drag = (event: PointerEvent): void => {
    if (!held.current) return;
    const { part, at, cut: was } = held.current;
    const here = toPlan(event);
    if (part !== 'whole') return onCut({ ...was, [part]: keep(here) });
    const by = (point: PointMm): PointMm =>
      keep({ xMm: point.xMm + here.xMm - at.xMm, yMm: point.yMm + here.yMm - at.yMm });
    onCut({ from: by(was.from), to: by(was.to) });
  };
  const drop = (): void => {
    held.current = null;
  };
  const onKeyDown =
    (part: 'from' | 'to') =>
    (event: KeyboardEvent): void => {
      const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
      if (!arrow) return;
      event.preventDefault();
      const step = roundStep(1, 'length', units) * (event.shiftKey ? 5 : 1);
      onCut({ ...cut, [part]: keep({ xMm: cut[part].xMm + arrow[0]! * step, yMm: cut[part].yMm + arrow[1]! * step }) });
    };
  const y = (point: PointMm): number => lengthMm - point.yMm;
  const line = `M${cut.from.xMm} ${y(cut.from)}L${cut.to.xMm} ${y(cut.to)}`;
  return (
    <g onPointerMove={drag} onPointerUp={drop}>
      <path
        d={line}
        className={styles.cutHold}
        strokeWidth={unit * 14}
        onPointerDown={(event) => hold(event, 'whole')}
      />
      <path d={line} className={styles.cutCase} strokeWidth={unit * 4} />
      <path d={line} className={styles.cut} strokeWidth={unit * 2} strokeDasharray={`${unit * 10} ${unit * 5}`} />
      {(['from', 'to'] as const).map((part) => (
        <g
          key={part}
          className={styles.handle}
          role="slider"
          tabIndex={0}
          aria-label={`Section line, ${part === 'from' ? 'start' : 'end'}`}
          aria-valuenow={Math.round(cut[part].xMm)}
          aria-valuetext={`${length(cut[part].xMm)} across, ${length(cut[part].yMm)} up`}
          onKeyDown={onKeyDown(part)}
          onPointerDown={(event) => hold(event, part)}
        >
          <circle cx={cut[part].xMm} cy={y(cut[part])} r={unit * 14} fill="transparent" />
          <rect
            x={cut[part].xMm - unit * 5}
            y={y(cut[part]) - unit * 5}
            width={unit * 10}
            height={unit * 10}
            className={styles.knob}
            strokeWidth={unit * 1.8}
          />
        </g>
      ))}
    </g>
  );
}
