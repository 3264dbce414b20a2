import { mkdirSync, rmSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { diceOf } from '../torture/dice';
import { fullDisk } from '../torture/fullDisk';
import { fuzz } from '../torture/fuzz';
import { killLoop } from '../torture/kills';
import { movedFile } from '../torture/movedFile';
import { otherDevices } from '../torture/otherDevices';
import { runKillLoop } from '../torture/runKills';
import { strangeFiles } from '../torture/strangeFiles';
import { windows } from '../torture/windows';

// A short round of each; `npm run torture` is the long one.
const FOLDER = '.test-tmp/torture';
test.describe.configure({ mode: 'serial' });
test.beforeAll(() => {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
});

test('killed in the middle of edits again and again, nothing that was acknowledged is lost', async () => {
  const { kills, acknowledged, ...bad } = await killLoop(`${FOLDER}/kills.db`, 4, diceOf(7));
  expect(kills).toBe(4);
  expect(acknowledged).toBeGreaterThan(5);
  expect(bad).toEqual({ lost: 0, doubled: 0, halfWritten: 0, damaged: 0, wrongAnswers: [] });
});

test('killed in the middle of a run that two windows press, no press is lost, none comes twice, the grams agree', async () => {
  const { presses, gramsOff, ...bad } = await runKillLoop(`${FOLDER}/run.db`, 3, diceOf(9));
  expect(presses).toBeGreaterThan(60);
  expect(gramsOff).toBeLessThan(0.1);
  expect(bad).toEqual({ kills: 3, lost: 0, doubled: 0, astray: 0, damaged: 0 });
});

test('whatever is sent, it is answered, and never with a defect', async () => {
  const figures = await fuzz(`${FOLDER}/fuzz.db`, 400, diceOf(8));
  expect(figures.defects).toEqual([]);
  expect(figures.requests).toBeGreaterThanOrEqual(400);
  // Some of it is taken: a door that refuses everything would pass as well.
  expect(figures.byStatus['200']).toBeGreaterThan(10);
  expect([figures.unanswered, figures.unreadable, figures.damaged]).toEqual([0, 0, false]);
  expect(figures.slowestBesideSlowClientsMs).toBeLessThan(3000);
});

test('a file that is moved away and back loses nothing, and every page says why it shows nothing', async () => {
  const { requests, edits, ...bad } = await movedFile(`${FOLDER}/moved.db`, 6, diceOf(11));
  expect(requests).toBeGreaterThan(60);
  expect(edits).toBeGreaterThan(5);
  expect(bad).toEqual({ lost: 0, defects: [], silent: [] });
});

test('a full disk is said, and edits go on once there is room', async () => {
  test.skip(process.getuid?.() !== 0, 'Only the machine’s owner may make a small file system');
  const figures = await fullDisk(`${FOLDER}/small`);
  expect(figures!.refusals).toEqual({ 507: 20 });
  expect([figures!.lost, figures!.recovered]).toEqual([0, true]);
  expect(figures!.pagesWhileFull.every((status) => status === 200 || status === 507)).toBe(true);
});

test('another device gets what the table of rights says, by one spelling of each path, for as long as it may', async () => {
  const { requests, streamEndsMs, ...bad } = await otherDevices(`${FOLDER}/devices.db`, 700, diceOf(10));
  expect(requests).toBeGreaterThanOrEqual(700);
  expect(streamEndsMs).toBeLessThan(2000);
  expect(bad).toEqual({ wrong: [], leaked: [], standing: 0 });
});

test('two windows, a batch removed in mid-run, a clock set back: nothing is lost, nothing stands before the last', async () => {
  const { marks, removed, gramsOff, ...bad } = await windows(`${FOLDER}/windows.db`, 6, diceOf(12));
  expect(marks).toBeGreaterThan(5);
  expect(removed).toBeGreaterThan(0);
  expect(gramsOff).toBeLessThan(0.1);
  expect(bad).toEqual({ marksLost: 0, before: 0, silent: 0 });
});

test('files that grow, lie or name odd things, and more readings than anybody can use, are bounded', async () => {
  const { wrong, grewMb, readings } = await strangeFiles(`${FOLDER}/strange.db`, 2, diceOf(13));
  expect(wrong).toEqual([]);
  expect(grewMb).toBeLessThan(250);
  expect(readings.taken).toBeGreaterThan(100);
  expect(readings.refused).toBeGreaterThan(100);
  expect(readings.grewMb).toBeLessThan(250);
});
