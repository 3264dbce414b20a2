import type { EdgeName, FeatureKind } from '@/core/model/designSchema';
import type { Quantity } from '@/core/units/quantities';

/** When a field is asked for at all: another field must have one of these values. */
interface Only {
  path: string;
  is: readonly unknown[];
}

/**
 * A field of a feature: where its value is, and how it is asked for. `absent` stands for a value that is not there;
 * `sameAs` names the field that holds in its place, `noneAt` the number that is kept as null.
 */
export type FeatureField =
  | {
      path: readonly string[];
      label: string;
      kind: 'measure';
      quantity: Quantity;
      step?: number;
      only?: Only;
      absent?: number;
      sameAs?: string;
      noneAt?: number;
    }
  | { path: readonly string[]; label: string; kind: 'edge' }
  | {
      path: readonly string[];
      label: string;
      kind: 'choice';
      choices: readonly { value: string; label: string }[];
      absent?: string;
      only?: Only;
    }
  | { path: readonly string[]; label: string; kind: 'tick'; only?: Only };

const SECTIONS = [
  { value: 'trapezoid', label: 'Flat floor, sloping banks' },
  { value: 'bowl', label: 'Bowl, a parabola' },
  { value: 'v', label: 'V' },
];
const length = (label: string, step: number, ...path: string[]): FeatureField => ({
  path,
  label,
  kind: 'measure',
  quantity: 'length',
  step,
});
const number = (label: string, step: number, ...path: string[]): FeatureField => ({
  path,
  label,
  kind: 'measure',
  quantity: 'number',
  step,
});
const edge = (label: string, ...path: string[]): FeatureField => ({ path, label, kind: 'edge' });
const bank: FeatureField = {
  path: ['bankSlope'],
  label: 'Banks, run per rise',
  kind: 'measure',
  quantity: 'number',
  step: 0.1,
  only: { path: 'section', is: ['trapezoid'] },
};
const plainBank = number('Banks, run per rise', 0.1, 'bankSlope');
const section: FeatureField = { path: ['section'], label: 'Section', kind: 'choice', choices: SECTIONS };
const depth = length('Depth below the level', 0.1, 'depthMm');
const place = [length('Centre across', 1, 'xMm'), length('Centre up', 1, 'yMm')];
const size = [length('Width', 1, 'widthMm'), length('Length', 1, 'lengthMm')];
const turn = number('Turned by, degrees', 5, 'turnDegrees');
const irregular: FeatureField[] = [
  {
    path: ['seed'],
    label: 'Which one (any number)',
    kind: 'measure',
    quantity: 'number',
    step: 1,
    absent: 1,
    only: { path: 'form', is: ['irregular'] },
  },
  {
    path: ['wildness'],
    label: 'Wildness, 0 to 0.6',
    kind: 'measure',
    quantity: 'number',
    step: 0.05,
    absent: 0.3,
    only: { path: 'form', is: ['irregular'] },
  },
  {
    path: ['turnDegrees'],
    label: 'Turned by, degrees',
    kind: 'measure',
    quantity: 'number',
    step: 5,
    absent: 0,
    only: { path: 'form', is: ['irregular'] },
  },
  { path: ['mirrored'], label: 'Mirrored', kind: 'tick', only: { path: 'form', is: ['irregular'] } },
];

