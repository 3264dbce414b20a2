import { inOrder, type Portion } from '../pouring/portions';
import { stockPart } from '../pouring/stockTint';
import type { Product } from '../model/productSchema';

/** How a colourant was told in plans of runs before its portions were carried in them. */
interface OlderDose {
  id: string;
  name: string;
  how: 'drops' | 'weight' | 'premix' | 'stock';
  grams: number;
  drops: number;
  dropGrams: number;
  resinGrams: number;
  intoGrams: number;
  colours: { id: string; grams: number }[];
  pricePerGram: number;
}

interface OlderLayer {
  product: Pick<Product, 'parts'>;
  recipe?: unknown;
  stock: { drops: { id: string; name: string; drops: number }[]; stockGrams: number } | null;
  cups: { mixGrams: number; doses?: OlderDose[] }[];
}

const portionOf = ({ id, how, dropGrams, pricePerGram: _, ...dose }: OlderDose): Portion => ({
  ...dose,
  key: id,
  way: how,
  wantGrams: dose.grams,
  showsGrams: 0,
  grams: how === 'drops' ? dose.drops * dropGrams : dose.grams,
});

function upgradedLayer(layer: OlderLayer): unknown {
  if (layer.recipe !== undefined) return layer;
  const mixGrams = layer.cups.reduce((sum, cup) => sum + cup.mixGrams, 0);
  const all = layer.cups.flatMap(({ doses = [] }) => doses);
  const ids = new Set(all.flatMap(({ colours }) => colours.map(({ id }) => id)));
  const { share: resinShare } = stockPart(layer.product);
  return {
    ...layer,
    recipe: [...ids].map((id) => {
      const own = all.find((dose) => dose.id === id) ?? all[0]!;
      const grams = all
        .flatMap(({ colours }) => colours)
        .reduce((sum, one) => sum + (one.id === id ? one.grams : 0), 0);
      return {
        id,
        name: own.name,
        dropGrams: own.dropGrams,
        pricePerGram: own.pricePerGram,
        gramsPer100: mixGrams > 0 ? (100 * grams) / mixGrams : 0,
      };
    }),
    stock: layer.stock && {
      ...layer.stock,
      forMixGrams: mixGrams,
      worstError: 0,
      drops: layer.stock.drops.map((one) => ({ ...one, grams: 0 })),
    },
    cups: layer.cups.map(({ doses = [], ...cup }) => ({
      ...cup,
      portions: inOrder(cup.mixGrams, { resinShare }, doses.map(portionOf)),
    })),
  };
}

/** A run's plan as older versions kept it, in today's form; any other value as it is. */
export function upgradedRunPlan(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || !('layers' in value) || !Array.isArray(value.layers)) return value;
  return { ...value, layers: (value.layers as OlderLayer[]).map(upgradedLayer) };
}
