export { atOwnLevel, bedKey, surveyBed, type SurveyedBed } from './beds';
export { planBatch, type BedSource } from './planBatch';
export {
  planSchema,
  type CupPlan,
  type LayerPlan,
  type PiecePlan,
  type Plan,
  type PoolPlan,
  type TiltPlan,
} from './plan';
export * from './request';
export {
  explainBatch,
  explainPiece,
  MADE_WORDS,
  spillWords,
  type BatchFigure,
  type Explanation,
  type PieceFigure,
} from './explain';
