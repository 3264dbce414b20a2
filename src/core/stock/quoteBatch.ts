import { quote, type Quote, type QuoteInput, type Work } from '../money/quote';
import { handsOnMinutes, waterGrams } from '../plan/whatIf';
import type { Amounts } from '../plan/plan';
import type { AmountsRequest, PlanRequest } from '../plan/request';
import type { StockItem } from '../model/stockSchema';
import { priceOfNeeds, type StockLevel } from './haveAndNeed';
import { batchNeeds, cupsBesidePacks } from './needs';
import { packsOf, type Sold } from './packs';

/**
 * What a batch costs and what to ask for it. What is on the shelf counts at what its bottles cost, what has to be bought at the price of a
 * new pack.
 */
export function quoteBatch(
  request: AmountsRequest & Pick<PlanRequest, 'build' | 'hands'>,
  plan: Amounts,
  { levels, shelf, work }: { levels: readonly StockLevel[]; shelf: Sold; work: Work },
): Quote & { input: QuoteInput } {
  const needs = batchNeeds(request, plan, shelf.consumables);
  const price = (kind: StockItem['kind']): number =>
    priceOfNeeds(
      needs.filter(({ item }) => item.kind === kind),
      levels,
      (item) => packsOf(item, shelf),
    );
  const water = waterGrams(plan);
  const input: QuoteInput = {
    pieces: plan.totals.pieces,
    ...water,
    pricePerGram: water.mixGrams > 0 ? price('product') / water.mixGrams : 0,
    highMixGrams: needs.reduce((sum, { item, high }) => (item.kind === 'product' ? sum + high : sum), 0),
    colourantPrice: price('colourant'),
    consumablesPrice: price('consumable') + cupsBesidePacks(plan.cost.cups, shelf.consumables),
    pourMinutes: handsOnMinutes(plan, request),
    work,
  };
  return { ...quote(input), input };
}
