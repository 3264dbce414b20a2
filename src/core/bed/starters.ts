import { outlineSides, outlineSize, type Side } from './outline';
import { METRIC, type UnitPreferences } from '../units/formatMeasure';
import { roundLength } from '../units/steps';
import { packHeights } from './scanHeights';
import type { FeatureKind, FeatureOf, Outline, PieceDesign, Port } from '../model/designSchema';

/** A design to start from. */
export interface Starter {
  title: string;
  design: PieceDesign;
}

/** Room above the level for banks, and how deep a first bed goes. */
const BANK_MM = 3;
const firstDepth = (levelMm: number): number => Math.max(0.5, Math.min(6, Math.round(levelMm * 0.4 * 2) / 2));

/** A tile that a table may want and none of the set is: water at three sides, or a pond that water runs into. */
export function wantedTile(
  wanted: 'fork' | 'pond',
  outline: Extract<Outline, { kind: 'rectangle' }>,
  levelMm: number,
  takenTags: readonly string[],
  units: Pick<UnitPreferences, 'length'> = METRIC,
): PieceDesign {
  const [first] = starters(levelMm, takenTags, units);
  const bare = { ...first!.design, outline, copies: 1, features: [], name: wanted === 'fork' ? 'Fork' : 'Pond' };
  const channel = newFeature('channel', bare, units);
  return {
    ...bare,
    features: wanted === 'fork' ? [newFeature('fork', bare, units)] : [channel, newFeature('pool', bare, units)],
  };
}

/** A piece of the maker's own to start from: as it is drawn, under the first free tag, with nothing that holds for its set only. */
export function ownStarter({ set, design }: OwnStart, takenTags: readonly string[]): Starter {
  const { isStart: _, edgeStandards: __, joints: ___, copyNumbers: ____, ...own } = design;
  const prefix = /^(.*?)-?\d*$/.exec(own.tag)?.[1] || 'P';
  return {
    title: `${own.name}, of ${set}`,
    design: { ...own, tag: nextTag(prefix, takenTags), measured: null, copyNumbers: null },
  };
}

/** A piece that is offered as a start, and the name of its set. */
export interface OwnStart {
  set: string;
  design: PieceDesign;
}

/** Lengths that follow from others, and so are not rounded by themselves. */
const FOLLOWS: ReadonlySet<string> = new Set(['drawnLevelMm', 'landMm', 'stepMm']);

/** The lengths of a template, round in the maker's unit. */
function rounded<T>(template: T, units: Pick<UnitPreferences, 'length'>): T {
  const walk = (value: unknown, key: string): unknown => {
    if (typeof value === 'number') return key.endsWith('Mm') && !FOLLOWS.has(key) ? roundLength(value, units) : value;
    if (Array.isArray(value)) return value.map((part) => walk(part, key));
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([name, part]) => [name, walk(part, name)]));
  };
  return walk(template, '') as T;
}

/** Designs to start from, drawn for a level, round in the maker's unit. Tags are the first free ones. */
export const starters = (
  levelMm: number,
  takenTags: readonly string[],
  units: Pick<UnitPreferences, 'length'> = METRIC,
): Starter[] => startersInMm(levelMm, takenTags, roundLength(BANK_MM, units)).map((one) => rounded(one, units));

