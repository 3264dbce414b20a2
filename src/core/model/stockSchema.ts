import { reference } from './reference';
import { z } from 'zod';
import { wallTimeSchema } from '../time/wallTime';

const number = z.number({ error: 'Type a number' });
const id = z.string().min(1).max(40);

/** What stands on the shelf and is used up: products and colourants in grams, consumables in pieces. */
export const STOCK_KINDS = ['product', 'colourant', 'consumable'] as const;
export const stockItemSchema = z.object({ kind: z.enum(STOCK_KINDS), id });
export type StockItem = z.infer<typeof stockItemSchema>;

/** Which part of a lot: A or B of a two-part product, else all of it. */
export const STOCK_PARTS = ['A', 'B', 'all'] as const;
export type StockPart = (typeof STOCK_PARTS)[number];
const partSchema = z.enum(STOCK_PARTS);

const amount = number.min(0, 'Cannot be negative').max(1_000_000, 'At most a million');
const day = z.iso.date('A date such as 2026-12-12');

/** One bottle, kit or pack that was bought. What is left of it is the sum of its movements. */
export const lotSchema = z
  .object({
    of: stockItemSchema,
    name: z.string().trim().min(1, 'Give it a name').max(40, 'At most 40 characters'),
    /** What was in it when it was bought: grams of each part, or pieces. */
    bought: z
      .array(z.object({ part: partSchema, amount: amount.gt(0, 'Must be more than 0') }))
      .min(1, 'Say how much it holds')
      .max(2)
      .refine((parts) => new Set(parts.map(({ part }) => part)).size === parts.length, {
        error: 'A part stands once in a lot',
      }),
    boughtOn: day,
    /** Null while it is sealed. */
    openedOn: day.nullable(),
    /** What the label says; null: only the shelf life counts, from the day it is opened. */
    bestBefore: day.nullable(),
    price: number.min(0, 'Cannot be negative').max(1_000_000, 'At most a million'),
  })
  .superRefine(({ boughtOn, openedOn }, context) => {
    if (openedOn !== null && openedOn < boughtOn)
      context.addIssue({ code: 'custom', path: ['openedOn'], message: 'It cannot be opened before it was bought' });
  });
export type Lot = z.infer<typeof lotSchema>;

/**
 * What may happen to what stands on the shelf. All but the last two say where grams went; those say only whom they are meant for.
 */
export const MOVEMENT_KINDS = [
  'bought',
  'opened',
  'poured',
  'lost',
  'used',
  'thrown away',
  'found',
  'corrected',
  'reserved',
  'released',
] as const;
export type MovementKind = (typeof MOVEMENT_KINDS)[number];

/** A movement that the maker enters: what was found to be left, thrown away, used for something else. Positive comes, negative goes. */
export const movementSchema = z.object({
  lotId: reference('lot'),
  part: partSchema,
  amount: number.min(-1_000_000).max(1_000_000),
  kind: z.enum(['used', 'thrown away', 'corrected']),
  at: wallTimeSchema,
  note: z.string().trim().max(200, 'At most 200 characters'),
});
export type Movement = z.infer<typeof movementSchema>;

/** What consumables are used by. */
export const USED_PER = ['cup', 'layer', 'batch', 'piece', 'mm of dam'] as const;

/** Cups, sticks, tape, gloves, strip: what every batch takes some of. */
export const consumableSchema = z.object({
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
  per: z.enum(USED_PER),
  /** How many of it for each cup (layer, batch …). */
  amount: number.gt(0, 'Must be more than 0').max(1000, 'At most 1000'),
  packCount: number.gt(0, 'Must be more than 0').max(1_000_000),
  packPrice: number.min(0, 'Cannot be negative').max(1_000_000),
});
export type Consumable = z.infer<typeof consumableSchema>;
