import { testPiece } from '../bed/testShapes';
import { planBatch } from '../plan';
import { testRequest } from '../plan/testRequest';
import { besideBatches, type BatchBeside } from './besideBatches';
import type { PourRecord, WeighedCup } from './recordSchemas';

const request = testRequest({
  pieces: [{ ...testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }]), copies: 2 }],
});
const amounts = planBatch(request);
const { designId } = amounts.pieces[0]!;
/** A batch that went as it was planned, unless told otherwise: its cups, its room, its looks. */
function batch(
  name: string,
  cup: Partial<WeighedCup> = {},
  pour: Partial<PourRecord> = {},
  found: 'tacky' | null = null,
  went: Partial<BatchBeside['went']> = {},
): BatchBeside {
  const cups = amounts.layers[0]!.cups.map(({ number, parts, pours }) => ({
    number,
    partAGrams: parts!.partAGrams,
    partBGrams: parts!.partBGrams,
    note: '',
    pieces: pours.map((one) => ({ designId, copy: one.copy, tag: one.tag, grams: one.grams })),
    ...cup,
  }));
  return {
    record: {
      request,
      amounts,
      pours: [{ layer: 1, pouredAt: '2026-11-28T10:00', temperatureC: 20, note: '', cups, ...pour }],
      runs: [],
      days: [],
      monthsPast: [],
    },
    batch: {
      name,
      items: [{ designId, copies: 2 }],
      pourAt: '2026-11-28T10:00',
      benchWindows: null,
      ...(found && {
        inspections: [
          { designId, copy: 1, at: '2026-12-01T10:00', findings: [{ kind: found }], outcome: 'mend', note: '' },
        ],
      }),
    },
    went: {
      batchId: name,
      name,
      setId: 's',
      set: 'Creek',
      at: '2026-11-28T10:00',
      mixedGrams: 100,
      lostGrams: 3,
      money: null,
      pieces: 2,
      looked: 0,
      passed: 0,
      offMm: null,
      colourApart: null,
      timesReckoned: null,
      stepMm: null,
      curedShare: null,
      ...went,
    },
  };
}
const row = (rows: ReturnType<typeof besideBatches>, what: string) => rows.find((one) => one.what === what);

test('two that went alike differ in nothing, and what nobody recorded is not there', () => {
  const rows = besideBatches(batch('a'), batch('b'));
  expect(rows.every(({ apart }) => apart === 0)).toBe(true);
  expect(row(rows, 'Coldest while it hardened')).toBeUndefined();
  expect(row(rows, 'Cups')).toMatchObject({ a: '1', b: '1' });
  expect(rows.every(({ how }) => how.length > 10)).toBe(true);
});

test('what is most different comes first: by how many steps that a maker would notice', () => {
  const parts = amounts.layers[0]!.cups[0]!.parts!;
  const off = { partAGrams: parts.partAGrams * 1.05 };
  const rows = besideBatches(batch('a', off, { temperatureC: 17 }), batch('b', {}, {}, null, { lostGrams: 4.4 }));
  expect(rows.filter(({ apart }) => apart > 0).map(({ what }) => what)).toEqual([
    'Part A to part B, off the label',
    'Room at the pour',
    'Lost of that',
  ]);
  expect(row(rows, 'Part A to part B, off the label')).toMatchObject({ a: '5.0 %', b: '0.0 %' });
  expect(row(rows, 'Room at the pour')!.apart).toBeCloseTo(3, 9);
});

test('less than a maker would notice is the same; what is known of one alone is not held against the other', () => {
  const rows = besideBatches(batch('a', {}, { temperatureC: 19.5 }), batch('b', {}, {}, null, { timesReckoned: 1.4 }));
  expect(row(rows, 'Room at the pour')!.apart).toBe(0);
  expect(row(rows, 'Minutes against what was reckoned')).toMatchObject({ a: null, b: '× 1.40', apart: 0 });
});

test('findings are told with on how many pieces', () => {
  expect(row(besideBatches(batch('a', {}, {}, 'tacky'), batch('b')), 'Found')).toMatchObject({
    a: expect.stringMatching(/ on 1$/) as string,
    b: 'nothing',
  });
});
