'use client';

import Delete from '@mui/icons-material/DeleteOutlined';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useRef } from 'react';
import { channelCentreline } from '@/core/bed/centreline';
import { outlineSize, type PointMm } from '@/core/bed/outline';
import { insertPoint, movePoint, OUTLINE, pointList, removePoint, type PointList } from '@/core/bed/pointLists';
import type { PieceDesign } from '@/core/model/designSchema';
import { fromFrame, landFrame, waterlineOff } from '@/core/bed/waterline';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { MeasureField } from '@/ui/measure/MeasureField';
import type { DesignEditing } from './editing';
import styles from './Measures.module.css';

/** Longer lists are edited on the plan: a traced outline has hundreds of points. */
const MOST_ROWS = 24;

/** The points of a feature (or of a free outline) in rows: places to type, width and depth of a channel's, one out, one more in. */
export function PointRows({ feature, editing }: { feature: number; editing: DesignEditing }) {
  const { design, change } = editing;
  const rows = useRef<HTMLDivElement>(null);
  const list = pointList(design, feature);
  if (!list) return null;
  const noun = list.noun.toLowerCase();
  const add = (): void => {
    const put = insertPoint(design, feature, roomiest(design, feature));
    change(
      (newest) => insertPoint(newest, feature, roomiest(newest, feature))?.design ?? newest,
      `Put in a ${noun} on ${design.tag}`,
    );
    focusSoon(() => (put ? rowOf(rows.current, put.point, list.points.length + 1) : null));
  };
  return (
    <div className={styles.points} ref={rows}>
      {list.points.length <= MOST_ROWS ? (
        list.points.map((point, i) => (
          <PointRow key={i} feature={feature} number={i} point={point} list={list} editing={editing} />
        ))
      ) : (
        <p className={styles.small}>{list.points.length} points; drag them on the plan.</p>
      )}
      <Button size="small" onClick={add} disabled={list.points.length >= list.most}>
        Add a {noun}
      </Button>
    </div>
  );
}

/** The first field of a point's row, once there are so many rows. */
const rowOf = (rows: HTMLElement | null, number: number, count: number): HTMLElement | null => {
  const all = rows?.querySelectorAll('[role=group]');
  return all?.length === count ? controlIn(all[number]) : null;
};

interface PointRowProps {
  feature: number;
  number: number;
  point: PointMm;
  list: PointList;
  editing: DesignEditing;
}

function PointRow({
  feature,
  number,
  point,
  list,
  editing: { design, change, put, validate, errorAt },
}: PointRowProps) {
  const name = `${list.noun} ${number + 1}`;
  const move = (place: Partial<PointMm>): void =>
    change(
      (newest) =>
        movePoint(newest, feature, number, { ...(pointList(newest, feature)?.points[number] ?? point), ...place }),
      `Move ${name.toLowerCase()} of ${design.tag}`,
    );
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const inside =
    (most: number) =>
    (value: number): string | null =>
      feature !== OUTLINE && (value < 0 || value > most)
        ? 'Outside the piece'
        : value < 0 || value > 3000
          ? 'Between 0 and 3000 mm'
          : null;
  const shape = design.features[feature];
  const via = shape?.kind === 'channel' ? shape.via?.[number] : undefined;
  const measure = (label: string, key: 'widthMm' | 'depthMm', standIn: number): React.ReactNode => {
    const path = ['features', feature, 'via', number, key];
    return (
      <MeasureField
        label={label}
        quantity="length"
        value={via?.[key] ?? standIn}
        step={key === 'widthMm' ? 1 : 0.1}
        hint={via?.[key] === null ? 'as its neighbours' : undefined}
        error={errorAt(path)}
        validate={validate(path)}
        onCommit={(value) =>
          put(path, value, `Change the ${label.toLowerCase()} at ${name.toLowerCase()} of ${design.tag}`)
        }
      />
    );
  };
  return (
    <div className={styles.point} role="group" aria-label={name}>
      <span className={styles.pointNumber}>{number + 1}</span>
      <MeasureField
        label="Across"
        quantity="length"
        value={point.xMm}
        decimals={1}
        validate={inside(widthMm)}
        onCommit={(xMm) => move({ xMm })}
      />
      <MeasureField
        label="Up"
        quantity="length"
        value={point.yMm}
        decimals={1}
        validate={inside(lengthMm)}
        onCommit={(yMm) => move({ yMm })}
      />
      <IconButton
        size="small"
        aria-label={`Take out ${name.toLowerCase()}`}
        title={`Take out ${name.toLowerCase()}`}
        disabled={list.points.length <= list.least}
        onClick={(event) => {
          const rows = event.currentTarget.parentElement?.parentElement ?? null;
          change(
            (newest) => removePoint(newest, feature, number) ?? newest,
            `Take out ${name.toLowerCase()} of ${design.tag}`,
          );
          const left = list.points.length - 1;
          focusSoon(() => (left > 0 ? rowOf(rows, Math.min(number, left - 1), left) : controlIn(rows, 'last')));
        }}
      >
        <Delete fontSize="inherit" />
      </IconButton>
      {via && shape?.kind === 'channel' && (
        <>
          <span />
          {measure('Width', 'widthMm', shape.widthMm)}
          {measure('Depth', 'depthMm', shape.depthMm)}
        </>
      )}
    </div>
  );
}

