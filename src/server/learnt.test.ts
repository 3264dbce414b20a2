import { join } from 'node:path';
import { learnCommand } from '@/core/formats/learnFile';
import { commandSchema } from '@/core/records/command';
import type { LearntEffect } from '@/core/records/learnt';
import { appendEntry, currentPours } from '@/db/pours';
import { temporaryFolder } from '@/db/testDataFile';
import { withData } from './data';
import { effectAnswer, learntView, recordAnswer } from './learnt';
import { runCommand } from './runCommand';
import { closePool } from './threads/pool';
import { shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'learnt.db');
const BATCH = 'hs-batch-1';
const say = (said: object) => runCommand(commandSchema.parse({ do: 'learn', figure: 'losses', said }), 'log');
const losses = () => learntView().settings.data.losses;
const figure = () => learntView().figures.find(({ id }) => id === 'losses')!;
const shown = () => figure().fields.map(({ now }) => now);

/** Every cup of the sample's first layer as a bench reads it: hardly anything stays in it. */
function readCups(lostGrams: number): void {
  withData((db) => {
    const [pour] = currentPours(db, BATCH);
    const cups = pour!.cups.flatMap((cup) =>
      [0, 1, 2].map((i) => ({
        ...cup,
        number: cup.number * 3 + i,
        pouredGrams: cup.partAGrams + cup.partBGrams! - lostGrams,
        discarded: false,
        doses: [],
        pieces: [{ designId: 'hs-1', copy: 1, tag: 'HS-1', grams: 20 }],
        bench: { read: true, stirMinutes: 3, thickMinutes: null, pieceMinutes: [1] },
      })),
    );
    appendEntry(db, BATCH, { ...pour!, cups }, { struck: false, enteredAt: '2026-11-26T10:00' });
  });
}

beforeAll(async () => {
  shelfView();
  await runCommand(commandSchema.parse({ do: 'sample' }), 'sets');
}, 60_000);
afterAll(closePool);

test('without cups that were read nothing is offered, and nothing can be said to it', async () => {
  expect(learntView().figures.some(({ id }) => id === 'losses')).toBe(false);
  await expect(say({ answer: 'refuse' })).rejects.toThrow('Nothing on record');
});

test('a loss that was learnt is taken over, changes the open plans, is taken back, and comes again', async () => {
  readCups(0.6);
  const before = losses();
  expect(figure().standing).toBe('offered');
  const response = await effectAnswer(new Request('http://127.0.0.1/api/learnt/effect?figure=losses'));
  const { effects } = (await response.json()) as { effects: LearntEffect[] };
  expect(effects.length).toBeGreaterThan(0);
  // Less stays behind: less is mixed for the same pieces.
  for (const { mixGrams, money } of effects) {
    expect(mixGrams.now).toBeLessThan(mixGrams.was);
    expect(money.now).toBeLessThan(money.was);
  }
  const now = shown();
  await say({ answer: 'take', shown: now });
  expect(losses()).toEqual({ perCupGrams: now[0], share: now[1], perPieceGrams: now[2] });
  expect(figure().standing).toBe('taken');
  await runCommand(commandSchema.parse({ do: 'undo', scope: 'log' }), 'log');
  expect(losses()).toEqual(before);
  expect(figure().standing).toBe('offered');
  await say({ answer: 'take', shown: shown() });
  await say({ answer: 'forget' });
  expect(losses()).toEqual(before);
});

test('what is taken over is what was shown: else it is to be looked at again', async () => {
  await expect(say({ answer: 'take', shown: [9, 0.1, 3] })).rejects.toThrow('look at the figure again');
});

test('the record as a file gives the `learn` command the same figures', async () => {
  const { output, exitCode } = learnCommand(await (await recordAnswer()).text());
  expect(exitCode).toBe(0);
  const { figures } = JSON.parse(output) as { figures: { id: string; fields: object[]; counted: number }[] };
  expect(figures.map(({ id, fields, counted }) => ({ id, fields, counted }))).toEqual(
    learntView().figures.map(({ id, fields, counted }) => ({ id, fields, counted })),
  );
});

test('refused it is no more offered; a dot that is turned is left out, turned again it counts', async () => {
  await say({ answer: 'refuse' });
  expect(figure().standing).toBe('refused');
  const { counted, dots } = figure();
  await say({ answer: 'turn', dot: dots[0]!.key });
  expect(figure().counted).toBe(counted - 1);
  await say({ answer: 'turn', dot: dots[0]!.key });
  expect(figure().counted).toBe(counted);
  await expect(say({ answer: 'turn', dot: 'cup 0.0' })).rejects.toThrow('no longer on record');
});

test('a batch that is poured keeps the losses that it was planned with', async () => {
  await say({ answer: 'take', shown: shown() });
  const kept = withData((db) => db.$client.prepare('select request from kept_plans where batch_id = ?').get(BATCH)) as {
    request: string;
  };
  expect((JSON.parse(kept.request) as { losses: { perCupGrams: number } }).losses.perCupGrams).toBe(1.5);
});
