import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { DEFAULT_DROP_GRAMS, type Colourant, type Recipe } from '@/core/model/recipeSchema';
import { LEVEL_BENCH } from '@/core/plan/request';
import { METRIC } from '@/core/units/formatMeasure';
import { TYPICAL_LOSSES } from '@/core/mixing/losses';
import { DEFAULT_CALENDAR, type Settings } from '@/core/records/recordSchemas';
import type { Database } from './storage';
import { STORAGE } from './records';

/** There is one workshop. */
export const SETTINGS_ID = 'workshop';

export const DEFAULT_SETTINGS: Settings = {
  units: METRIC,
  room: { temperatureC: 20, humidity: 0.5 },
  cupGrams: 180,
  scaleStepGrams: 0.1,
  pricePerCup: 0.06,
  tilt: LEVEL_BENCH,
  benchWindows: [],
  benchExceptions: [],
  measureBy: 'weight',
  calendar: DEFAULT_CALENDAR,
  losses: TYPICAL_LOSSES,
};

const bottle = { dropGrams: DEFAULT_DROP_GRAMS, bottleGrams: 30, bottlePrice: 5 };

/** Typical colourants by kind; the absorption is a first guess until a swatch is measured. */
export const COLOURANTS: Record<string, Colourant> = {
  'deep-green-ink': {
    ...bottle,
    name: 'Deep green ink',
    kind: 'ink',
    absorption: { red: 1.15, green: 0.32, blue: 0.72 },
  },
  'raw-umber-ink': {
    ...bottle,
    name: 'Raw umber ink',
    kind: 'ink',
    absorption: { red: 0.42, green: 0.82, blue: 1.35 },
  },
  'sea-blue-dye': {
    ...bottle,
    name: 'Sea blue resin dye',
    kind: 'resin dye',
    absorption: { red: 1.7, green: 0.46, blue: 0.12 },
  },
  'turquoise-alcohol-ink': {
    ...bottle,
    name: 'Turquoise alcohol ink',
    kind: 'alcohol ink',
    absorption: { red: 1.4, green: 0.16, blue: 0.26 },
    bottleGrams: 15,
  },
  'peat-wash': {
    ...bottle,
    name: 'Peat brown wash',
    kind: 'wash',
    absorption: { red: 0.16, green: 0.36, blue: 0.62 },
    bottleGrams: 24,
    bottlePrice: 4,
  },
  'white-paint': {
    ...bottle,
    name: 'White acrylic paint',
    kind: 'acrylic paint',
    absorption: { red: 0.02, green: 0.02, blue: 0.025 },
    scattering: { red: 1.6, green: 1.7, blue: 1.8 },
    dropGrams: 0.05,
    bottleGrams: 60,
    bottlePrice: 4,
  },
};

const RECIPES: Record<string, Recipe> = {
  clear: { name: 'Clear', doses: [] },
  'creek-green': {
    name: 'Creek green',
    doses: [
      { colourantId: 'deep-green-ink', gramsPer100: 0.12 },
      { colourantId: 'raw-umber-ink', gramsPer100: 0.07 },
    ],
  },
  'lagoon-blue': {
    name: 'Lagoon blue',
    doses: [
      { colourantId: 'sea-blue-dye', gramsPer100: 0.07 },
      { colourantId: 'turquoise-alcohol-ink', gramsPer100: 0.05 },
    ],
  },
  'bog-brown': { name: 'Bog brown', doses: [{ colourantId: 'peat-wash', gramsPer100: 0.5 }] },
};

/** Fills a new data file's shelf with typical products, colourants and recipes. False when there is a shelf already. */
export function stockShelf(db: Database, now: string): boolean {
  return db.transaction(
    (tx) => {
      if (STORAGE.settings.image(tx, SETTINGS_ID)) return false;
      const put = (
        kind: 'settings' | 'product' | 'colourant' | 'recipe',
        id: string,
        position: number,
        data: unknown,
      ): void => STORAGE[kind].write(tx, id, { position, data, setId: null }, 1, now);
      put('settings', SETTINGS_ID, 0, DEFAULT_SETTINGS);
      PRODUCT_KINDS.forEach(({ id, ...product }, i) => put('product', id, i, product));
      Object.entries(COLOURANTS).forEach(([id, colourant], i) => put('colourant', id, i, colourant));
      Object.entries(RECIPES).forEach(([id, recipe], i) => put('recipe', id, i, recipe));
      return true;
    },
    { behavior: 'immediate' },
  );
}
