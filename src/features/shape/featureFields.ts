import type { FeatureKind } from '@/core/bed/schema';
import type { Quantity } from '@/core/units/quantities';

/** A field of a feature: where its value is, and how it is asked for. */
export type FeatureField =
  | { path: readonly string[]; label: string; kind: 'measure'; quantity: Quantity; step?: number; only?: { path: string; is: string } }
  | { path: readonly string[]; label: string; kind: 'choice'; choices: readonly { value: string; label: string }[] };

const EDGES = (['north', 'east', 'south', 'west'] as const).map((edge) => ({ value: edge, label: `${edge[0]!.toUpperCase()}${edge.slice(1)}` }));
const SECTIONS = [{ value: 'trapezoid', label: 'Flat floor, sloping banks' }, { value: 'bowl', label: 'Bowl' }, { value: 'v', label: 'V' }];
const length = (label: string, step: number, ...path: string[]): FeatureField => ({ path, label, kind: 'measure', quantity: 'length', step });
const choice = (label: string, choices: readonly { value: string; label: string }[], ...path: string[]): FeatureField => ({ path, label, kind: 'choice', choices });
const bank: FeatureField = { path: ['bankSlope'], label: 'Banks, run per rise', kind: 'measure', quantity: 'number', step: 0.1, only: { path: 'section', is: 'trapezoid' } };
const depth = length('Depth below the level', 0.1, 'depthMm');
const place = [length('Centre across', 1, 'xMm'), length('Centre up', 1, 'yMm')];

/** The fields of each kind of feature, in the order in which a maker thinks of them. */
export const FEATURE_FIELDS: Record<FeatureKind, readonly FeatureField[]> = {
  channel: [
    length('Width at the level', 1, 'widthMm'), depth,
    choice('From edge', EDGES, 'from', 'edge'), length('Port centre along it', 1, 'from', 'positionMm'),
    choice('To edge', EDGES, 'to', 'edge'), length('Port centre along it', 1, 'to', 'positionMm'),
    choice('Section', SECTIONS, 'section'), bank,
  ],
  shore: [choice('Land to the', EDGES, 'landSide'), length('Waterline from the land', 1, 'waterlineMm'), { path: ['slope'], label: 'Slope, 1 in', kind: 'measure', quantity: 'number', step: 0.5 }, length('Deepest below the level', 0.1, 'depthMm')],
  pool: [length('Width at the level', 1, 'widthMm'), length('Length at the level', 1, 'lengthMm'), depth, choice('Section', SECTIONS, 'section'), bank, ...place],
  ring: [length('Outer width', 1, 'widthMm'), length('Outer length', 1, 'lengthMm'), length('Breadth of the water', 0.5, 'ringMm'), depth, { path: ['bankSlope'], label: 'Banks, run per rise', kind: 'measure', quantity: 'number', step: 0.1 }, ...place],
  basin: [length('Rim', 0.5, 'rimMm'), depth],
  rock: [length('Across its foot', 0.5, 'diameterMm'), length('Height', 0.5, 'heightMm'), choice('Form', [{ value: 'dome', label: 'Dome' }, { value: 'cone', label: 'Cone' }, { value: 'block', label: 'Block, post' }], 'form'), ...place],
};
