/**
 * The stages of the work, in its order: its routes and their rights, the rooms that lint keeps apart, the views that are tested, the
 * pages that are measured and the pictures that are taken are made from this one list. `shows` stands on a stage once it is drawn.
 */
export const STAGES = [
  { path: 'shape', name: 'Shape', key: '1', shows: 'Water in each' },
  { path: 'match', name: 'Match', key: '2', shows: 'Gap of the beds' },
  { path: 'tint', name: 'Tint', key: '3', shows: 'Smallest cup for drops' },
  { path: 'pour', name: 'Pour', key: '4', shows: 'To mix' },
  { path: 'cure', name: 'Cure', key: '5', shows: 'All ready' },
  { path: 'bench', name: 'Bench', key: '6', shows: 'Begin the run' },
  { path: 'log', name: 'Log', key: '7', shows: 'Layer' },
] as const;
export type StagePath = (typeof STAGES)[number]['path'];
