/** The stages of the work that are built, in its order. */
export const STAGES = [
  { path: 'shape', name: 'Shape', key: '1' },
  { path: 'match', name: 'Match', key: '2' },
  { path: 'tint', name: 'Tint', key: '3' },
  { path: 'pour', name: 'Pour', key: '4' },
  { path: 'cure', name: 'Cure', key: '5' },
  { path: 'log', name: 'Log', key: '6' },
] as const;
export type StagePath = (typeof STAGES)[number]['path'];

/** At which stage a problem is mended. */
export function stageOfProblem(code: string): StagePath {
  if (['too-much-colourant', 'too-much-water', 'drops-too-coarse'].includes(code)) return 'tint';
  if (['pot-life-limits', 'scale-too-coarse', 'too-many-layers'].includes(code)) return 'pour';
  if (['cold-room', 'outside-bench-window', 'recoat-missed', 'no-bench-window'].includes(code)) return 'cure';
  return 'shape';
}