/** The fields of each kind of feature, in the order in which a maker thinks of them. Points have rows of their own. */
export const FEATURE_FIELDS: Record<FeatureKind, readonly FeatureField[]> = {
  channel: [
    length('Width at the level', 1, 'widthMm'),
    depth,
    edge('From edge', 'from', 'edge'),
    length('Port centre along it', 1, 'from', 'positionMm'),
    edge('To edge', 'to', 'edge'),
    length('Port centre along it', 1, 'to', 'positionMm'),
    {
      path: ['toWidthMm'],
      label: 'Width at its far end',
      kind: 'measure',
      quantity: 'length',
      step: 1,
      sameAs: 'widthMm',
    },
    {
      path: ['toDepthMm'],
      label: 'Depth at its far end',
      kind: 'measure',
      quantity: 'length',
      step: 0.1,
      sameAs: 'depthMm',
    },
    section,
    bank,
    { path: ['endsInside'], label: 'Ends inside the piece', kind: 'tick' },
  ],
  fork: [
    length('Stem’s width at the level', 1, 'widthMm'),
    length('Arms’ width at their ports', 1, 'armWidthMm'),
    depth,
    edge('Stem from edge', 'stem', 'edge'),
    length('Port centre along it', 1, 'stem', 'positionMm'),
    edge('One arm to edge', 'left', 'edge'),
    length('Port centre along it', 1, 'left', 'positionMm'),
    edge('Other arm to edge', 'right', 'edge'),
    length('Port centre along it', 1, 'right', 'positionMm'),
    length('Parts, across', 1, 'xMm'),
    length('Parts, up', 1, 'yMm'),
    section,
    bank,
  ],
  shore: [
    edge('Land to the', 'landSide'),
    length('Waterline from the land', 1, 'waterlineMm'),
    number('Slope, 1 in', 0.5, 'slope'),
    length('Deepest below the level', 0.1, 'depthMm'),
    {
      path: ['profile'],
      label: 'Profile',
      kind: 'choice',
      choices: [
        { value: 'straight', label: 'Straight slope' },
        { value: 'concave', label: 'Concave, steep at first' },
        { value: 'plunging', label: 'Plunging, gentle at first' },
      ],
      absent: 'straight',
    },
    {
      path: ['dropOffMm'],
      label: 'Drop-off from the waterline (0: none)',
      kind: 'measure',
      quantity: 'length',
      step: 1,
      noneAt: 0,
    },
  ],
  pool: [
    {
      path: ['form'],
      label: 'Form',
      kind: 'choice',
      choices: [
        { value: 'ellipse', label: 'Round or oval' },
        { value: 'polygon', label: 'By its corners' },
        { value: 'irregular', label: 'Irregular' },
      ],
      absent: 'ellipse',
    },
    {
      path: ['widthMm'],
      label: 'Width at the level',
      kind: 'measure',
      quantity: 'length',
      step: 1,
      only: { path: 'form', is: [undefined, 'ellipse', 'irregular'] },
    },
    {
      path: ['lengthMm'],
      label: 'Length at the level',
      kind: 'measure',
      quantity: 'length',
      step: 1,
      only: { path: 'form', is: [undefined, 'ellipse', 'irregular'] },
    },
    depth,
    section,
    bank,
    ...irregular,
    {
      path: ['atLevelMm'],
      label: 'Drawn for a level of (0: the design’s)',
      kind: 'measure',
      quantity: 'length',
      step: 0.5,
      noneAt: 0,
    },
    {
      path: ['cornerMm'],
      label: 'Corners rounded to',
      kind: 'measure',
      quantity: 'length',
      step: 1,
      absent: 0,
      only: { path: 'form', is: ['polygon'] },
    },
    ...place,
  ],
  ring: [
    length('Outer width', 1, 'widthMm'),
    length('Outer length', 1, 'lengthMm'),
    length('Breadth of the water', 0.5, 'ringMm'),
    depth,
    plainBank,
    ...place,
  ],
  basin: [length('Rim', 0.5, 'rimMm'), depth],
  terrace: [
    edge('Along the side', 'landSide'),
    length('From', 1, 'fromMm'),
    length('To', 1, 'toMm'),
    length('Below the level (above: negative)', 0.5, 'depthMm'),
  ],
  hill: [...size, length('Height over the land', 0.5, 'heightMm'), ...place],
  plateau: [...size, length('Height over the land', 0.5, 'heightMm'), plainBank, ...place],
  rock: [
    length('Across its foot', 0.5, 'diameterMm'),
    length('Height', 0.5, 'heightMm'),
    {
      path: ['form'],
      label: 'Form',
      kind: 'choice',
      choices: [
        { value: 'dome', label: 'Dome' },
        { value: 'cone', label: 'Cone' },
        { value: 'block', label: 'Block' },
        { value: 'irregular', label: 'Irregular' },
      ],
    },
    ...irregular,
    ...place,
  ],
  post: [length('Thickness', 0.5, 'diameterMm'), length('Height over the bed', 0.5, 'heightMm'), ...place],
  stone: [length('Across', 0.5, 'diameterMm'), length('Top over the level', 0.5, 'topMm'), ...place],
  log: [
    length('Length', 1, 'lengthMm'),
    length('Thickness', 0.5, 'diameterMm'),
    length('Sunk into the bed', 0.5, 'sunkMm'),
    turn,
    ...place,
  ],
  wreck: [...size, length('Height over the bed', 0.5, 'heightMm'), turn, ...place],
  debris: [{ path: ['volumeMl'], label: 'Room it takes up', kind: 'measure', quantity: 'volume', step: 0.5 }],
  scan: [{ path: ['baseMm'], label: 'Floor laid under it', kind: 'measure', quantity: 'length', step: 0.5, absent: 0 }],
};

/** Fields that are edited as points on the plan and in rows, or not at all. */
export const POINT_FIELDS: ReadonlySet<string> = new Set([
  'via',
  'line',
  'corners',
  'columns',
  'rows',
  'stepMm',
  'heights',
]);

/** A choice of edges as words. */
export const edgeChoices = (edges: readonly EdgeName[]): { value: EdgeName; label: string }[] =>
  (edges.length > 0 ? edges : (['north', 'east', 'south', 'west'] as const)).map((value) => ({
    value,
    label: `${value[0]!.toUpperCase()}${value.slice(1)}`,
  }));
