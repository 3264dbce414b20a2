import type { UnitPreferences } from '../units/formatMeasure';
import type { Amounts, Plan } from './plan';
import type { AmountsRequest, PlanRequest } from './request';

/** How a figure came about: what went in, the formula in words, what is taken for granted. */
export interface Explanation {
  title: string;
  formula: string;
  inputs: { label: string; value: string }[];
  assumptions: string[];
  /** True when the figure rests on typical values rather than on measured ones. */
  estimate: boolean;
}

/** What a piece's figure is explained from: amounts will do. */
export interface PieceContext {
  request: AmountsRequest;
  plan: Amounts;
  prefs: UnitPreferences;
}

/** What a batch's figure is explained from. */
export interface Context {
  request: PlanRequest;
  plan: Plan;
  prefs: UnitPreferences;
}
