import { waterStretches } from './waterBuild';
import { splitLayers } from './layers';
import { PRODUCT_KINDS } from './productKinds';
import { waterBuildSchema } from '../model/waterBuildSchema';

const named = (id: string) => PRODUCT_KINDS.find((kind) => kind.id === id)!;
const [slow, coating, lamp] = [named('slow-casting-epoxy'), named('coating-epoxy'), named('light-cured-resin')];
const EVEN = [{ thicknessMm: null, strength: 1 }];

describe('stretches of water', () => {
  test('without coats are the pours themselves', () => {
    const pours = [
      { thicknessMm: 2, strength: 0 },
      { thicknessMm: null, strength: 2 },
    ];
    expect(waterStretches('slow', [], pours)).toEqual([
      { thicknessMm: 2, strength: 0, product: 'slow', coat: 0 },
      { thicknessMm: null, strength: 2, product: 'slow', coat: 0 },
    ]);
  });

  test('end where a coat or a pour does, each at its own depth; what is left clear has no tint', () => {
    const coats = [
      { product: 'lamp', thicknessMm: 1, tint: 'clear' as const },
      { product: 'coating', thicknessMm: 3, tint: 'recipe' as const, plantsBefore: true },
    ];
    const pours = [
      { thicknessMm: 2, strength: 0.5 },
      { thicknessMm: null, strength: 1, own: { ink: 0.3 } },
    ];
    expect(waterStretches('slow', coats, pours)).toEqual([
      { thicknessMm: 1, strength: 0, product: 'lamp', coat: 0 },
      { thicknessMm: 1, strength: 0.5, product: 'coating', coat: 1, plantsBefore: true },
      { thicknessMm: 2, strength: 1, own: { ink: 0.3 }, product: 'coating', coat: 1, plantsBefore: true },
      { thicknessMm: null, strength: 1, own: { ink: 0.3 }, product: 'slow', coat: 2 },
    ]);
  });

  test('of a coat and a pour that end together are not parted twice', () => {
    const coats = [{ product: 'coating', thicknessMm: 2, tint: 'recipe' as const }];
    const pours = [
      { thicknessMm: 2, strength: 0 },
      { thicknessMm: null, strength: 1 },
    ];
    expect(waterStretches('slow', coats, pours).map(({ thicknessMm }) => thicknessMm)).toEqual([2, null]);
  });
});

describe('layers of several products', () => {
  const coats = [
    { product: lamp, thicknessMm: 1, tint: 'clear' as const },
    { product: coating, thicknessMm: 8, tint: 'recipe' as const, plantsBefore: true },
  ];
  const layers = splitLayers(3, 20, slow, waterStretches(slow, coats, EVEN));

  test('are each no thicker than their own product takes, from the bed to the level without a gap', () => {
    expect(layers.map(({ productId = slow.id }) => productId)).toEqual([slow.id, coating.id, coating.id, lamp.id]);
    expect(layers[0]!.fromMm).toBe(3);
    expect(layers.at(-1)!.toMm).toBeCloseTo(20, 9);
    layers.slice(1).forEach(({ fromMm }, i) => expect(fromMm).toBeCloseTo(layers[i]!.toMm, 9));
    for (const { productId = slow.id, wetMm, thicknessMm } of layers) {
      const { greatestLayerMm, shrinkage } = named(productId);
      expect(wetMm).toBeLessThanOrEqual(greatestLayerMm + 1e-9);
      expect(wetMm * (1 - shrinkage)).toBeCloseTo(thicknessMm, 9);
    }
  });
  test('have their plants set before the lowest layer of the coat that wants them, and before no other', () =>
    expect(layers.map(({ plantsBefore = false }) => plantsBefore)).toEqual([false, true, false, false]));
  test('of a coat that is poured in two tints have their plants once, on a shallow bed too, and where ends meet in a fraction', () => {
    const reeds = [
      { product: lamp, thicknessMm: 0.1, tint: 'clear' as const },
      { product: coating, thicknessMm: 0.2, tint: 'recipe' as const, plantsBefore: true },
    ];
    const pours = [{ thicknessMm: 0.3, strength: 0.5 }, ...EVEN];
    const planted = (depthMm: number, tints = pours): (string | undefined)[] =>
      splitLayers(20 - depthMm, 20, slow, waterStretches(slow, reeds, tints))
        .filter(({ plantsBefore }) => plantsBefore)
        .map(({ productId }) => productId);
    // 0.1 + 0.2 is not 0.3 to the last digit.
    expect(planted(5)).toEqual([coating.id]);
    const twice = [{ thicknessMm: 0.2, strength: 0.5 }, ...EVEN];
    expect(planted(5, twice)).toEqual([coating.id]);
    expect(planted(0.15, twice)).toEqual([coating.id]);
  });
  test('of a coat of the product beneath it say no product of their own: they count with the rest', () => {
    const same = [{ product: { ...slow }, thicknessMm: 2, tint: 'clear' as const }];
    const own = splitLayers(3, 20, slow, waterStretches(slow, same, EVEN));
    expect(own.map(({ productId, strength }) => [productId, strength])).toEqual([
      [undefined, 1],
      [undefined, 0],
    ]);
  });
  test('of a shallow bed are the coats only', () => {
    const shallow = splitLayers(18, 20, slow, waterStretches(slow, coats, EVEN));
    expect(shallow.map(({ productId }) => productId)).toEqual([coating.id, lamp.id]);
    expect(shallow[0]!.thicknessMm).toBeCloseTo(1, 9);
  });
});

test.each([
  [{ coats: [{ productId: 'p', thicknessMm: 0, tint: 'clear' }] }, 'coats.0.thicknessMm'],
  [{ coats: Array.from({ length: 5 }, () => ({ productId: 'p', thicknessMm: 1, tint: 'clear' })) }, 'coats'],
  [{ coats: [], finish: { productId: 'p', filmMm: 0.1, coats: 1.5 } }, 'finish.coats'],
])('%j is refused at its field', (build, path) =>
  expect(waterBuildSchema.safeParse(build).error?.issues[0]?.path.join('.')).toBe(path),
);
