import { PROBLEM_STAGES, type ProblemCode } from '@/core/model/problemCodes';
import type { StagePath } from '@/core/model/stages';

/** At which stage a problem is mended. */
export const stageOfProblem = (code: ProblemCode): StagePath => PROBLEM_STAGES[code];
