'use client';

import { useState } from 'react';
import { drawnPoints, outlinePolygon, outlineSize } from '@/core/bed/outline';
import { OUTLINE } from '@/core/bed/pointLists';
import { resized } from '@/core/bed/resize';
import type { Outline } from '@/core/model/designSchema';
import { replaceAt, type Path } from '@/core/records/replaceAt';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import type { DesignEditing } from './editing';
import { PointRows } from './PointRows';
import styles from './Measures.module.css';

const LABELS: Record<Choice, string> = {
  rectangle: 'Rectangle',
  oval: 'Round or oval',
  hexagon: 'Hexagon',
  regular: 'Regular polygon',
  free: 'Free, by points',
};
const CHOICES = (Object.keys(LABELS) as Choice[]).map((value) => ({ value, label: LABELS[value] }));
/** The measures that make a piece larger or smaller. */
const SIZES = new Set(['widthMm', 'lengthMm', 'acrossMm']);
/** Kinds of outline, and a hexagon, which most think of as one. */
type Choice = Outline['kind'] | 'hexagon';

interface Measure {
  label: string;
  key: string;
  value: number;
  quantity: 'length' | 'number';
}
type Measures<O> = (outline: O) => Measure[];
const length = (label: string, key: string, value: number): Measure => ({ label, key, value, quantity: 'length' });
const box = ({ widthMm, lengthMm }: Sized): Measure[] => [
  length('Width', 'widthMm', widthMm),
  length('Length', 'lengthMm', lengthMm),
];

/** The measures of each kind of outline; one that is left out does not compile. */
const MEASURES: { [K in Outline['kind']]: Measures<Extract<Outline, { kind: K }>> } = {
  rectangle: (outline) => [...box(outline), length('Corners rounded to', 'cornerMm', outline.cornerMm ?? 0)],
  oval: box,
  regular: ({ sides, acrossMm }) => [
    length(sides % 2 === 0 ? 'Across flats' : 'Inscribed circle, across', 'acrossMm', acrossMm),
    ...(sides === 6 ? [] : [{ label: 'Sides', key: 'sides', value: sides, quantity: 'number' as const }]),
  ],
  free: () => [],
};

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
  const measure = (label: string, key: string, value: number, quantity: 'length' | 'number'): React.ReactNode => {
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
      {(MEASURES[outline.kind] as Measures<Outline>)(outline).map(({ label, key, value, quantity }) =>
        measure(label, key, value, quantity),
      )}
      {drawnPoints(outline) === null && design.features.length > 0 && (
        <div className={styles.wide}>
          <Tick label="A new size takes ports, points and solids along" checked={along} onChange={setAlong} />
        </div>
      )}
      {drawnPoints(outline) !== null && (
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

type Sized = { widthMm: number; lengthMm: number };

/** How an outline becomes one of another kind; one that is left out does not compile. */
const MADE_AS: Record<Choice, (size: Sized, outline: Outline) => Outline> = {
  rectangle: (size) => ({ kind: 'rectangle', ...size }),
  oval: (size) => ({ kind: 'oval', ...size }),
  hexagon: ({ lengthMm }) => ({ kind: 'regular', sides: 6, acrossMm: lengthMm }),
  regular: ({ lengthMm }) => ({ kind: 'regular', sides: 8, acrossMm: lengthMm }),
  free(_size, outline) {
    const polygon = outlinePolygon(outline);
    const count = polygon.length / 2;
    const stride = Math.max(1, Math.ceil(count / MOST_CORNERS));
    const points = Array.from({ length: Math.ceil(count / stride) }, (_, i) => ({
      xMm: tenth(Math.max(0, polygon[2 * i * stride]!)),
      yMm: tenth(Math.max(0, polygon[2 * i * stride + 1]!)),
    }));
    return { kind: 'free', points };
  },
};

/** An outline of another kind, of about the same size. */
export function outlineAs(kind: Choice, outline: Outline): Outline {
  const { widthMm, lengthMm } = outlineSize(outline);
  return MADE_AS[kind]({ widthMm: tenth(widthMm), lengthMm: tenth(lengthMm) }, outline);
}

const tenth = (value: number): number => Math.round(value * 10) / 10;
