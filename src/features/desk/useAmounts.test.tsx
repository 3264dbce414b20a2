/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { amountsKey, fingerprint, type Amounts, type PlanRequest } from '@/core/plan';
import { useAmounts, type Served } from './useAmounts';

/** What the worker was asked for, and how it is made to answer. */
const jobs: { request: PlanRequest; answer: (amounts: Amounts) => void }[] = [];
jest.mock('@/workers/planner', () => ({
  planInWorker: (_lane: symbol, request: PlanRequest) =>
    new Promise<Amounts>((answer) => jobs.push({ request, answer })),
}));

const request = (levelMm: number, pourAt = '2026-11-28T10:00'): PlanRequest =>
  ({
    set: { name: 'Set', levelMm },
    pieces: [],
    bench: { windows: [], exceptions: [] },
    pourAt,
    poured: [],
    clockChanges: [],
  }) as unknown as PlanRequest;
const amounts = (name: string): Amounts => ({ name }) as unknown as Amounts;
const served = (of: PlanRequest, change: Partial<Served<Amounts>> = {}): Served<Amounts> => ({
  from: fingerprint(amountsKey(of)),
  figures: amounts('served'),
  partial: false,
  ...change,
});
const shown = (first: PlanRequest, given: Served<Amounts> | null) =>
  renderHook(({ asked }: { asked: PlanRequest }) => useAmounts(asked, given), { initialProps: { asked: first } });

beforeEach(() => (jobs.length = 0));
// Every browser has it, the one of these tests does not; nothing should be reported here.
globalThis.reportError = (error) => {
  throw error;
};

describe('figures that came with the page', () => {
  test('are shown at once, and nothing is worked out again', () => {
    const { result } = shown(request(15), served(request(15)));
    expect(result.current).toMatchObject({ amounts: amounts('served'), planning: false });
    expect(jobs).toHaveLength(0);
  });
  test('of another level are not shown: a worker makes those of this one', async () => {
    const { result } = shown(request(16), served(request(15)));
    expect(result.current).toMatchObject({ amounts: null, planning: true });
    await act(async () => jobs[0]!.answer(amounts('made')));
    expect(result.current).toMatchObject({ amounts: amounts('made'), planning: false });
  });
  test('hold for another time of pouring: it changes no amount', () => {
    const { result } = shown(request(15, '2026-12-05T18:00'), served(request(15)));
    expect(result.current.amounts).toEqual(amounts('served'));
  });
  test('that are only an extract are shown until the whole is there', async () => {
    const { result } = shown(request(15), served(request(15), { partial: true }));
    expect(result.current).toMatchObject({ amounts: amounts('served'), planning: true });
    await act(async () => jobs[0]!.answer(amounts('whole')));
    expect(result.current).toMatchObject({ amounts: amounts('whole'), planning: false });
  });
  test('that are still to come are waited for, not begun a second time', async () => {
    let arrive: (value: Amounts) => void = () => undefined;
    const later = new Promise<Amounts>((resolve) => (arrive = resolve));
    const { result } = shown(request(15), served(request(15), { figures: { later } }));
    expect(result.current.planning).toBe(true);
    await act(async () => arrive(amounts('late')));
    expect(result.current).toMatchObject({ amounts: amounts('late'), planning: false });
    expect(jobs).toHaveLength(0);
  });
});

describe('after an edit', () => {
  test('the last figures stay until the new ones are there; an answer to an older question is not shown', async () => {
    const { result, rerender } = shown(request(15), served(request(15)));
    rerender({ asked: request(16) });
    rerender({ asked: request(17) });
    expect(result.current).toMatchObject({ amounts: amounts('served'), planning: true });
    await act(async () => jobs[1]!.answer(amounts('of 17')));
    await act(async () => jobs[0]!.answer(amounts('of 16')));
    expect(result.current).toMatchObject({ amounts: amounts('of 17'), planning: false });
  });
});

test('a fingerprint tells texts apart that differ in one place, and is the same for the same', () => {
  const text = JSON.stringify(request(15)).repeat(40);
  const others = Array.from({ length: 400 }, (_, i) => `${text.slice(0, i * 7)}~${text.slice(i * 7 + 1)}`);
  expect(new Set([text, ...others].map(fingerprint)).size).toBe(401);
  expect(fingerprint(text)).toBe(fingerprint(`${text}`));
});
