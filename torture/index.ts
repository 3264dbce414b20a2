// npm run torture [kills] [requests]: pulls the plug, sends what nobody should send, fills the disk. Exits with 1 on any loss.
import { mkdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { diceOf } from './dice';
import { fullDisk } from './fullDisk';
import { fuzz } from './fuzz';
import { killLoop } from './kills';
import { runKillLoop } from './runKills';

const [kills = 1000, requests = 10_000, seed = 1] = process.argv.slice(2).map(Number);
const FOLDER = join(tmpdir(), 'aguada-torture');
rmSync(FOLDER, { recursive: true, force: true });
mkdirSync(FOLDER, { recursive: true });

const killed = await killLoop(`${FOLDER}/kills.db`, kills, diceOf(seed));
console.log('kills', { ...killed, wrongAnswers: killed.wrongAnswers.slice(0, 8) });
const running = await runKillLoop(`${FOLDER}/run.db`, Math.ceil(kills / 10), diceOf(seed + 2));
console.log('kills of a run', running);
const fuzzed = await fuzz(`${FOLDER}/fuzz.db`, requests, diceOf(seed + 1));
console.log('requests', { ...fuzzed, defects: fuzzed.defects.slice(0, 10) });
const full = await fullDisk(`${FOLDER}/small`);
console.log('full disk', full ?? 'not tried: no small file system can be made here');

const losses =
  killed.lost +
  killed.doubled +
  killed.halfWritten +
  killed.damaged +
  killed.wrongAnswers.length +
  running.lost +
  running.doubled +
  running.astray +
  running.damaged +
  (running.gramsOff > 0.1 ? 1 : 0) +
  fuzzed.defects.length +
  fuzzed.unreadable +
  (fuzzed.damaged ? 1 : 0) +
  (full ? full.lost + (full.recovered ? 0 : 1) : 0);
console.log(losses === 0 ? '0 lost, 0 defects' : `${losses} LOSSES OR DEFECTS`);
process.exitCode = losses === 0 ? 0 : 1;
