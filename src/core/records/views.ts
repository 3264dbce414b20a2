import type { CopyCounts } from './copies';
import type { ClockChange } from '../time/clockChanges';
import type { PieceDesign } from '../model/designSchema';
import type { WallTime } from '../time/wallTime';
import type { Amounts, Plan, PlanRequest } from '../plan';
import type { Product } from '../model/productSchema';
import type { DayConditions } from '../cure/conditions';
import type { SchedulePlan, ScheduleRequest } from '../schedule/scheduleRequest';
import type { CalendarBatch } from '../schedule/workplace';
import type { PackedStrip } from '../picture/packedStrip';
import type { Consumable, Lot, MovementKind, StockPart } from '../model/stockSchema';
import type { Colourant, Recipe } from '../model/recipeSchema';
import type { Batch, PieceRecord, PourRecord, RecordData, RecordKind, Settings, WaterSet } from './recordSchemas';
import type { Stored } from '../model/stored';

/** An edit that can be taken back or made again, and what it is called. */
export interface HistoryStep {
  edit: number;
  label: string;
}

/** What undo and redo would do next in a scope; null when there is nothing. */
export interface History {
  undo: HistoryStep | null;
  redo: HistoryStep | null;
}

/** A record that cannot be read: it is left out where it belongs, and said. */
export interface Unreadable {
  kind: RecordKind;
  id: string;
  message: string;
}

/** What lies on the shelf, and the workshop. */
export interface Shelf {
  settings: Stored<Settings>;
  products: Stored<Product>[];
  colourants: Stored<Colourant>[];
  recipes: Stored<Recipe>[];
  consumables: Stored<Consumable>[];
}

/** What every view tells: what undo would do, the workshop's wall clock, and what cannot be read. */
export interface ViewState {
  history: History;
  now: WallTime;
  clockChanges: ClockChange[];
  /** Days on which the room was read. */
  measuredDays: DayConditions[];
  unreadable: Unreadable[];
}

/** The shelf and the workshop. */
export interface ShelfView extends Shelf, ViewState {
  /** Kinds of product that ship and are not on the shelf, by id and name. */
  missingKinds: { id: string; name: string }[];
  /** What was bought and still holds something, with the last that were emptied. */
  lots: LotRow[];
  /** How many more emptied lots there are of a thing, by its kind and id. */
  emptied: Record<string, number>;
}

/** A batch in short: what is wished, and how far it has been poured. */
export interface BatchRow extends Stored<Batch> {
  /** Null while it is only planned. */
  poured: {
    /** Layers that are poured whole; those that were begun; pours of those that were not made. */
    layers: number;
    begun: number;
    dry: number;
    of: number;
    lastAt: WallTime;
    mixGrams: number;
  } | null;
}

/** What was planned at the first pour: what it was worked out from, and what came out. */
export interface KeptPlan {
  request: PlanRequest;
  amounts: Amounts;
}

/** An open batch: the plan that was kept, and its layers as they were poured. */
export interface BatchDetail {
  batchId: string;
  kept: KeptPlan | null;
  pours: PourRecord[];
}

/** One set with what all its screens show. Batches come newest first, the first of them; more on demand. */
export interface DeskView extends ViewState {
  set: Stored<WaterSet>;
  designs: Stored<PieceDesign>[];
  /** Copies that have been measured. */
  pieces: Stored<PieceRecord>[];
  batches: BatchRow[];
  batchCount: number;
  /** Designs of other sets that its batches take copies of. */
  guests?: Guest[];
  /** The batch that is open, if one is. */
  opened: BatchDetail | null;
  shelf: Shelf;
}

/** How clocks and the room go, beside what the workshop says of them. */
export type ClockAndRoom = Pick<ViewState, 'clockChanges' | 'measuredDays'>;

/** What every stage needs to draw a set. */
export type SetDocuments = Pick<DeskView, 'set' | 'designs' | 'pieces' | 'shelf' | 'guests'>;

/** A design of another set, its bed drawn to that set's standards, with its measured copies and the last number that batches took. */
export interface Guest {
  set: { id: string; name: string; levelMm: number };
  design: Stored<PieceDesign>;
  pieces: Stored<PieceRecord>[];
  taken: number;
}

