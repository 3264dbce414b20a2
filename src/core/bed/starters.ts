import type { Feature, FeatureKind, PieceDesign } from './schema';

/** A design to start from. */
export interface Starter {
  title: string;
  design: PieceDesign;
}

/** Room above the level for banks, and how deep a first bed goes. */
const BANK_MM = 3;
const firstDepth = (levelMm: number): number => Math.max(0.5, Math.min(6, Math.round(levelMm * 0.4 * 2) / 2));

/** Designs to start from, drawn for a level. Tags are the first free ones. */
export function starters(levelMm: number, takenTags: readonly string[]): Starter[] {
  const depthMm = firstDepth(levelMm);
  const common = { landMm: levelMm + BANK_MM, drawnLevelMm: levelMm, bedColour: '#b9a883', landColour: '#8d9068', dams: {}, measured: null, copyNumbers: null };
  const tile = { ...common, kind: 'tile', copies: 4, outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 } } as const;
  const base = { ...common, kind: 'base', copies: 6 } as const;
  const channel = { kind: 'channel', id: 'creek', widthMm: 56, depthMm, section: 'trapezoid', bankSlope: 1.2, from: { edge: 'south', positionMm: 70 } } as const;
  const tag = (prefix: string): string => nextTag(prefix, takenTags);
  return [
    { title: 'Tile, straight channel', design: { ...tile, tag: tag('T'), name: 'Creek straight', features: [{ ...channel, to: { edge: 'north', positionMm: 70 } }] } },
    { title: 'Tile, curved channel', design: { ...tile, tag: tag('T'), name: 'Creek bend', features: [{ ...channel, to: { edge: 'west', positionMm: 70 } }] } },
    { title: 'Board with a shore', design: { ...common, kind: 'board', copies: 1, tag: tag('S'), name: 'Shore board', dams: { south: 'faced board' }, outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 }, features: [{ kind: 'shore', id: 'shore', landSide: 'north', waterlineMm: 120, slope: 10, depthMm }] } },
    { title: 'Round base with a pool', design: { ...base, tag: tag('B'), name: 'Round base, pool', outline: { kind: 'oval', widthMm: 40, lengthMm: 40 }, features: [{ kind: 'pool', id: 'pool', xMm: 20, yMm: 20, widthMm: 26, lengthMm: 26, depthMm: Math.min(3, depthMm), section: 'bowl', bankSlope: 0 }] } },
    { title: 'Oval base, water round a rock', design: { ...base, tag: tag('B'), name: 'Oval base, rock in water', outline: { kind: 'oval', widthMm: 60, lengthMm: 35 }, features: [{ kind: 'basin', id: 'basin', rimMm: 2, depthMm: Math.min(3, depthMm) }, { kind: 'rock', id: 'rock', xMm: 32, yMm: 18, diameterMm: 16, heightMm: Math.min(3, depthMm) + 5, form: 'dome' }] } },
    { title: 'Whole basin inside a rim', design: { ...tile, copies: 1, tag: tag('T'), name: 'Pond', features: [{ kind: 'basin', id: 'basin', rimMm: 6, depthMm }] } },
  ];
}

/** `T-1`, or the next number that is free. */
export function nextTag(prefix: string, taken: readonly string[]): string {
  for (let number = 1; ; number++) if (!taken.includes(`${prefix}-${number}`)) return `${prefix}-${number}`;
}

/** A first version of a feature for a design, at its middle. */
export function newFeature(kind: FeatureKind, { outline, drawnLevelMm, features }: PieceDesign): Feature {
  const { widthMm, lengthMm } = outline;
  const least = Math.min(widthMm, lengthMm);
  const depthMm = firstDepth(drawnLevelMm);
  const [xMm, yMm] = [widthMm / 2, lengthMm / 2];
  let number = features.length + 1;
  while (features.some(({ id }) => id === `${kind}-${number}`)) number++;
  const id = `${kind}-${number}`;
  const size = Math.round(least * 0.4);
  switch (kind) {
    case 'channel':
      return { kind, id, from: { edge: 'south', positionMm: xMm }, to: { edge: 'north', positionMm: xMm }, widthMm: size, depthMm, section: 'trapezoid', bankSlope: 1 };
    case 'shore':
      return { kind, id, landSide: 'north', waterlineMm: Math.round(lengthMm * 0.4), slope: 8, depthMm };
    case 'pool':
      return { kind, id, xMm, yMm, widthMm: size, lengthMm: size, depthMm, section: 'bowl', bankSlope: 0 };
    case 'ring':
      return { kind, id, xMm, yMm, widthMm: Math.round(least * 0.8), lengthMm: Math.round(least * 0.8), ringMm: Math.round(least * 0.2), depthMm: Math.min(depthMm, 3), bankSlope: 0.5 };
    case 'basin':
      return { kind, id, rimMm: Math.max(1, Math.round(least * 0.05)), depthMm: Math.min(depthMm, 3) };
    case 'rock':
      return { kind, id, xMm, yMm, diameterMm: Math.max(3, Math.round(least * 0.15)), heightMm: depthMm + 3, form: 'dome' };
  }
}
