import { z } from 'zod';
import {
  batchSchema,
  copyFateSchema,
  logNoteSchema,
  inspectionSchema,
  photoSchema,
  pieceSchema,
  pourRecordSchema,
  settingsSchema,
  waterSetSchema,
  type RecordKind,
} from './recordSchemas';
import { edgeNameSchema, pieceDesignSchema } from '../model/designSchema';
import { MOST_DESIGNS } from '../plan/request';
import { learntAnswerSchema } from './learnt';
import { logLineSchema, MOST_LOG_LINES } from './workshopLog';
import { cornerShimsSchema, measuredEdgesSchema } from '../model/seamSchema';
import { productSchema } from '../model/productSchema';
import { courseSchema } from '../schedule/routes';
import { consumableSchema, lotSchema, movementSchema, STOCK_PARTS } from '../model/stockSchema';
import { colourantSchema, recipeSchema } from '../model/recipeSchema';

const id = z.string().min(1).max(40);
const version = z.number().int().min(1);
/** What undo will call this edit, for example "Move the south port". */
const label = z.string().trim().min(1).max(80).optional();

/** Journals of edits: undo in one never reaches into another. */
export const scopeSchema = z.union([
  z.literal('sets'),
  z.literal('shelf'),
  z.literal('log'),
  z.templateLiteral(['set:', z.string().min(1).max(40)]),
]);
export type Scope = z.infer<typeof scopeSchema>;
export const setScope = (setId: string): Scope => `set:${setId}`;
/** The set of a scope; null for the shelf and the list of sets. */
export const setOfScope = (scope: Scope): string | null => (scope.startsWith('set:') ? scope.slice(4) : null);

const put = <K extends RecordKind, S extends z.ZodType>(kind: K, data: S) =>
  z.object({ do: z.literal('put'), kind: z.literal(kind), id, version, data, label });
const add = <K extends RecordKind, S extends z.ZodType>(kind: K, data: S) =>
  z.object({ do: z.literal('add'), kind: z.literal(kind), data, label });
const addToSet = <K extends 'design' | 'piece' | 'batch', S extends z.ZodType>(kind: K, data: S) =>
  z.object({ do: z.literal('add'), kind: z.literal(kind), setId: id, data, label });

const copiesInBatchesSchema = z
  .array(copyFateSchema.pick({ designId: true, copy: true }).extend({ batchId: id }))
  .min(1)
  .max(2000);

