import { existsSync, openSync, readSync, closeSync, statSync } from 'node:fs';
import { ReadingLines, type Reading } from '@/core/model/readingSchema';
import { addRoomReading, lastRoomReading, openRuns } from '@/db/runs';
import { onTheWall } from './clock';
import { whenFree, withData } from './data';
import { tell } from './live';
import { moments } from './moments';
import { Allowance } from './allowance';
import { answer, RequestError, shortText } from './respond';
import { verdictOnWriting } from './door/gate';
import { takeEvents } from './runs';
import { runMoment } from '@/core/run/views';

/** What instruments said last: kept across hot reloads, and one for all routes. */
interface Heard {
  lines: ReadingLines;
  latest: Partial<Record<Reading['device'], Reading>>;
  watching: boolean;
}
const kept = globalThis as { aguadaReadings?: Heard };
const heard = (): Heard => (kept.aguadaReadings ??= { lines: new ReadingLines(), latest: {}, watching: false });

const MOST_LINES = 200;
/** So many lines a second are taken in the long run, and so many at once: a whole bench of instruments sends fewer. */
const useful = new Allowance(100, 400);
const MOST_BYTES = 100_000;
/** The room is written down when it has changed by so much, or after so long. */
const ROOM_STEP_C = 0.3;
const ROOM_EVERY_MS = 15 * 60_000;

/** What one line came to. */
export interface TakenLine {
  ok: boolean;
  trouble: string | null;
}

/** Takes lines of instruments: tells the windows, writes the room down, lets what is curing know. */
export async function takeLines(lines: readonly unknown[], from: string, now = moments().now()): Promise<TakenLine[]> {
  const taken: TakenLine[] = [];
  for (const line of lines.slice(0, MOST_LINES)) {
    const { reading, trouble } = heard().lines.read(line, now);
    taken.push({ ok: reading !== null, trouble });
    if (!reading) {
      tell({ type: 'trouble', trouble: trouble ?? 'A reading cannot be read.', from });
      continue;
    }
    heard().latest[reading.device] = reading;
    tell({ type: 'reading', reading, from, trouble });
    if (reading.device === 'room') await noteRoom(reading, now);
  }
  return taken;
}

async function noteRoom({ temperatureC, humidity }: Extract<Reading, { device: 'room' }>, now: number): Promise<void> {
  const last = withData(lastRoomReading);
  const changed = !last || Math.abs(last.temperatureC - temperatureC) >= ROOM_STEP_C || now - last.at >= ROOM_EVERY_MS;
  if (!changed) return;
  await whenFree((db) => addRoomReading(db, { wallAt: onTheWall(new Date(now)), at: now, temperatureC, humidity }));
  // What is curing cures by the room as it is read; practice has a room of its own.
  for (const run of withData(openRuns))
    if (run.practiceSpeed === null)
      await takeEvents(run.id, [
        {
          id: `room-${now}-${run.id.slice(0, 8)}`,
          at: runMoment(run, now),
          by: 'sensor',
          type: 'room',
          temperatureC,
          humidity,
        },
      ]);
}

/** Lines as an instrument sends them: one object, a list of them, or one a line. */
function linesOf(text: string): unknown[] {
  try {
    const json: unknown = JSON.parse(text);
    return Array.isArray(json) ? json : [json];
  } catch {
    return text.split(/\r?\n/).filter((line) => line.trim() !== '');
  }
}

/** The open protocol: readings posted by whatever measures. Answers what came of each line. */
export const readingsAnswer = (request: Request): Promise<Response> =>
  answer(async () => {
    const refused = verdictOnWriting(
      '/api/readings',
      request.headers.get('host') ?? '',
      Object.fromEntries(request.headers),
    );
    if (refused) throw new RequestError(refused.status, refused.message);
    const lines = linesOf(await shortText(request, MOST_BYTES));
    if (lines.length === 0) throw new RequestError(400, 'Send one reading a line.');
    if (!useful.take(Math.min(lines.length, MOST_LINES), performance.now()))
      throw new RequestError(429, 'More readings a second than anybody can use. Send ten a second.');
    return { taken: await takeLines(lines, (request.headers.get('x-window') ?? 'instrument').slice(0, 40)) };
  });

export const latestAnswer = (): Promise<Response> => answer(() => ({ latest: heard().latest }));

const LOOK_MS = 200;

/**
 * Follows the file of readings that `AGUADA_READINGS` names, if one is named: what is added to it from now on is taken.
 * What is given back stops it.
 */
export function watchReadings(): () => void {
  const path = process.env['AGUADA_READINGS'];
  if (!path || heard().watching) return () => undefined;
  heard().watching = true;
  const sizeNow = (): number => (existsSync(path) ? statSync(path).size : 0);
  let place = sizeNow();
  let rest = '';
  const timer = setInterval(() => {
    const size = sizeNow();
    // A file that was begun anew is read from its beginning.
    if (size < place) [place, rest] = [0, ''];
    if (size === place) return;
    const buffer = Buffer.alloc(Math.min(size - place, MOST_BYTES));
    const file = openSync(path, 'r');
    try {
      place += readSync(file, buffer, 0, buffer.length, place);
    } finally {
      closeSync(file);
    }
    const lines = (rest + buffer.toString('utf8')).split(/\r?\n/);
    rest = lines.pop() ?? '';
    void takeLines(lines.filter(Boolean), 'file').catch(() => undefined);
  }, LOOK_MS);
  timer.unref();
  return () => {
    clearInterval(timer);
    heard().watching = false;
  };
}
