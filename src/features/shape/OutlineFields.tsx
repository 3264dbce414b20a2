'use client';

import { useState } from 'react';
import { outlinePolygon, outlineSize } from '@/core/bed/outline';
import { OUTLINE } from '@/core/bed/pointLists';
import { resized } from '@/core/bed/resize';
import type { Outline } from '@/core/bed/schema';
import { replaceAt, type Path } from '@/core/records/replaceAt';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import type { DesignEditing } from './editing';
import { PointRows } from './PointRows';
import styles from './Measures.module.css';

const CHOICES = [
  { value: 'rectangle', label: 'Rectangle' },
  { value: 'oval', label: 'Round or oval' },
  { value: 'hexagon', label: 'Hexagon' },
  { value: 'regular', label: 'Regular polygon' },
  { value: 'free', label: 'Free, by points' },
] as const;
/** The measures that make a piece larger or smaller. */
const SIZES = new Set(['widthMm', 'lengthMm', 'acrossMm']);
type Choice = (typeof CHOICES)[number]['value'];

/** The outline of a piece: its kind, its size, its corners. */
export function OutlineFields({ editing }: { editing: DesignEditing }) {
  const { design, errorAt, validate, put, change } = editing;
  const [along, setAlong] = useState(true);
  /** A new size takes ports, points and solids along, in one edit, unless they are to keep their place. */
  const resize = (path: Path, next: number, label: string): void =>
    change((newest) => {
      const changed = replaceAt(newest, path, next);
      return along ? resized(newest, changed.outline) : changed;
    }, label);
  const { outline } = design;
  const measure = (
    label: string,
    key: string,
    value: number,
    quantity: 'length' | 'number' = 'length',
  ): React.ReactNode => {
    const path = ['outline', key];
    return (
      <MeasureField
        key={key}
        label={label}
        quantity={quantity}
        value={value}
        validate={validate(path)}
        error={errorAt(path)}
        onCommit={(next) =>
          (SIZES.has(key) ? resize : put)(path, next, `Change ${label.toLowerCase()} of ${design.tag}`)
        }
      />
    );
  };
  const choice: Choice = outline.kind === 'regular' && outline.sides === 6 ? 'hexagon' : outline.kind;
  return (
    <>
      <ChoiceField
        label="Outline"
        value={choice}
        choices={CHOICES}
        onCommit={(next) => put(['outline'], outlineAs(next, outline), `Change the outline of ${design.tag}`)}
      />
      {(outline.kind === 'rectangle' || outline.kind === 'oval') && [
        measure('Width', 'widthMm', outline.widthMm),
        measure('Length', 'lengthMm', outline.lengthMm),
      ]}
      {outline.kind === 'rectangle' && measure('Corners rounded to', 'cornerMm', outline.cornerMm ?? 0)}
      {outline.kind === 'regular' && [
        measure(outline.sides % 2 === 0 ? 'Across flats' : 'Inscribed circle, across', 'acrossMm', outline.acrossMm),
        choice === 'regular' && measure('Sides', 'sides', outline.sides, 'number'),
      ]}
      {outline.kind !== 'free' && design.features.length > 0 && (
        <div className={styles.wide}>
          <Tick label="A new size takes ports, points and solids along" checked={along} onChange={setAlong} />
        </div>
      )}
      {outline.kind === 'free' && (
        <div className={styles.wide}>
          <p className={styles.small}>Double-click the outline on the plan for a corner more; Delete takes one out.</p>
          {errorAt(['outline', 'points']) && <p role="alert">{errorAt(['outline', 'points'])}</p>}
          <PointRows feature={OUTLINE} editing={editing} />
        </div>
      )}
    </>
  );
}

/** Points that stand for a curve when an outline becomes a free one. */
const MOST_CORNERS = 24;

/** An outline of another kind, of about the same size. */
export function outlineAs(kind: Choice, outline: Outline): Outline {
  const { widthMm, lengthMm } = outlineSize(outline);
  const size = { widthMm: tenth(widthMm), lengthMm: tenth(lengthMm) };
  if (kind === 'rectangle' || kind === 'oval') return { kind, ...size };
  if (kind === 'hexagon') return { kind: 'regular', sides: 6, acrossMm: size.lengthMm };
  if (kind === 'regular') return { kind, sides: 8, acrossMm: size.lengthMm };
  const polygon = outlinePolygon(outline);
  const count = polygon.length / 2;
  const stride = Math.max(1, Math.ceil(count / MOST_CORNERS));
  const points = Array.from({ length: Math.ceil(count / stride) }, (_, i) => ({
    xMm: tenth(Math.max(0, polygon[2 * i * stride]!)),
    yMm: tenth(Math.max(0, polygon[2 * i * stride + 1]!)),
  }));
  return { kind: 'free', points };
}

const tenth = (value: number): number => Math.round(value * 10) / 10;
