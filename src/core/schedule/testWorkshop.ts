import { PRODUCT_KINDS } from '../mixing/productKinds';
import type { BatchFacts, ProductFacts } from './facts';
import { EVENINGS } from './testSchedules';
import { FIRST_WORKPLACE, type CalendarBatch, type CalendarWorkshop, type Workplace } from './workplace';

/** The figures of a kind of product that ships, for a layer of so many mm. */
export function productFactsOf(id: string, wetMm: number): ProductFacts {
  const kind = PRODUCT_KINDS.find((one) => one.id === id)!;
  const { name, cureModel, referenceC, greatestLayerMm, potLifeMinutes } = kind;
  const { recoatOpensMinutes, recoatClosesMinutes, demouldMinutes, fullCureMinutes } = kind;
  return {
    name,
    potLifeMinutes,
    recoatOpensMinutes,
    recoatClosesMinutes,
    demouldMinutes,
    fullCureMinutes,
    curing: { cureModel, referenceC, greatestLayerMm, wetMm },
  };
}

/** Twelve tiles behind dams, two layers of coating epoxy, unless told otherwise. */
export const testFacts = (change: Partial<BatchFacts> = {}, productId = 'coating-epoxy', layers = 2): BatchFacts => ({
  pieces: 12,
  levelCm2: 3000,
  dammed: 12,
  moulds: 0,
  rocks: 0,
  plantsFirst: false,
  colour: '#335544',
  roomC: 20,
  finish: null,
  leastC: 15,
  layers: Array.from({ length: layers }, (_, i) => ({
    number: i + 1,
    product: productFactsOf(productId, 3),
    handsOnMinutes: 45,
    plantsBefore: false,
    mixGrams: 200,
    cups: 3,
    shortestPotLifeMinutes: 22,
    pouredAt: null,
    pouredUntil: null,
    begunAt: null,
  })),
  ...change,
});

export const testBatch = (id: string, change: Partial<CalendarBatch> = {}): CalendarBatch => ({
  id,
  version: 1,
  setId: 's',
  set: 'Set',
  name: `Batch ${id}`,
  due: null,
  facts: testFacts(),
  route: null,
  course: { marks: [] },
  ...change,
});

/** Evenings and a Saturday, 20 °C by day, 17 °C by night. */
export const testWorkshop = (workplace: Partial<Workplace> = {}, now = '2026-11-23T12:00'): CalendarWorkshop => ({
  room: { temperatureC: 20, humidity: 0.5 },
  benchWindows: EVENINGS,
  benchExceptions: [],
  workplace: { ...FIRST_WORKPLACE, nightC: 17, ...workplace },
  now,
  clockChanges: [],
});
