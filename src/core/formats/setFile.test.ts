import { edgeStandardSchema } from '../model/edgeStandardSchema';
import { testDesign } from '../bed/testShapes';
import type { z } from 'zod';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { namesIn } from '../model/reference';
import { layerProduct, planAmounts, planSchema } from '../plan';
import { RECORD_SCHEMAS } from '../records/recordSchemas';
import { testRequest } from '../plan/testRequest';
import { setFileSchema, withNewIds, type SetFile } from './setFile';

const { id: _, ...product } = PRODUCT_KINDS[1]!;
const file: SetFile = setFileSchema.parse({
  format: 'aguada.set',
  version: 1,
  set: {
    id: 's',
    data: {
      name: 'Otter Reach',
      figureScaleMm: 28,
      levelMm: 15,
      productId: 'epoxy',
      recipeId: 'peat',
      benchWindows: null,
      job: null,
      row: { pins: [{ piece: { designId: 'd', copy: 2 }, place: 0 }], apart: [] },
    },
  },
  designs: [{ id: 'd', data: testDesign() }],
  pieces: [{ id: 'p', data: { designId: 'd', copy: 1, measured: { atLevelMm: 15, readings: [], fillMl: 30 } } }],
  batches: [
    {
      id: 'b',
      data: {
        name: 'B',
        items: [{ designId: 'd', copies: 2 }],
        pourAt: '2026-11-26T10:00',
        benchWindows: null,
        own: { fillerId: 'd' },
      },
      bench: null,
    },
  ],
  shelf: {
    products: [{ id: 'epoxy', data: product }],
    recipes: [{ id: 'peat', data: { name: 'Peat', doses: [{ colourantId: 'ink', gramsPer100: 0.1 }] } }],
    colourants: [],
  },
});

test('new ids reach whatever names a record, and nothing else', () => {
  const renewed = withNewIds(file, (id) => (id === 'd' || id === 'ink' ? `${id}-2` : id));
  expect(renewed.designs[0]!.id).toBe('d-2');
  expect(renewed.pieces[0]!.data.designId).toBe('d-2');
  expect(renewed.batches[0]!.data.items[0]!.designId).toBe('d-2');
  expect(renewed.batches[0]!.data.own).toEqual({ fillerId: 'd-2' });
  expect(renewed.set.data.row!.pins[0]!.piece).toEqual({ designId: 'd-2', copy: 2 });
  expect(renewed.shelf.recipes[0]!.data.doses[0]!.colourantId).toBe('ink-2');
  expect([renewed.set.id, renewed.set.data.productId]).toEqual(['s', 'epoxy']);
  // Renewed back it is the same again, to the letter.
  expect(withNewIds(renewed, (id) => id.replace(/-2$/, ''))).toEqual(file);
});

test('every field that names a record by its id is declared as a reference', () => {
  const named: string[] = [];
  const walk = (schema: z.core.$ZodType, at: string, seen: readonly z.core.$ZodType[]): void => {
    if (seen.includes(schema)) return;
    const { def } = schema._zod as unknown as { def: Record<string, unknown> };
    for (const [key, part] of Object.entries((def.shape as Record<string, z.core.$ZodType> | undefined) ?? {})) {
      if (/.Ids?$/.test(key) && namesIn(part).length === 0) named.push(`${at}.${key}`);
      walk(part, `${at}.${key}`, [...seen, schema]);
    }
    const inner = [def.element, def.innerType, def.in, def.out, def.valueType, def.left, def.right];
    for (const part of [...inner, ...((def.options as unknown[]) ?? [])])
      if (part) walk(part as z.core.$ZodType, at, [...seen, schema]);
  };
  for (const [kind, schema] of Object.entries(RECORD_SCHEMAS)) walk(schema, kind, []);
  walk(setFileSchema, 'set file', []);
  walk(planSchema, 'plan', []);
  expect(named).toEqual([]);
});

test('standards and tables go by their new ids, on the edges too', () => {
  const standard = edgeStandardSchema.parse({
    id: 'a/b',
    name: 'Creek',
    edgeMm: 140,
    portMm: 70,
    widthMm: 56,
    depthMm: 6,
    section: 'trapezoid',
    bankSlope: 1,
    levelMm: 15,
    bankMm: 18,
    toleranceMm: 0.5,
    blendMm: 12,
  });
  const odd: SetFile = {
    ...file,
    set: { ...file.set, data: { ...file.set.data, standards: [standard] } },
    designs: [{ id: 'd', data: { ...testDesign(), edgeStandards: { east: 'a/b' } } }],
  };
  const renewed = withNewIds(odd, (id) => (id === 'a/b' ? 'plain' : id));
  expect(renewed.set.data.standards![0]!.id).toBe('plain');
  expect(renewed.designs[0]!.data.edgeStandards).toEqual({ east: 'plain' });
});

test('a plan that was kept keeps to itself: its products and colourants go by their new ids, in every cup', () => {
  const [coating, slow] = ['coating-epoxy', 'slow-casting-epoxy'].map((id) =>
    PRODUCT_KINDS.find((kind) => kind.id === id)!,
  );
  const ink = {
    id: 'ink',
    name: 'Ink',
    kind: 'ink' as const,
    absorption: { red: 1, green: 0.3, blue: 0.7 },
    dropGrams: 0.035,
    bottleGrams: 30,
    bottlePrice: 6,
  };
  const request = testRequest({
    product: slow!,
    build: { coats: [{ product: coating!, thicknessMm: 1, tint: 'recipe' }] },
    recipe: {
      id: 'peat',
      name: 'Peat',
      doses: [{ colourant: ink, gramsPer100: 0.1 }],
      pours: [
        { thicknessMm: 1, strength: 1 },
        { thicknessMm: null, strength: 1, own: { ink: 0.3 } },
      ],
    },
  });
  const kept = { request, amounts: planAmounts(request) };
  const renewed = withNewIds({ ...file, batches: [{ ...file.batches[0]!, bench: { kept, entries: [] } }] }, (id) =>
    ['ink', 'coating-epoxy', 'slow-casting-epoxy', 'peat'].includes(id) ? `${id}-2` : id,
  );
  const { request: own, amounts } = renewed.batches[0]!.bench!.kept!;
  expect(planAmounts(own)).toEqual(amounts);
  expect(amounts.layers.map((layer) => layerProduct(own, layer).id)).toEqual([
    'slow-casting-epoxy-2',
    'coating-epoxy-2',
  ]);
});

test('a file of another kind, or with something that cannot be, is refused', () => {
  expect(setFileSchema.safeParse({ ...file, format: 'aguada.plan' }).success).toBe(false);
  const broken = { ...file, designs: [{ id: 'd', data: { ...testDesign(), copies: 0 } }] };
  expect(setFileSchema.safeParse(broken).error?.issues[0]?.path).toEqual(['designs', 0, 'data', 'copies']);
});
