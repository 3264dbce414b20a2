import { z } from 'zod';
import { STRAYS } from '../bed/measured';
import { HARDENED } from '../cure/hardened';
import type { LearntFigure, LearntKind, Standing } from '../learn/learntFigure';
import { NOTHING_LEARNT, type Learning } from '../learn/learningSchema';
import type { MadeBy } from '../model/madeBy';
import type { Product } from '../model/productSchema';
import type { Colourant } from '../model/recipeSchema';
import type { Stored } from '../model/stored';
import type { StepKind } from '../schedule/stepKinds';
import type { Settings } from './recordSchemas';
import type { Shelf, ViewState } from './views';

/** What may be said to a figure that was learnt: taken over, refused, back to what was there before; or one of its dots turned. */
export const learntAnswerSchema = z.discriminatedUnion('answer', [
  /** `shown`: the figures as they stood on the screen; where the record says others by now, they are looked at again first. */
  z.object({ answer: z.literal('take'), shown: z.array(z.number()).min(1).max(3) }),
  z.object({ answer: z.literal('refuse') }),
  z.object({ answer: z.literal('forget') }),
  /** An observation is counted, or left out, against what the rule says of it. */
  z.object({ answer: z.literal('turn'), dot: z.string().min(1).max(120) }),
]);
export type LearntAnswerWanted = z.infer<typeof learntAnswerSchema>;

/** The log of the workshop’s second page: what the record says of the figures that plans are made with. */
export interface LearntView extends Shelf, ViewState {
  figures: LearntFigure[];
  /** What each batch of the dots is called, and of which set. */
  batches: Record<string, { name: string; set: string; setId: string }>;
}

/** What of the shelf holds figures that the record may correct. */
export type Figured = Pick<Shelf, 'settings' | 'products' | 'colourants'>;

/** The figures that the record may correct, as they stand on the shelf. */
export const standingOf = ({ settings, products, colourants }: Figured): Standing => ({
  losses: settings.data.losses,
  products,
  colourants,
  strays: settings.data.strays ?? STRAYS,
  stepMinutes: settings.data.stepMinutes ?? {},
  learning: settings.data.learning,
});

const PRODUCT_FIELDS: Partial<Record<LearntKind, keyof Product>> = {
  pace: 'pourGramsPerMinute',
  'pot life': 'potLifeMinutes',
  stirring: 'stirMinutes',
  ...HARDENED,
  shrinkage: 'shrinkage',
  price: 'packPrice',
};

/** What of the shelf one figure stands in, with others in its place; what it does not stand in is left out. */
export interface ChangedFigures {
  settings?: Settings;
  product?: Stored<Product>;
  colourant?: Stored<Colourant>;
}

/** Where a figure that was learnt stands, with others in its place; nothing where that is no longer there. */
export function withFigures(
  { kind, of }: Pick<LearntFigure, 'kind' | 'of'>,
  figures: readonly number[],
  { settings: { data: settings }, products, colourants }: Figured,
): ChangedFigures {
  const [first = 0, second = 0, third = 0] = figures;
  if (kind === 'losses')
    return { settings: { ...settings, losses: { perCupGrams: first, share: second, perPieceGrams: third } } };
  if (kind === 'stray') {
    const strays = { ...(settings.strays ?? STRAYS), [of as MadeBy]: { offsetMm: first, wanderMm: second } };
    return { settings: { ...settings, strays } };
  }
  if (kind === 'step') {
    const own = { [of as StepKind]: { perBatchMinutes: first, perPieceMinutes: second } };
    return { settings: { ...settings, stepMinutes: { ...settings.stepMinutes, ...own } } };
  }
  if (kind === 'drop') {
    const colourant = colourants.find(({ id }) => id === of);
    return colourant ? { colourant: { ...colourant, data: { ...colourant.data, dropGrams: first } } } : {};
  }
  const field = PRODUCT_FIELDS[kind]!;
  const product = products.find(({ id }) => id === of);
  if (!product) return {};
  const marks = { ...product.data.marks, [field]: 'measured' as const };
  return { product: { ...product, data: { ...product.data, [field]: first, marks } } };
}

/** The shelf with what was changed of it in its place. */
export const withChanged = <T extends Figured>(shelf: T, { settings, product, colourant }: ChangedFigures): T => ({
  ...shelf,
  ...(settings && { settings: { ...shelf.settings, data: settings } }),
  products: shelf.products.map((one) => (one.id === product?.id ? product : one)),
  colourants: shelf.colourants.map((one) => (one.id === colourant?.id ? colourant : one)),
});

/** What is remembered of an answer; a dot that is turned twice stands as the rule has it. */
export function remembered(
  learning: Learning = NOTHING_LEARNT,
  figure: LearntFigure,
  wanted: LearntAnswerWanted,
): Learning {
  if (wanted.answer === 'turn') {
    const key = `${figure.id} ${wanted.dot}`;
    const turned = learning.turned.includes(key)
      ? learning.turned.filter((one) => one !== key)
      : [...learning.turned, key];
    return { ...learning, turned };
  }
  const { [figure.id]: _, ...others } = learning.answers;
  if (wanted.answer === 'forget') return { ...learning, answers: others };
  const after = wanted.answer === 'take' ? figure.fields.map(({ now }) => now) : null;
  return { ...learning, answers: { ...others, [figure.id]: { before: figure.before, after, seen: figure.counted } } };
}

/** What a figure that is taken over changes of a batch that is still to be poured. */
export interface LearntEffect {
  batchId: string;
  name: string;
  setId: string;
  set: string;
  mixGrams: { was: number; now: number };
  cups: { was: number; now: number };
  minutes: { was: number; now: number };
  money: { was: number; now: number };
}
