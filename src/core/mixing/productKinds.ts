import type { Product } from './product';

const HOUR = 60;
const DAY = 24 * HOUR;

const twoPart = { cureModel: 'two-part', mostLayers: null, referenceC: 23, shelfLifeMonths: 12 } as const;
const onePart = { parts: null, mostLayers: null, referenceC: 23 } as const;

/**
 * Typical figures per kind of product, no maker's in particular. Prices are round figures to start from.
 * The density of a two-part product here is that of its mix.
 */
export const PRODUCT_KINDS: readonly Product[] = [
  { ...twoPart, name: 'Slow casting epoxy', parts: { ratioA: 2, ratioB: 1, ratioBy: 'volume', densityA: 1.12, densityB: 1.0 }, density: 1.08, potLifeMinutes: 60, greatestLayerMm: 25, recoatOpensMinutes: 8 * HOUR, recoatClosesMinutes: DAY, demouldMinutes: 2 * DAY, fullCureMinutes: 7 * DAY, shrinkage: 0.01, pourGramsPerMinute: 60, packGrams: 1500, packPrice: 48 },
  { ...twoPart, name: 'Coating epoxy', parts: { ratioA: 1, ratioB: 1, ratioBy: 'volume', densityA: 1.16, densityB: 1.02 }, density: 1.09, potLifeMinutes: 25, greatestLayerMm: 5, recoatOpensMinutes: 4 * HOUR, recoatClosesMinutes: 16 * HOUR, demouldMinutes: DAY, fullCureMinutes: 3 * DAY, shrinkage: 0.015, pourGramsPerMinute: 45, packGrams: 1000, packPrice: 38 },
  { ...twoPart, name: 'Quick clear epoxy', parts: { ratioA: 2, ratioB: 1, ratioBy: 'weight', densityA: 1.13, densityB: 1.0 }, density: 1.083, potLifeMinutes: 15, greatestLayerMm: 6, recoatOpensMinutes: 2 * HOUR, recoatClosesMinutes: 6 * HOUR, demouldMinutes: 6 * HOUR, fullCureMinutes: DAY, shrinkage: 0.02, pourGramsPerMinute: 45, packGrams: 300, packPrice: 21 },
  { ...twoPart, name: 'Five-minute glue', parts: { ratioA: 1, ratioB: 1, ratioBy: 'volume', densityA: 1.17, densityB: 1.12 }, density: 1.145, potLifeMinutes: 4.5, greatestLayerMm: 5, recoatOpensMinutes: 20, recoatClosesMinutes: 4 * HOUR, demouldMinutes: 25, fullCureMinutes: DAY, shrinkage: 0.02, pourGramsPerMinute: 30, shelfLifeMonths: 36, packGrams: 100, packPrice: 12 },
  { ...onePart, name: 'Light-cured resin', cureModel: 'lamp', density: 1.12, potLifeMinutes: 60, greatestLayerMm: 2.5, recoatOpensMinutes: 3, recoatClosesMinutes: DAY, demouldMinutes: 3, fullCureMinutes: DAY, shrinkage: 0.04, pourGramsPerMinute: 20, shelfLifeMonths: 9, packGrams: 200, packPrice: 24 },
  { ...onePart, name: 'Clear-drying glue', cureModel: 'water-borne', mostLayers: 3, density: 1.07, potLifeMinutes: 20, greatestLayerMm: 1, recoatOpensMinutes: 12 * HOUR, recoatClosesMinutes: null, demouldMinutes: 12 * HOUR, fullCureMinutes: DAY, shrinkage: 0.5, pourGramsPerMinute: 30, shelfLifeMonths: 24, packGrams: 500, packPrice: 9 },
  { ...onePart, name: 'Water-borne gel', cureModel: 'water-borne', density: 1.05, potLifeMinutes: 30, greatestLayerMm: 2, recoatOpensMinutes: DAY, recoatClosesMinutes: null, demouldMinutes: DAY, fullCureMinutes: 2 * DAY, shrinkage: 0.55, pourGramsPerMinute: 25, shelfLifeMonths: 24, packGrams: 250, packPrice: 14 },
  { ...onePart, name: 'Clear sealant', cureModel: 'open-air', density: 1.05, potLifeMinutes: 15, greatestLayerMm: 3, recoatOpensMinutes: 2 * HOUR, recoatClosesMinutes: DAY, demouldMinutes: DAY, fullCureMinutes: 2 * DAY, shrinkage: 0.02, pourGramsPerMinute: 20, shelfLifeMonths: 12, packGrams: 300, packPrice: 11 },
  { ...onePart, name: 'Gloss medium', cureModel: 'water-borne', density: 1.04, potLifeMinutes: 8, greatestLayerMm: 0.5, recoatOpensMinutes: 2 * HOUR, recoatClosesMinutes: null, demouldMinutes: 4 * HOUR, fullCureMinutes: DAY, shrinkage: 0.5, pourGramsPerMinute: 15, shelfLifeMonths: 24, packGrams: 250, packPrice: 10 },
];
