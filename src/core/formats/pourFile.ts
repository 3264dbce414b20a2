import { z } from 'zod';
import { cupWork } from '../pouring/cupWork';
import { quote, TYPICAL_WORK, workSchema } from '../money/quote';
import { handsOnMinutes, layerProduct, planBatch, planRequestSchema, productsOf, waterGrams } from '../plan';
import { isPast, takeFrom, type LotState } from '../stock/lots';
import { haveAndNeed, shoppingList, type StockLevel } from '../stock/haveAndNeed';
import { batchNeeds, cupsBesidePacks } from '../stock/needs';
import { packsOf } from '../stock/packs';
import { consumableSchema, lotSchema, STOCK_PARTS } from '../model/stockSchema';
import { commandFailed, readJson, roundedJson, stopsOf, type CommandResult } from './planFile';

/** A batch, what stands on the shelf, and how work is counted: what the `pour` command reads. */
export const pourRequestSchema = z.object({
  format: z.literal('aguada.pour-request', { error: 'Must be "aguada.pour-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  request: planRequestSchema,
  /** Lots with what is left in them; what was bought where nothing is said. Things go by the ids of the request. */
  lots: z
    .array(
      z.object({
        id: z.string().min(1).max(40),
        lot: lotSchema,
        left: z.array(z.object({ part: z.enum(STOCK_PARTS), amount: z.number().min(0) })).optional(),
      }),
    )
    .max(2000)
    .default([]),
  consumables: z
    .array(z.object({ id: z.string().min(1).max(40), data: consumableSchema }))
    .max(100)
    .default([]),
  work: workSchema.default(TYPICAL_WORK),
  /** By which lots are past their date; the day of the pour where nothing is said. */
  today: z.iso.date('A date such as 2026-12-12').optional(),
});
export type PourFile = z.infer<typeof pourRequestSchema>;

/** What stands on the shelf of a file, by thing and part. */
function levelsOf({ lots, today, request }: PourFile): { levels: StockLevel[]; states: LotState[] } {
  const day = today ?? request.pourAt.slice(0, 10);
  const levels: StockLevel[] = [];
  const states = lots.map(({ id, lot, left }): LotState => ({ id, lot, left: left ?? lot.bought }));
  const past = new Set<string>();
  for (const { id: lotId, lot, left } of states)
    for (const { part, amount } of left) {
      const same = levels.find(
        (level) => level.item.kind === lot.of.kind && level.item.id === lot.of.id && level.part === part,
      );
      const level = same ?? {
        item: lot.of,
        part,
        good: 0,
        expired: 0,
        reservedHere: 0,
        reservedElsewhere: 0,
        known: true,
        pricePerUnit: null,
        lots: [],
      };
      if (!same) levels.push(level);
      const life = productsOf(request).find(({ id }) => lot.of.kind === 'product' && id === lot.of.id)?.shelfLifeMonths;
      if (isPast(lot, life ?? null, day)) {
        level.expired += amount;
        past.add(lotId);
      } else level.good += amount;
    }
  return { levels, states: states.filter(({ id }) => !past.has(id)) };
}

/** Mixes in their order with the readings of the scale, what is there and what to buy, out of which lots, and the quote. */
export function pourReport(file: PourFile): object {
  const { request, consumables, work } = file;
  const plan = planBatch(request);
  const { levels, states } = levelsOf(file);
  const needs = batchNeeds(request, plan, consumables);
  const lines = haveAndNeed(needs, levels);
  const sold = {
    products: productsOf(request).map((product) => ({ id: product.id, version: 1, data: product })),
    colourants: request.recipe.doses.map(({ colourant }) => ({ id: colourant.id, version: 1, data: colourant })),
    consumables: consumables.map((one) => ({ ...one, version: 1 })),
  };
  const consumablesPrice = needs.reduce((sum, { item, likely }) => {
    const data = consumables.find(({ id }) => item.kind === 'consumable' && id === item.id)?.data;
    return sum + (data ? (likely * data.packPrice) / data.packCount : 0);
  }, 0);
  return {
    format: 'aguada.pour',
    version: 1,
    layers: plan.layers.map((layer) => ({
      number: layer.number,
      ...(layer.productId !== undefined && { product: layer.productId }),
      toMm: layer.toMm,
      fewestCups: layer.fewestCups,
      stock: layer.stock,
      tintLeft: layer.tintLeft,
      mixes: layer.cups.map((cup) => {
        const { steps, stirMinutes, pourByMinutes, leftGrams } = cupWork(
          cup,
          layerProduct(request, layer),
          request.losses,
        );
        return {
          cup: cup.number,
          mixGrams: cup.mixGrams,
          parts: cup.parts,
          doses: cup.doses,
          portions: cup.portions,
          stirMinutes,
          pourByMinutes,
          leftGrams,
          pours: steps,
        };
      }),
    })),
    ...(plan.finish && { finish: plan.finish }),
    needs: lines.map(({ level, ...line }) => ({
      ...line,
      expired: level.expired,
      outOf: takeFrom(
        states.filter(({ lot }) => lot.of.kind === line.item.kind && lot.of.id === line.item.id),
        line.part,
        line.likely,
      ).taken,
    })),
    toBuy: shoppingList(lines, (item) => packsOf(item, sold)).map(({ item, name, cover, packs }) => ({
      item,
      name,
      packs: cover.counts.flatMap((count, i) => (count > 0 ? [{ count, ...packs[i]! }] : [])),
      price: cover.price,
    })),
    quote: quote({
      pieces: plan.totals.pieces,
      ...waterGrams(plan),
      highMixGrams: needs.filter(({ item }) => item.kind === 'product').reduce((sum, { high }) => sum + high, 0),
      colourantPrice: plan.cost.colourant,
      consumablesPrice: consumablesPrice + cupsBesidePacks(plan.cost.cups, consumables),
      pourMinutes: handsOnMinutes(plan, request),
      work,
    }),
    warnings: plan.problems.filter(({ severity }) => severity !== 'stop').map(({ message }) => message),
  };
}

/** The `pour` command, without its files. */
export function pourCommand(text: string): CommandResult {
  const read = readJson(text, pourRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const stops = stopsOf(read.request.request, planBatch(read.request.request)).map(({ field, message }) => ({
    field: `request.${field}`,
    message,
  }));
  return stops.length > 0
    ? commandFailed(stops)
    : { output: roundedJson(pourReport(read.request)), errors: '', exitCode: 0 };
}
