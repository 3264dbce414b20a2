export { atOwnLevel, bedKey, surveyBed, type SurveyedBed } from './beds';
export {
  amountsOfPieces,
  bedsBuiltOnce,
  lowestBedMm,
  madeUp,
  planAmounts,
  planBatch,
  planPieces,
  type BedSource,
} from './planBatch';
export { planTimes } from './pourTimes';
export { handsOnMinutes, planDifference, waterGrams, withLevel, withMore, type Difference } from './whatIf';
export {
  planSchema,
  withTimes,
  type Amounts,
  type CupPlan,
  type FinishPlan,
  type LayerPlan,
  type PiecePlan,
  type Plan,
  type PoolPlan,
  type TiltPlan,
} from './plan';
export * from './request';
export { fingerprint, isExtract, slimAmounts } from './slimAmounts';
export type { LayerAmounts } from './plan';
export { explainBatch, explainPiece, MADE_WORDS, spillWords, type BatchFigure, type PieceFigure } from './explain';
export { explainFinish, explainProduct } from './explainBuild';
export { explainRecipe, type RecipeFigure } from './explainRecipe';
export type { Explanation } from './explanation';
