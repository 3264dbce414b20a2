'use client';

import Delete from '@mui/icons-material/DeleteOutlined';
import IconButton from '@mui/material/IconButton';
import type { ReactNode } from 'react';
import { outlineEdges, outlineSize } from '@/core/bed/outline';
import { FEATURE_NAMES, type Feature, type PieceDesign } from '@/core/model/designSchema';
import { replaceAt } from '@/core/records/replaceAt';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Tick } from '@/ui/controls/Tick';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { DesignEditing } from './editing';
import { edgeChoices, FEATURE_FIELDS, type FeatureField } from './featureFields';
import { PointRows } from './PointRows';
import styles from './Measures.module.css';

/** Everything about one feature that can be typed, and its place in the order in which features are applied. */
export function FeatureFields({
  feature,
  index,
  editing,
  grip,
}: {
  feature: Feature;
  index: number;
  editing: DesignEditing;
  /** What it is moved by. */
  grip: ReactNode;
}) {
  const { design, change } = editing;
  const name = FEATURE_NAMES[feature.kind];
  const valueAt = (path: readonly string[]): unknown =>
    path.reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], feature);
  const shown = (field: FeatureField): boolean =>
    !('only' in field && field.only) || field.only.is.includes(valueAt([field.only.path]));
  return (
    <fieldset className={styles.feature} data-feature={feature.id}>
      <legend>
        {name}
        {grip}
        <IconButton
          size="small"
          aria-label={`Remove ${name.toLowerCase()} from ${design.tag}`}
          title={`Remove this ${name.toLowerCase()}`}
          onClick={() => {
            change(
              (newest) => ({ ...newest, features: newest.features.filter(({ id }) => id !== feature.id) }),
              `Remove ${name.toLowerCase()} from ${design.tag}`,
            );
            focusSoon(() => nearest(index));
          }}
        >
          <Delete fontSize="inherit" />
        </IconButton>
      </legend>
      <div className={styles.grid} data-fields>
        {FEATURE_FIELDS[feature.kind].filter(shown).map((field) => (
          <OneField
            key={field.path.join('.')}
            field={field}
            feature={feature}
            index={index}
            value={valueAt(field.path)}
            editing={editing}
          />
        ))}
      </div>
      {feature.kind === 'scan' && (
        <p
          className={styles.drawn}
        >{`${feature.columns} × ${feature.rows} heights, ${feature.stepMm} mm apart. Features below it are applied on top.`}</p>
      )}
      <PointRows feature={index} editing={editing} />
    </fieldset>
  );
}

/** After a feature is gone: what stands in its place, or the press that adds one. */
const nearest = (index: number): HTMLElement | null =>
  controlIn(document.querySelectorAll('[data-feature] [data-fields]')[index] ?? null) ??
  controlIn(document.querySelector('[data-add-feature]'));

interface OneFieldProps {
  field: FeatureField;
  feature: Feature;
  index: number;
  value: unknown;
  editing: DesignEditing;
}

function OneField({
  field,
  feature,
  index,
  value,
  editing: { design, errorAt, validate, put, change },
}: OneFieldProps) {
  const units = useUnits();
  const path = ['features', index, ...field.path];
  const label = `Change ${field.label.toLowerCase().split(',')[0]} of ${design.tag}`;
  const error = errorAt(path);
  if (field.kind === 'tick') {
    return <Tick label={field.label} checked={Boolean(value)} onChange={(checked) => put(path, checked, label)} />;
  }
  if (field.kind === 'edge')
    return (
      <ChoiceField
        label={field.label}
        value={String(value)}
        choices={withPresent(edgeChoices(outlineEdges(design.outline)), String(value))}
        error={error}
        onCommit={(next) => put(path, next, label)}
      />
    );
  if (field.kind === 'choice') {
    // A pool drawn by corners needs some to begin with.
    const commit = (next: string): void => change((newest) => withCorners(replaceAt(newest, path, next), index), label);
    return (
      <ChoiceField
        label={field.label}
        value={String(value ?? field.absent)}
        choices={field.choices}
        error={error}
        onCommit={commit}
      />
    );
  }
  const standIn = field.sameAs
    ? Number((feature as unknown as Record<string, unknown>)[field.sameAs])
    : (field.noneAt ?? field.absent ?? 0);
  const shown = typeof value === 'number' ? value : standIn;
  const kept = (next: number): number | null =>
    (field.sameAs && Math.abs(next - standIn) < 1e-9) || next === field.noneAt ? null : next;
  const hint =
    field.path[0] === 'depthMm' && 'depthMm' in feature
      ? `bed ${formatMeasure(((feature.kind === 'pool' && feature.atLevelMm) || design.drawnLevelMm) - feature.depthMm, 'length', units)} above the underside`
      : field.sameAs && typeof value !== 'number'
        ? 'as at the start'
        : undefined;
  return (
    <MeasureField
      label={field.label}
      quantity={field.quantity}
      value={shown}
      step={field.step ?? 1}
      hint={hint}
      error={error}
      validate={(next) => validate(path)(kept(next))}
      onCommit={(next) => put(path, kept(next), label)}
    />
  );
}

/** A value that the outline no longer offers still shows, so that it can be seen and changed. */
const withPresent = (choices: { value: string; label: string }[], value: string): { value: string; label: string }[] =>
  choices.some((choice) => choice.value === value) ? choices : [...choices, { value, label: `${value} (gone)` }];

function withCorners(design: PieceDesign, index: number): PieceDesign {
  const pool = design.features[index];
  if (pool?.kind !== 'pool' || pool.form !== 'polygon' || (pool.corners?.length ?? 0) >= 3) return design;
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const [w, l] = [Math.min(pool.widthMm, widthMm) / 2, Math.min(pool.lengthMm, lengthMm) / 2];
  const corners = [
    [-1, -0.6],
    [0.2, -1],
    [1, -0.4],
    [0.8, 0.7],
    [-0.3, 1],
    [-1, 0.5],
  ].map(([x, y]) => ({ xMm: Math.round(x! * w), yMm: Math.round(y! * l) }));
  return replaceAt(
    replaceAt(design, ['features', index, 'corners'], corners),
    ['features', index, 'cornerMm'],
    Math.round(Math.min(w, l) / 3),
  );
}
