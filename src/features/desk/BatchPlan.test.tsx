/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import type { ReactElement } from 'react';
import { testPiece } from '@/core/bed/testShapes';
import { planAmounts, planBatch, type Amounts } from '@/core/plan';
import { testRequest } from '@/core/plan/testRequest';
import { BatchPlan } from './BatchPlan';
import type { OpenBatch } from './useBatch';

const request = testRequest({ pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }])] });
const open = (change: Partial<OpenBatch>): OpenBatch => ({
  batch: { id: 'b', version: 1, data: {}, poured: null } as unknown as OpenBatch['batch'],
  detail: null,
  request,
  plan: null,
  planning: true,
  later: null,
  choose: () => undefined,
  ...change,
});
const shown = (change: Partial<OpenBatch>) => (
  <BatchPlan open={open(change)} held={<p>held</p>}>
    {({ plan }) => <p>{`${plan.totals.mixGrams.toFixed(3)} g until ${plan.doneAt}`}</p>}
  </BatchPlan>
);
const plan = planBatch(request);
const words = `${plan.totals.mixGrams.toFixed(3)} g until ${plan.doneAt}`;

test('the held shape stands while nothing is known, the plan as soon as it is', () => {
  const { rerender } = render(shown({}));
  expect(screen.getByText('held')).toBeTruthy();
  rerender(shown({ plan }));
  expect(screen.getByText(words)).toBeTruthy();
});

test('amounts that come in with the page are shown with their times when they arrive, and the same part goes on with the plan', async () => {
  let arrive: (amounts: Amounts) => void = () => undefined;
  const later = new Promise<Amounts>((resolve) => (arrive = resolve));
  let rerender: (ui: ReactElement) => void = () => undefined;
  await act(async () => ({ rerender } = render(shown({ later }))));
  expect(screen.getByText('held')).toBeTruthy();
  await act(async () => arrive(planAmounts(request)));
  const there = screen.getByText(words);
  await act(async () => rerender(shown({ plan, later })));
  expect(screen.getByText(words)).toBe(there);
});