/** Where a new point has most room: halfway along the longest stretch of what is drawn. */
function roomiest(design: PieceDesign, feature: number): PointMm {
  const list = pointList(design, feature)!;
  const shape = design.features[feature];
  const stops = stretchesOf(design, feature, list);
  let best = { length: -1, middle: { xMm: 0, yMm: 0 } };
  for (const stretch of stops) {
    const lengths = stretch
      .slice(1)
      .map((point, i) => Math.hypot(point.xMm - stretch[i]!.xMm, point.yMm - stretch[i]!.yMm));
    const length = lengths.reduce((sum, part) => sum + part, 0);
    let [left, i] = [length / 2, 0];
    while (i < lengths.length - 1 && left > lengths[i]!) left -= lengths[i++]!;
    const [a, b] = [stretch[i]!, stretch[i + 1]!];
    const t = lengths[i]! > 0 ? left / lengths[i]! : 0;
    if (length > best.length)
      best = { length, middle: { xMm: a.xMm + t * (b.xMm - a.xMm), yMm: a.yMm + t * (b.yMm - a.yMm) } };
  }
  return shape ? { xMm: Math.round(best.middle.xMm * 2) / 2, yMm: Math.round(best.middle.yMm * 2) / 2 } : best.middle;
}

function stretchesOf(design: PieceDesign, feature: number, { points, closed }: PointList): PointMm[][] {
  const shape = design.features[feature];
  if (shape?.kind === 'channel') {
    const { line, knots } = channelCentreline(design.outline, shape, 0);
    return knots
      .slice(1)
      .map((knot, i) =>
        Array.from({ length: knot - knots[i]! + 1 }, (_, k) => ({
          xMm: line[2 * (knots[i]! + k)]!,
          yMm: line[2 * (knots[i]! + k) + 1]!,
        })),
      );
  }
  if (shape?.kind === 'shore') {
    const frame = landFrame(design.outline, shape.landSide);
    const off = waterlineOff(shape);
    const along = [0, ...(shape.line ?? []).map(({ alongMm }) => alongMm), frame.lengthMm].sort((a, b) => a - b);
    return along
      .slice(1)
      .map((to, i) => [
        fromFrame(frame, along[i]!, off((along[i]! + to) / 2)),
        fromFrame(frame, to, off((along[i]! + to) / 2)),
      ]);
  }
  return points.slice(0, closed ? undefined : -1).map((point, i) => [point, points[(i + 1) % points.length]!]);
}