function startersInMm(levelMm: number, takenTags: readonly string[], bankMm: number): Starter[] {
  const depthMm = firstDepth(levelMm);
  const common = {
    landMm: levelMm + bankMm,
    drawnLevelMm: levelMm,
    bedColour: '#b9a883',
    landColour: '#8d9068',
    dams: {},
    measured: null,
    copyNumbers: null,
  };
  const tile = {
    ...common,
    kind: 'tile',
    copies: 4,
    outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 },
  } as const;
  const base = { ...common, kind: 'base', copies: 6 } as const;
  const channel = {
    kind: 'channel',
    id: 'creek',
    widthMm: 56,
    depthMm,
    section: 'trapezoid',
    bankSlope: 1.2,
    from: { edge: 'south', positionMm: 70 },
  } as const;
  const tag = (prefix: string): string => nextTag(prefix, takenTags);
  return [
    {
      title: 'Tile, straight channel',
      design: {
        ...tile,
        tag: tag('T'),
        name: 'Creek straight',
        features: [{ ...channel, to: { edge: 'north', positionMm: 70 } }],
      },
    },
    {
      title: 'Tile, curved channel',
      design: {
        ...tile,
        tag: tag('T'),
        name: 'Creek bend',
        features: [{ ...channel, to: { edge: 'west', positionMm: 70 } }],
      },
    },
    {
      title: 'Board with a shore',
      design: {
        ...common,
        kind: 'board',
        copies: 1,
        tag: tag('S'),
        name: 'Shore board',
        dams: { south: 'faced board' },
        outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 },
        features: [{ kind: 'shore', id: 'shore', landSide: 'north', waterlineMm: 120, slope: 10, depthMm }],
      },
    },
    {
      title: 'Round base with a pool',
      design: {
        ...base,
        tag: tag('B'),
        name: 'Round base, pool',
        outline: { kind: 'oval', widthMm: 40, lengthMm: 40 },
        features: [
          {
            kind: 'pool',
            id: 'pool',
            xMm: 20,
            yMm: 20,
            widthMm: 26,
            lengthMm: 26,
            depthMm: Math.min(3, depthMm),
            section: 'bowl',
            bankSlope: 0,
          },
        ],
      },
    },
    {
      title: 'Oval base, water round a rock',
      design: {
        ...base,
        tag: tag('B'),
        name: 'Oval base, rock in water',
        outline: { kind: 'oval', widthMm: 60, lengthMm: 35 },
        features: [
          { kind: 'basin', id: 'basin', rimMm: 2, depthMm: Math.min(3, depthMm) },
          {
            kind: 'rock',
            id: 'rock',
            xMm: 32,
            yMm: 18,
            diameterMm: 16,
            heightMm: Math.min(3, depthMm) + 5,
            form: 'dome',
          },
        ],
      },
    },
    {
      title: 'Whole basin inside a rim',
      design: {
        ...tile,
        copies: 1,
        tag: tag('T'),
        name: 'Pond',
        features: [{ kind: 'basin', id: 'basin', rimMm: 6, depthMm }],
      },
    },
  ];
}

const PLACES: ReadonlySet<string> = new Set(['xMm', 'yMm', 'from', 'to', 'stem', 'left', 'right']);

/** `T-1`, or the next number that is free. */
export function nextTag(prefix: string, taken: readonly string[]): string {
  for (let number = 1; ; number++) if (!taken.includes(`${prefix}-${number}`)) return `${prefix}-${number}`;
}

/** A first version of a feature for a design, at its middle; its sizes round in the maker's unit. */
export function newFeature<K extends FeatureKind>(
  kind: K,
  design: PieceDesign,
  units: Pick<UnitPreferences, 'length'> = METRIC,
): FeatureOf<K> {
  let number = design.features.length + 1;
  while (design.features.some(({ id }) => id === `${kind}-${number}`)) number++;
  const measures = FIRST_MEASURES[kind](measuresOf(design)) as object;
  const sizes = rounded(measures, units);
  // Where it stands is the middle of what the maker has drawn.
  const place = Object.fromEntries(Object.entries(measures).filter(([name]) => PLACES.has(name)));
  return { kind, id: `${kind}-${number}`, ...sizes, ...place } as FeatureOf<K>;
}

interface FirstSizes {
  outline: Outline;
  landMm: number;
  widthMm: number;
  lengthMm: number;
  least: number;
  depthMm: number;
  shallowMm: number;
  place: { xMm: number; yMm: number };
  /** Ports at the middle of the first side, of the one that faces it, and of a third. */
  ports: Port[];
}