/** A lot with what is left of each part in it, and when it last moved. */
export interface LotRow extends Stored<Lot> {
  left: { part: StockPart; amount: number }[];
  lastAt: WallTime | null;
}

/** One line of the history of a lot. */
export interface MovementRow {
  id: number;
  part: StockPart;
  amount: number;
  kind: MovementKind;
  at: WallTime;
  note: string;
  batchId: string | null;
  layer: number | null;
  cup: number | null;
  leftAfter: number;
}

/** What a recipe was, and since when; null: since before anything that is remembered. */
export interface RecipeVersion {
  at: WallTime | null;
  /** The edit that made it so, in words. */
  label: string;
  recipe: Recipe;
}

/** Another set of the workshop, as far as its water goes. */
export interface OtherSet {
  id: string;
  name: string;
  productId: string;
  recipeId: string;
  /** Null while it has no pieces. */
  bedColour: string | null;
}

/** What waits, and what comes next in the work on a set. */
export interface SetWork {
  words: string;
  /** Where it is done. */
  stage: 'shape' | 'pour' | 'cure' | 'log';
  batchId: string | null;
  /** When it is due or may be done, where that is known. */
  at: WallTime | null;
}

/** All that is being made, and a plan of it: the kept one, or a first one; null when nothing is. */
export interface CalendarView {
  batches: CalendarBatch[];
  /** Days on which the room was read: they beat what the workshop supposes. */
  measured: DayConditions[];
  plan: SchedulePlan | null;
}

/** A calendar to print, asked for from the desk of a set. */
export interface WeekSheetView {
  setId: string;
  request: ScheduleRequest;
  /** The plan that is kept, or a first one (null: still to be looked for); the page looks for a better one as the screen does. */
  plan: SchedulePlan | null;
  /** False while it is only proposed. */
  kept: boolean;
}

/** A set in the list of all. */
export interface SetCard {
  set: Stored<Pick<WaterSet, 'name' | 'figureScaleMm' | 'levelMm' | 'job' | 'putAway'>>;
  /** How many copies of each kind of piece. */
  pieces: Pick<PieceDesign, 'kind' | 'copies'>[];
  /** Null until it is asked for: a strip is drawn when it comes in sight. */
  look: SetLook | null;
  batches: number;
  next: SetWork;
  /** Layers that cure, until when. */
  curing: { words: string; until: WallTime } | null;
}

/** How a set looks in the list: its strip, thinned for a small picture, and what its pieces are called. */
export interface SetLook {
  pieces: { id: string; data: Pick<PieceDesign, 'tag' | 'name' | 'copies'> }[];
  strip: PackedStrip;
  copies: CopyCounts;
}

/** Sets for the first screen: those whose work comes next; the rest is asked for once the page stands. */
export interface SetsView extends ViewState {
  sets: SetCard[];
  setCount: number;
  shelf: Shelf;
}

/** A batch with its plan, for the pour card and the exports. `request` and `plan` are null while it has no pieces. */
export interface BatchPlanView {
  setId: string;
  batch: BatchRow;
  poured: boolean;
  request: PlanRequest | null;
  plan: Plan | null;
  settings: Settings;
  printedAt: WallTime;
}

/** One row that an edit changed; null when it is gone. */
export type RowChange =
  | {
      [K in Exclude<RecordKind, 'batch' | 'pour' | 'lot' | 'movement'>]: {
        kind: K;
        id: string;
        setId: string | null;
        row: Stored<RecordData<K>> | null;
      };
    }[Exclude<RecordKind, 'batch' | 'pour' | 'lot' | 'movement'>]
  | { kind: 'lot'; id: string; setId: null; row: LotRow | null }
  | { kind: 'batch'; id: string; setId: string | null; row: BatchRow | null }
  | { kind: 'pour'; id: string; setId: string | null; batchId: string; layer: number; row: PourRecord | null };

/** What the edit route answers: the rows that have changed, and what undo would do now. */
export interface EditAnswer {
  id: string | null;
  /** What else there is to say of it, as what went along with an undo. */
  note: string | null;
  changes: RowChange[];
  history: History;
  now: WallTime;
  /** Sets whose card in the list has changed, for the screen that lists them; null: gone. */
  cards?: { id: string; card: SetCard | null }[];
}

/** What a batch has taken out of the bottles, at what each bottle was bought for. */
export interface Spent {
  batchId: string;
  money: number;
}
