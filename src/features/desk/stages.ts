import { PROBLEM_STAGES, type ProblemCode } from '@/core/checks/problemCodes';

/** The stages of the work that are built, in its order. */
export const STAGES = [
  { path: 'shape', name: 'Shape', key: '1' },
  { path: 'match', name: 'Match', key: '2' },
  { path: 'tint', name: 'Tint', key: '3' },
  { path: 'pour', name: 'Pour', key: '4' },
  { path: 'cure', name: 'Cure', key: '5' },
  { path: 'bench', name: 'Bench', key: '6' },
  { path: 'log', name: 'Log', key: '7' },
] as const;
export type StagePath = (typeof STAGES)[number]['path'];

/** At which stage a problem is mended. */
export const stageOfProblem = (code: ProblemCode): StagePath => PROBLEM_STAGES[code];