function measuresOf({ outline, drawnLevelMm, landMm }: PieceDesign): FirstSizes {
  const { widthMm, lengthMm } = outlineSize(outline);
  const depthMm = firstDepth(drawnLevelMm);
  const sides = outlineSides(outline);
  const first = sides.find(({ edge }) => edge === 'south') ?? sides[0];
  // The side that faces the first most squarely comes next.
  const others = sides.filter((side) => side !== first).sort((a, b) => facing(a, first!) - facing(b, first!));
  const ports = (first ? [first, ...others] : []).map((side): Port => ({
    edge: side.edge,
    positionMm: side.lengthMm / 2,
  }));
  while (ports.length < 3) ports.push(ports[1] ?? { edge: 'south', positionMm: 0 });
  return {
    outline,
    landMm,
    widthMm,
    lengthMm,
    least: Math.min(widthMm, lengthMm),
    depthMm,
    shallowMm: Math.min(depthMm, 3),
    place: { xMm: widthMm / 2, yMm: lengthMm / 2 },
    ports,
  };
}

const facing = (a: Side, b: Side): number => a.inward[0] * b.inward[0] + a.inward[1] * b.inward[1];
const share = (value: number, of: number): number => Math.max(1, Math.round(value * of));

/** What a new feature measures, before the maker says otherwise. */
const FIRST_MEASURES: { [K in FeatureKind]: (sizes: FirstSizes) => Omit<FeatureOf<K>, 'kind' | 'id'> } = {
  channel: ({ ports, least, depthMm }) => ({
    from: ports[0]!,
    to: ports[1]!,
    widthMm: share(least, 0.4),
    depthMm,
    section: 'trapezoid',
    bankSlope: 1,
  }),
  fork: ({ ports, place, least, depthMm }) => ({
    stem: ports[0]!,
    left: ports[1]!,
    right: ports[2]!,
    ...place,
    widthMm: share(least, 0.35),
    armWidthMm: share(least, 0.25),
    depthMm,
    section: 'trapezoid',
    bankSlope: 1,
  }),
  shore: ({ lengthMm, depthMm }) => ({ landSide: 'north', waterlineMm: Math.round(lengthMm * 0.4), slope: 8, depthMm }),
  pool: ({ place, least, depthMm }) => ({
    ...place,
    widthMm: share(least, 0.4),
    lengthMm: share(least, 0.4),
    depthMm,
    section: 'bowl',
    bankSlope: 0,
  }),
  ring: ({ place, least, shallowMm }) => ({
    ...place,
    widthMm: share(least, 0.8),
    lengthMm: share(least, 0.8),
    ringMm: share(least, 0.2),
    depthMm: shallowMm,
    bankSlope: 0.5,
  }),
  basin: ({ least, shallowMm }) => ({ rimMm: share(least, 0.05), depthMm: shallowMm }),
  terrace: ({ lengthMm, shallowMm }) => ({
    landSide: 'north',
    fromMm: Math.round(lengthMm * 0.3),
    toMm: Math.round(lengthMm * 0.5),
    depthMm: shallowMm / 2,
  }),
  hill: ({ place, least }) => ({ ...place, widthMm: share(least, 0.4), lengthMm: share(least, 0.3), heightMm: 6 }),
  plateau: ({ place, least }) => ({
    ...place,
    widthMm: share(least, 0.4),
    lengthMm: share(least, 0.3),
    heightMm: 5,
    bankSlope: 1,
  }),
  rock: ({ place, least, depthMm }) => ({
    ...place,
    diameterMm: Math.max(3, share(least, 0.15)),
    heightMm: depthMm + 3,
    form: 'dome',
  }),
  post: ({ place, depthMm }) => ({ ...place, diameterMm: 4, heightMm: depthMm + 10 }),
  stone: ({ place }) => ({ ...place, diameterMm: 10, topMm: 1 }),
  log: ({ place, least }) => ({ ...place, lengthMm: share(least, 0.35), diameterMm: 6, turnDegrees: 30, sunkMm: 1 }),
  wreck: ({ place, least, depthMm }) => ({
    ...place,
    widthMm: share(least, 0.35),
    lengthMm: share(least, 0.15),
    heightMm: depthMm + 4,
    turnDegrees: 20,
  }),
  debris: () => ({ volumeMl: 1 }),
  scan: ({ landMm }) => ({ columns: 2, rows: 2, stepMm: 1, heights: packHeights(Array(4).fill(landMm)) }),
};
