import { PRODUCT_KINDS } from '../mixing/productKinds';
import { layerHandsOnMinutes } from './handsOn';
import { lookMoments, looksAfter } from './looks';
import { allCured, curingOf, recoatWindow, type PouredLayer } from './windows';

const kind = (id: string) => PRODUCT_KINDS.find((one) => one.id === id)!;

describe('minutes at the bench for a layer', () => {
  const layer = { cups: 2, pours: 10, mixGrams: 120, pourGramsPerMinute: 40 };
  test('are setting up, 3 + 1 a cup, pouring, and 0.4 a piece', () =>
    // 15 + 2·(3 + 1) + 120/40 + 10·0.4
    expect(layerHandsOnMinutes(layer)).toBe(30));
  test('two pairs of hands reach for pieces at once', () =>
    expect(layerHandsOnMinutes({ ...layer, hands: 2 })).toBe(28));
  test('a begun minute is a minute', () => expect(layerHandsOnMinutes({ ...layer, mixGrams: 121 })).toBe(31));
});

describe('looks after a pour', () => {
  test('by kind: bubbles where they rise and can be mended, leaks where dams hold what runs', () => {
    expect(looksAfter(kind('coating-epoxy'), true)).toEqual({ bubbles: [10, 15], leaks: [10, 30, 60] });
    expect(looksAfter(kind('coating-epoxy'), false)).toEqual({ bubbles: [10, 15], leaks: [] });
    expect(looksAfter(kind('five-minute-glue'), true).bubbles).toEqual([]);
    expect(looksAfter(kind('clear-drying-glue'), true)).toEqual({ bubbles: [], leaks: [10, 30, 60] });
    expect(looksAfter(kind('light-cured-resin'), true)).toEqual({ bubbles: [], leaks: [] });
  });
  test('one moment for both', () =>
    expect(lookMoments({ bubbles: [10, 15], leaks: [60, 10] })).toEqual([
      { minutes: 10, bubbles: true, leaks: true },
      { minutes: 15, bubbles: true, leaks: false },
      { minutes: 60, bubbles: false, leaks: true },
    ]));
});

describe('windows', () => {
  const label = { recoatOpensMinutes: 60, recoatClosesMinutes: 300, demouldMinutes: 600, fullCureMinutes: 2000 };
  /** Twice as long as on the label. */
  const layer: PouredLayer = { first: 10, last: 40, label, cures: (from, minutes) => from + 2 * minutes };
  test('open from the last piece, close from the first', () => {
    expect(recoatWindow(layer)).toEqual({ opens: 160, closes: 610 });
    expect(recoatWindow({ ...layer, label: { ...label, recoatClosesMinutes: null } }).closes).toBeNull();
  });
  test('all water is firm with the slowest layer, wherever that lies', () => {
    const quick = { ...layer, last: 100, label: { ...label, demouldMinutes: 5, fullCureMinutes: 3000 } };
    expect(allCured([layer, quick], 'demouldMinutes')).toBe(1240);
    expect(allCured([quick, layer], 'fullCureMinutes')).toBe(6100);
  });
  test('a film of nothing still cures as something thin', () => {
    const { cureModel, referenceC, greatestLayerMm } = kind('coating-epoxy');
    expect(curingOf(kind('coating-epoxy'), 0)).toEqual({ cureModel, referenceC, greatestLayerMm, wetMm: 0.01 });
    expect(curingOf(kind('coating-epoxy'), 2.5).wetMm).toBe(2.5);
  });
});