/** Every edit that the screens can ask for: one schema for the form, the route and the database. */
export const commandSchema = z.discriminatedUnion('do', [
  z.discriminatedUnion('kind', [
    put('settings', settingsSchema),
    put('product', productSchema),
    put('colourant', colourantSchema),
    put('recipe', recipeSchema),
    put('set', waterSetSchema),
    put('design', pieceDesignSchema),
    put('piece', pieceSchema),
    put('batch', batchSchema),
    put('consumable', consumableSchema),
    put('lot', lotSchema),
    put('note', logNoteSchema),
  ]),
  z.discriminatedUnion('kind', [
    add('product', productSchema),
    add('colourant', colourantSchema),
    add('recipe', recipeSchema),
    add('set', waterSetSchema),
    addToSet('design', pieceDesignSchema),
    addToSet('piece', pieceSchema),
    addToSet('batch', batchSchema),
    add('consumable', consumableSchema),
    add('lot', lotSchema),
    add('movement', movementSchema),
    add('note', logNoteSchema),
  ]),
  z.object({
    do: z.literal('remove'),
    kind: z.enum(['product', 'colourant', 'recipe', 'set', 'design', 'piece', 'batch', 'consumable', 'lot', 'note']),
    id,
    version,
  }),
  /** A layer as it was poured; entered again it is a correction, `pour: null` says that it was not poured after all. */
  z.object({
    do: z.literal('pour'),
    batchId: id,
    version,
    layer: z.number().int().min(1),
    pour: pourRecordSchema.nullable(),
  }),
  /** Lots out of a file, with what was left in them, all or none. */
  z.object({
    do: z.literal('take in'),
    lots: z
      .array(
        z.object({
          lot: lotSchema,
          left: z.array(z.object({ part: z.enum(STOCK_PARTS), amount: z.number().min(0).max(1_000_000) })).max(2),
        }),
      )
      .min(1)
      .max(500),
  }),
  /** Lines of a log out of a file: notes, and pieces as they were looked over, all or none. */
  z.object({ do: z.literal('take in log'), lines: z.array(logLineSchema).min(1).max(MOST_LOG_LINES), label }),
  /** Reserves what a batch needs, as it is planned now, in place of what was reserved before; or gives all of it back. */
  z.object({ do: z.literal('reserve'), batchId: id, wanted: z.boolean() }),
  /** A new batch: of what no batch has taken yet, or `like` one that is there, with copies numbered on from all that were taken. */
  z.object({ do: z.literal('plan'), setId: id, like: id.optional() }),
  /** What happened to steps of some batches, where they are wanted, and the calendar that is kept: all in one edit. */
  z.object({
    do: z.literal('course'),
    label,
    batches: z
      .array(z.object({ id, version, course: courseSchema }))
      .min(1)
      .max(60),
  }),
  /** What became of copies, or that nothing did: in the batches that hold them, all in one edit. */
  z.object({
    do: z.literal('fate'),
    setId: id,
    label,
    copies: copiesInBatchesSchema,
    fate: copyFateSchema.pick({ fate: true, at: true, why: true }).nullable(),
  }),
  /** What was found on copies that were looked over; null takes the last word on them back. */
  z.object({
    do: z.literal('inspect'),
    setId: id,
    label,
    copies: copiesInBatchesSchema,
    inspection: inspectionSchema.nullable(),
  }),
  /** A photo of copies, that was taken in before; or it is no longer wanted. */
  z.object({
    do: z.literal('photo'),
    setId: id,
    label,
    copies: copiesInBatchesSchema,
    photo: photoSchema,
    wanted: z.boolean(),
  }),
  /** What the maker says to a figure that was learnt from the record. */
  z.object({ do: z.literal('learn'), figure: z.string().min(1).max(120), said: learntAnswerSchema }),
  /** The same set once more, without its batches: with what was measured of its copies, or without. */
  z.object({ do: z.literal('duplicate'), setId: id, measured: z.boolean() }),
  /** Kinds of product that ship with the program and are not on the shelf. */
  z.object({ do: z.literal('stock'), productIds: z.array(id).min(1).max(40) }),
  /** What was measured on the edges of some copies, and the shims they stand on: taken over what is known of them; null takes it away. */
  z.object({
    do: z.literal('measure'),
    setId: id,
    label,
    pieces: z
      .array(
        pieceSchema
          .pick({ designId: true, copy: true })
          // Null: nothing was known of this copy.
          .extend({
            version: version.nullable(),
            edges: measuredEdgesSchema.optional(),
            shimsMm: cornerShimsSchema.nullable().optional(),
          }),
      )
      .min(1)
      .max(500),
  }),
  /** Edges given a standard, or none, all in one edit. */
  z.object({
    do: z.literal('give'),
    setId: id,
    label,
    edges: z
      .array(z.object({ designId: id, version, edge: edgeNameSchema, standardId: id.nullable() }))
      .min(1)
      .max(MOST_DESIGNS * 12),
  }),
  /** The edit that the screen names; without one, the last. Another window may have edited in the scope meanwhile. */
  z.object({ do: z.enum(['undo', 'redo']), scope: scopeSchema, edit: z.number().int().positive().optional() }),
  z.object({ do: z.literal('sample') }),
]);
export type Command = z.infer<typeof commandSchema>;

/** Which screen asks: the scope of its undo, and whose changes its answer carries. */
export const viewWantedSchema = z.discriminatedUnion('view', [
  z.object({ view: z.literal('sets') }),
  z.object({ view: z.literal('shelf') }),
  z.object({ view: z.literal('log') }),
  z.object({ view: z.literal('desk'), setId: id }),
]);
export type ViewWanted = z.infer<typeof viewWantedSchema>;
export const scopeWanted = (wanted: ViewWanted): Scope =>
  wanted.view === 'desk' ? setScope(wanted.setId) : wanted.view;

/** The body of a request to the edit route. */
export const editRequestSchema = z.object({
  command: commandSchema,
  wanted: viewWantedSchema,
  /** Known again for a day: sent twice, an edit is made once. */
  key: z.string().min(12).max(64).optional(),
});
