import { PRODUCT_KINDS } from '../mixing/productKinds';
import { testRequest } from '../plan/testRequest';
import { planAmounts, planTimes } from '../plan';
import { pouredLayers } from './buildRequest';
import type { SetCard } from './views';
import { curingNow, dueWords, nextWork, pouredWork, sortedSets, type PouredWork } from './work';

const poured = (change: Partial<PouredWork> = {}): PouredWork => ({
  batchId: 'b',
  name: 'Boards',
  layers: 1,
  rest: null,
  of: 2,
  opensAt: '2026-11-24T14:00',
  firmAt: '2026-11-25T10:00',
  curedAt: '2026-11-27T10:00',
  ...change,
});
const at = (hour: string): string => `2026-11-24T${hour}`;
const nothing = { designs: 3, poured: [], planned: [], batches: 0, now: at('12:00') };

describe('what comes next on a set', () => {
  test('with nothing drawn: the first piece; with nothing planned: a batch', () => {
    expect(nextWork({ ...nothing, designs: 0 })).toMatchObject({ words: 'Draw the first piece', stage: 'shape' });
    expect(nextWork(nothing)).toMatchObject({ words: 'Plan a batch', stage: 'pour' });
  });
  test('a layer that waits for the one below, from when its recoat window opens', () => {
    const next = nextWork({ ...nothing, batches: 1, poured: [poured()] });
    expect(next).toMatchObject({ stage: 'pour', batchId: 'b', at: at('14:00') });
    expect(next.words).toMatch(/^Pour layer 2 of 2: Boards, from /);
  });
  test('once it is open it says so', () =>
    expect(nextWork({ ...nothing, now: at('15:00'), batches: 1, poured: [poured()] }).words).toBe(
      'Pour layer 2 of 2: Boards, the layer below is ready',
    ));
  test('a batch that is planned before that comes first', () => {
    const planned = [{ batchId: 'c', name: 'Tiles', pourAt: at('13:00') }];
    expect(nextWork({ ...nothing, batches: 2, poured: [poured()], planned })).toMatchObject({ batchId: 'c' });
    const late = [{ batchId: 'c', name: 'Tiles', pourAt: at('18:00') }];
    expect(nextWork({ ...nothing, batches: 2, poured: [poured()], planned: late })).toMatchObject({ batchId: 'b' });
  });
  test('of two planned ones the earlier; one whose time has gone by says what it was planned for', () => {
    const planned = [
      { batchId: 'c', name: 'Late', pourAt: at('18:00') },
      { batchId: 'd', name: 'Gone', pourAt: at('09:00') },
    ];
    const next = nextWork({ ...nothing, batches: 2, planned });
    expect(next.batchId).toBe('d');
    expect(next.words).toContain('planned for');
  });
  test('all poured: nothing is left but the log', () =>
    expect(nextWork({ ...nothing, batches: 1, poured: [poured({ layers: 2 })] })).toMatchObject({ stage: 'log' }));
});

describe('what cures', () => {
  test('until the last of it does', () => {
    const late = poured({ name: 'Tiles', curedAt: '2026-11-27T11:00' });
    const curing = curingNow([poured(), late], at('12:00'))!;
    expect(curing.words).toMatch(/^Tiles and 1 more until /);
    expect(curing.until).toBe('2026-11-27T11:00');
  });
  test('as its plan has it: a slow layer beneath a quick coat is waited for', () => {
    const coat = { product: { ...PRODUCT_KINDS[2]! }, thicknessMm: 1, tint: 'recipe' as const };
    const request = testRequest({ product: PRODUCT_KINDS[0]!, build: { coats: [coat] } });
    const { layers, finish, totals } = planAmounts(request);
    const pours = layers.map(({ number }) => ({ layer: number, pouredAt: `2026-11-2${3 + number}T10:00`, dry: 0 }));
    const batch = { batchId: 'b', name: 'Boards', batch: {}, layers, finish, totals, request };
    const settings = { room: request.room };
    const known = { clockChanges: [], measuredDays: [] };
    const told = (count: number): PouredWork => pouredWork({ ...batch, pours: pours.slice(0, count) }, settings, known);
    const plan = (count: number) =>
      planTimes({ layers, finish, totals }, { ...request, poured: pouredLayers(pours.slice(0, count)) }).cures;
    expect(told(1)).toMatchObject({ layers: 1, of: 2, opensAt: plan(1)[0]!.recoatOpensAt });
    expect(told(2)).toMatchObject({ layers: 2, curedAt: plan(2)[1]!.fullCureAt });
    // Seven days and more for the slow one; the coat alone would be hard a day later.
    expect(told(2).curedAt > '2026-12-01').toBe(true);
    // Of a layer that got into some pieces only, those cure; the rest of it is what comes next, at once.
    const partly = [pours[0]!, { ...pours[1]!, dry: 3 }];
    const rest = pouredWork({ ...batch, pours: partly }, settings, known);
    expect(rest).toMatchObject({ layers: 1, rest: { layer: 2, pours: 3 }, opensAt: pours[1]!.pouredAt });
    expect(rest.curedAt).toBe(told(2).curedAt);
    expect(nextWork({ ...nothing, batches: 1, poured: [rest] }).words).toBe(
      'Pour the rest of layer 2 of 2: Boards, 3 pieces still dry',
    );
  });
  test('nothing, once it has', () => expect(curingNow([poured()], '2026-12-24T12:00')).toBeNull());
});

test.each([
  ['2026-11-24', 'today', false],
  ['2026-11-25', 'in 1 day', false],
  ['2026-12-08', 'in 14 days', false],
  ['2026-11-23', '1 day late', true],
])('due on %s is %s', (due, words, late) => expect(dueWords(due, at('23:50'))).toEqual({ words, late }));

test('sets are sorted by name, by what is next, by when they are due; what has no date comes last', () => {
  const card = (name: string, next: string | null, due: string | null): SetCard =>
    ({ set: { data: { name, job: { due } } }, next: { at: next } }) as unknown as SetCard;
  const sets = [card('b', at('18:00'), null), card('A', null, '2026-12-01'), card('c', at('09:00'), '2026-11-30')];
  const names = (order: Parameters<typeof sortedSets>[1]): string[] =>
    sortedSets(sets, order).map(({ set }) => set.data.name);
  expect(names('name')).toEqual(['A', 'b', 'c']);
  expect(names('next')).toEqual(['c', 'b', 'A']);
  expect(names('due')).toEqual(['c', 'A', 'b']);
  sets.push(card('Set 10', null, null), card('Set 2', null, null));
  expect(names('name')).toEqual(['A', 'b', 'c', 'Set 2', 'Set 10']);
});
