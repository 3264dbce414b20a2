import type { EdgeStandard } from '@/core/bed/edgeStandardSchema';
import type { PieceDesign } from '@/core/bed/schema';

const LEVEL_MM = 15;
const tile = { kind: 'tile', outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 }, landMm: 18, drawnLevelMm: LEVEL_MM, bedColour: '#b9a883', landColour: '#8d9068', dams: {}, measured: null, copyNumbers: null } as const;
const board = { kind: 'board', outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 }, landMm: 22, drawnLevelMm: LEVEL_MM, bedColour: '#c2b08c', landColour: '#a59a70', dams: { south: 'faced board' }, measured: null, copyNumbers: null } as const;
const base = { kind: 'base', landMm: 18, drawnLevelMm: LEVEL_MM, bedColour: '#a99a7c', landColour: '#7f8560', dams: {}, measured: null, copyNumbers: null } as const;
const creek = { kind: 'channel', widthMm: 58, depthMm: 6.8, section: 'trapezoid', bankSlope: 1.2 } as const;
const south = { edge: 'south', positionMm: 70 } as const;

/** Where the creek leaves a tile: every edge that has water keeps to it. */
export const CREEK_MOUTH: EdgeStandard = { id: 'creek-mouth', name: 'Creek mouth', edgeMm: 140, portMm: 70, widthMm: 58, depthMm: 6.8, section: 'trapezoid', bankSlope: 1.2, levelMm: LEVEL_MM, bankMm: 18, toleranceMm: 0.5, blendMm: 12 };
const mouths = (...edges: ('south' | 'east' | 'north' | 'west')[]): PieceDesign['edgeStandards'] => Object.fromEntries(edges.map((edge) => [edge, CREEK_MOUTH.id]));

