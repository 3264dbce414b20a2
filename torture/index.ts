// npm run torture [kills, of edits and as many of a run] [requests]: pulls the plug, sends what nobody should send, fills the disk.
// Exits with 1 on any loss.
import { mkdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { diceOf } from './dice';
import { fullDisk } from './fullDisk';
import { fuzz } from './fuzz';
import { killLoop } from './kills';
import { movedFile } from './movedFile';
import { otherDevices } from './otherDevices';
import { runKillLoop } from './runKills';
import { strangeFiles, type StrangeFileFigures } from './strangeFiles';
import { windows } from './windows';

const [kills = 500, requests = 20_000, seed = 1] = process.argv.slice(2).map(Number);
const FOLDER = join(tmpdir(), 'aguada-torture');
rmSync(FOLDER, { recursive: true, force: true });
mkdirSync(FOLDER, { recursive: true });

/** What each round comes to, and how many of its figures are losses or defects. */
const rounds: Record<string, () => Promise<[figures: unknown, bad: number]>> = {
  kills: async () => {
    const figures = await killLoop(`${FOLDER}/kills.db`, kills, diceOf(seed));
    const { lost, doubled, halfWritten, damaged, wrongAnswers } = figures;
    return [
      { ...figures, wrongAnswers: wrongAnswers.slice(0, 8) },
      lost + doubled + halfWritten + damaged + wrongAnswers.length,
    ];
  },
  'kills of a run': async () => {
    const figures = await runKillLoop(`${FOLDER}/run.db`, kills, diceOf(seed + 2));
    const { lost, doubled, astray, damaged, gramsOff } = figures;
    return [figures, lost + doubled + astray + damaged + (gramsOff > 0.1 ? 1 : 0)];
  },
  requests: async () => {
    const figures = await fuzz(`${FOLDER}/fuzz.db`, requests, diceOf(seed + 1));
    const { defects, unreadable, damaged } = figures;
    return [{ ...figures, defects: defects.slice(0, 10) }, defects.length + unreadable + (damaged ? 1 : 0)];
  },
  'other devices': async () => {
    const figures = await otherDevices(`${FOLDER}/devices.db`, requests, diceOf(seed + 3));
    const { wrong, leaked, standing, streamEndsMs } = figures;
    return [
      { ...figures, wrong: wrong.slice(0, 10), leaked: leaked.slice(0, 10) },
      wrong.length + leaked.length + standing + (streamEndsMs > 2000 ? 1 : 0),
    ];
  },
  'moved file': async () => {
    const figures = await movedFile(`${FOLDER}/moved.db`, Math.ceil(kills / 5), diceOf(seed + 4));
    const { lost, defects, silent } = figures;
    return [{ ...figures, defects: defects.slice(0, 10) }, lost + defects.length + silent.length];
  },
  'two windows, removals, clock': async () => {
    const figures = await windows(`${FOLDER}/windows.db`, Math.ceil(kills / 10), diceOf(seed + 5));
    const { marksLost, gramsOff, before, silent } = figures;
    return [figures, marksLost + before + silent + (gramsOff > 0.1 ? 1 : 0)];
  },
  'strange files, a flood of readings': async () => {
    const figures = await strangeFiles(`${FOLDER}/strange.db`, Math.ceil(kills / 25), diceOf(seed + 6));
    return [{ ...figures, wrong: figures.wrong.slice(0, 10) }, figures.wrong.length + badGrowth(figures)];
  },
  'full disk': async () => {
    const full = await fullDisk(`${FOLDER}/small`);
    if (!full) return ['not tried: no small file system can be made here', 0];
    return [full, full.lost + (full.recovered ? 0 : 1)];
  },
};

/** What a server may grow by while it refuses things. */
const MOST_GROWN_MB = 250;
const badGrowth = ({ grewMb, readings }: StrangeFileFigures): number =>
  (grewMb > MOST_GROWN_MB ? 1 : 0) + (readings.grewMb > MOST_GROWN_MB ? 1 : 0) + (readings.refused > 0 ? 0 : 1);

let losses = 0;
for (const [name, round] of Object.entries(rounds)) {
  const [figures, bad] = await round();
  console.log(name, figures);
  losses += bad;
}
console.log(losses === 0 ? '0 lost, 0 defects' : `${losses} LOSSES OR DEFECTS`);
process.exitCode = losses === 0 ? 0 : 1;
