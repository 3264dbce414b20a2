import type { PieceDesign } from '../bed/schema';
import type { WallTime } from '../cure/wallTime';
import type { Plan, PlanRequest } from '../plan';
import type { UnitPreferences } from '../units/formatMeasure';
import type { Product } from '../mixing/product';
import type { Colourant, Recipe } from '../tint/schema';
import type { Batch, PieceRecord, Settings, Stored, WaterSet } from './schema';

/** What undo and redo would do next in a scope, in words; null when there is nothing. */
export interface History {
  undo: string | null;
  redo: string | null;
}

/** The shelf and the workshop. */
export interface ShelfView {
  settings: Stored<Settings>;
  products: Stored<Product>[];
  colourants: Stored<Colourant>[];
  recipes: Stored<Recipe>[];
  history: History;
}

/** One set with all that its screens need. `now` is the workshop's wall clock when the view was made. */
export interface DeskView {
  set: Stored<WaterSet>;
  designs: Stored<PieceDesign>[];
  /** Copies that have been measured. */
  pieces: Stored<PieceRecord>[];
  batches: Stored<Batch>[];
  shelf: Omit<ShelfView, 'history'>;
  history: History;
  now: WallTime;
}

/** All sets, for the first screen. */
export interface SetsView {
  sets: DeskView[];
  shelf: Omit<ShelfView, 'history'>;
  history: History;
  now: WallTime;
}

/** A batch with its plan, for the pour card and the exports. `request` and `plan` are null while it has no pieces. */
export interface BatchPlanView {
  setId: string;
  batch: Stored<Batch>;
  request: PlanRequest | null;
  plan: Plan | null;
  units: UnitPreferences;
  printedAt: WallTime;
}