/** The pieces of Heron Slack, a made-up tidal creek. */
export const HERON_SLACK_DESIGNS: readonly (PieceDesign & { id: string })[] = [
  { ...tile, id: 'hs-1', tag: 'HS-1', name: 'Creek straight', copies: 4, edgeStandards: mouths('south', 'north'), features: [{ ...creek, id: 'creek', from: south, to: { edge: 'north', positionMm: 70 } }] },
  {
    ...tile, id: 'hs-2', tag: 'HS-2', name: 'Creek bend', copies: 3, edgeStandards: mouths('south', 'west'),
    features: [{ ...creek, id: 'creek', from: south, to: { edge: 'west', positionMm: 70 } }, { kind: 'rock', id: 'stone', xMm: 62, yMm: 52, diameterMm: 15, heightMm: 9.5, form: 'dome' }],
  },
  {
    ...tile, id: 'hs-3', tag: 'HS-3', name: 'Creek fork', copies: 1, edgeStandards: mouths('south', 'north', 'east'),
    features: [{ kind: 'fork', id: 'fork', stem: south, left: { edge: 'north', positionMm: 70 }, right: { edge: 'east', positionMm: 70 }, xMm: 70, yMm: 48, widthMm: 58, armWidthMm: 58, depthMm: 6.8, section: 'trapezoid', bankSlope: 1.2 }],
  },
  {
    ...tile, id: 'hs-4', tag: 'HS-4', name: 'Creek pool', copies: 1, edgeStandards: mouths('south', 'north'),
    features: [{ ...creek, id: 'creek', from: south, to: { edge: 'north', positionMm: 70 } }, { kind: 'pool', id: 'pool', xMm: 70, yMm: 68, widthMm: 104, lengthMm: 88, depthMm: 9.4, section: 'bowl', bankSlope: 0 }],
  },
  {
    ...tile, id: 'hs-5', tag: 'HS-5', name: 'Creek narrows', copies: 1, grainMm: 0.8, edgeStandards: mouths('south', 'north'), flowsFrom: 'south',
    features: [
      { ...creek, id: 'creek', from: south, to: { edge: 'north', positionMm: 70 }, via: [{ xMm: 52, yMm: 46, widthMm: 36, depthMm: 5 }, { xMm: 88, yMm: 96, widthMm: 44, depthMm: 8 }] },
      { kind: 'rock', id: 'boulder', xMm: 78, yMm: 100, diameterMm: 20, heightMm: 11, form: 'irregular', seed: 12, wildness: 0.35 },
      { kind: 'stone', id: 'step-1', xMm: 40, yMm: 49, diameterMm: 10, topMm: 1.2 },
      { kind: 'stone', id: 'step-2', xMm: 54, yMm: 45, diameterMm: 9, topMm: 1 },
      { kind: 'stone', id: 'step-3', xMm: 66, yMm: 41, diameterMm: 10, topMm: 1.4 },
    ],
  },
  {
    ...tile, id: 'hs-6', tag: 'HS-6', name: 'Sluice pond over the creek', copies: 1, poolLevels: [{ xMm: 104, yMm: 98, levelMm: 20 }],
    features: [
      { kind: 'plateau', id: 'bank', xMm: 104, yMm: 98, widthMm: 66, lengthMm: 78, heightMm: 5, bankSlope: 1.5 },
      { ...creek, id: 'creek', from: south, to: { edge: 'west', positionMm: 70 } },
      { kind: 'pool', id: 'pond', xMm: 104, yMm: 98, widthMm: 48, lengthMm: 58, depthMm: 5, atLevelMm: 20, section: 'bowl', bankSlope: 0, form: 'irregular', seed: 21, wildness: 0.2 },
    ],
  },
  { ...board, id: 'sh-a', tag: 'SH-A', name: 'Shore board', copies: 2, features: [{ kind: 'shore', id: 'shore', landSide: 'north', waterlineMm: 120, slope: 9, depthMm: 7.5 }] },
  {
    ...board, id: 'sh-b', tag: 'SH-B', name: 'Shore board, rocky', copies: 2,
    features: [
      { kind: 'shore', id: 'shore', landSide: 'north', waterlineMm: 120, slope: 9, depthMm: 7.5, profile: 'concave', line: [{ alongMm: 0, offMm: 120 }, { alongMm: 110, offMm: 146 }, { alongMm: 230, offMm: 98 }, { alongMm: 345, offMm: 138 }, { alongMm: 450, offMm: 120 }] },
      { kind: 'rock', id: 'skerry', xMm: 150, yMm: 92, diameterMm: 50, heightMm: 15, form: 'irregular', seed: 7, wildness: 0.35 },
      { kind: 'rock', id: 'islet', xMm: 308, yMm: 64, diameterMm: 68, heightMm: 17, form: 'irregular', seed: 3, wildness: 0.4 },
      { kind: 'log', id: 'drift', xMm: 232, yMm: 136, lengthMm: 70, diameterMm: 8, turnDegrees: 24, sunkMm: 1 },
    ],
  },
  { ...base, id: 'b-32', tag: 'B-32', name: 'Round base, puddle', copies: 12, outline: { kind: 'oval', widthMm: 32, lengthMm: 32 }, features: [{ kind: 'pool', id: 'puddle', xMm: 17, yMm: 14, widthMm: 20, lengthMm: 17, depthMm: 3.2, section: 'bowl', bankSlope: 0 }] },
  { ...base, id: 'b-50', tag: 'B-50', name: 'Round base, rock in water', copies: 8, outline: { kind: 'oval', widthMm: 50, lengthMm: 50 }, features: [{ kind: 'basin', id: 'basin', rimMm: 2, depthMm: 4 }, { kind: 'rock', id: 'perch', xMm: 26, yMm: 27, diameterMm: 24, heightMm: 12, form: 'irregular', seed: 5, wildness: 0.3 }] },
  { ...base, id: 'b-60', tag: 'B-60', name: 'Oval base, moat', copies: 4, outline: { kind: 'oval', widthMm: 60, lengthMm: 35 }, features: [{ kind: 'ring', id: 'moat', xMm: 30, yMm: 17.5, widthMm: 54, lengthMm: 29, ringMm: 8, depthMm: 3, bankSlope: 0.5 }] },
];
