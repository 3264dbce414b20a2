import { z } from 'zod';
import { clocksOf, ringing } from '../run/clocks';
import { buildRun } from '../run/buildRun';
import { balanceOf, layerRecord, layersBegun } from '../run/record';
import { RunBook } from '../run/replay';
import type { RunState } from '../run/runState';
import { REFUSAL_WORDS, onScale, stepWords } from '../run/say';
import { runEventSchema, type RunEvent } from '../run/runSchema';
import { batchFacts } from '../schedule/facts';
import { planBatch, planRequestSchema } from '../plan';
import { commandFailed, readJson, roundedJson, stopsOf, type CommandResult } from './planFile';

/** Seconds since the run began: a number, or `mm:ss`, or `h:mm:ss`. */
const secondsSchema = z.union([
  z.number().min(0).max(10_000_000),
  z
    .string()
    .regex(/^(\d+:)?\d{1,3}:\d{2}$/, 'Seconds, or a time such as 12:30')
    .transform((text) => text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)),
]);

const grams = z.number().min(0).max(100_000);

/** What a line of the file says: a press, a reading of the scale or of the room, or any event of a run. */
const lineSchema = z.union([
  z.object({
    at: secondsSchema,
    /** `done` for the large button; what else can be pressed goes by the name of its event. */
    press: z.enum(['done', 'back', 'skip', 'drop', 'accept', 'mend', 'discard', 'more']),
    grams: grams.optional(),
    onPiece: z.boolean().optional(),
    why: z.string().max(200).optional(),
  }),
  z.object({ at: secondsSchema, scale: z.number().min(-100_000).max(100_000) }),
  z.object({ at: secondsSchema, roomC: z.number().min(-20).max(60), humidity: z.number().min(0).max(1).optional() }),
  z.object({ at: secondsSchema, answer: z.string().min(1).max(200), clock: z.string().max(80).optional() }),
  z.object({ at: secondsSchema, note: z.string().min(1).max(500) }),
  z.object({ at: secondsSchema, event: z.record(z.string(), z.unknown()) }),
]);

/** A plan and what was pressed and read at the bench: what the `run` command plays. */
export const runFileSchema = z.object({
  format: z.literal('aguada.run', { error: 'Must be "aguada.run"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  request: planRequestSchema,
  name: z.string().max(60).default('Run'),
  by: z.enum(['weight', 'volume']).default('weight'),
  lines: z.array(lineSchema).max(20_000),
});
export type RunFile = z.infer<typeof runFileSchema>;

/** What the bench said at one moment. */
interface Said {
  at: string;
  what: string;
  says: string;
}

const clockText = (seconds: number): string => {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  return `${h}:${String(m).padStart(2, '0')}:${String(s).padStart(2, '0')}`;
};

/** Plays a file of presses and readings against its plan: what the bench would have said, where the grams went, what the log takes. */
export function playRun(file: RunFile): object {
  const amounts = planBatch(file.request);
  const plan = buildRun({
    name: file.name,
    request: file.request,
    amounts,
    by: file.by,
    filler: null,
    facts: batchFacts(file.request, amounts),
    now: file.request.pourAt,
  });
  const book = new RunBook(plan, 0);
  const said: Said[] = [];
  const rung = new Set<string>();
  let reading: number | null = null;
  const say = (seconds: number, what: string, says: string): void =>
    void said.push({ at: clockText(seconds), what, says });
  /** Clocks that ring before a moment ring at their own. */
  const ringUntil = (seconds: number): void => {
    for (const clock of ringing(clocksOf(book.state()), seconds * 1000))
      if (!rung.has(clock.id)) {
        rung.add(clock.id);
        say(clock.due / 1000, `rings: ${clock.name}`, clock.words);
      }
  };
  const next = (state: RunState): string => {
    if (state.over) return `The run is ${state.over.how}.`;
    if (state.pending)
      return `${state.pending.grams.toFixed(1)} g is ${state.pending.verdict}: accept, mend, discard or more.`;
    const words = stepWords(state, state.current!);
    const stop = onScale(state, state.current!);
    return [
      words.where,
      words.title,
      words.under,
      stop && file.by === 'weight' ? `stop at ${stop.stopGrams.toFixed(1)} g` : '',
    ]
      .filter(Boolean)
      .join(' · ');
  };
  say(0, 'begins', next(book.state()));
  file.lines.forEach((line, i) => {
    ringUntil(line.at);
    const stamp = { id: `line-${String(i).padStart(8, '0')}`, at: Math.round(line.at * 1000), by: 'file' };
    if ('scale' in line) {
      reading = line.scale;
      return;
    }
    const state = book.state();
    const event = eventOf(line, state, stamp, reading);
    if (typeof event === 'string') return say(line.at, wordsOf(line), event);
    const refused = book.apply(event);
    // A reading counts for the press after it, not for those that follow.
    reading = null;
    say(line.at, wordsOf(line), refused ? `Not taken: ${REFUSAL_WORDS[refused]}` : next(book.state()));
  });
  const state = book.state();
  return {
    said,
    balance: balanceOf(state),
    layers: layersBegun(state).map((layer) => layerRecord(state, layer)),
    waiting: clocksOf(state).map(({ id, name, words, due }) => ({ id, name, words, at: clockText(due / 1000) })),
  };
}

type Line = RunFile['lines'][number];

const wordsOf = (line: Line): string =>
  'press' in line
    ? `press ${line.press}`
    : 'answer' in line
      ? `answer: ${line.answer}`
      : 'note' in line
        ? `note: ${line.note}`
        : 'roomC' in line
          ? `room ${line.roomC} °C`
          : 'event';

/** The event that a line means as the run stands; a text where it cannot be one. */
function eventOf(
  line: Exclude<Line, { scale: number }>,
  state: RunState,
  stamp: { id: string; at: number; by: string },
  reading: number | null,
): RunEvent | string {
  if ('event' in line) {
    const read = runEventSchema.safeParse({ ...line.event, ...stamp });
    return read.success ? read.data : `Not an event: ${read.error.issues[0]?.message ?? ''}`;
  }
  if ('note' in line) return { ...stamp, type: 'note', text: line.note };
  if ('roomC' in line) return { ...stamp, type: 'room', temperatureC: line.roomC, humidity: line.humidity ?? null };
  if ('answer' in line) {
    const clock = line.clock ?? ringing(clocksOf(state), stamp.at)[0]?.id;
    return clock ? { ...stamp, type: 'answer', clock, did: line.answer } : 'Nothing rings.';
  }
  const { current } = state;
  if (!current) return 'The run is over.';
  const step = current.id;
  switch (line.press) {
    case 'done': {
      const given = line.grams ?? gramsRead(state, reading, line.onPiece ?? false);
      return {
        ...stamp,
        type: 'done',
        step,
        ...(given !== null && { grams: given }),
        ...(line.onPiece && { onPiece: true }),
        ...(line.why && { anyway: line.why }),
      };
    }
    case 'back':
      return { ...stamp, type: 'back', step };
    case 'skip':
      return { ...stamp, type: 'skip', step, ...(line.why && { why: line.why }) };
    case 'drop':
      return { ...stamp, type: 'drop', step, count: 1 };
    case 'discard':
      if (!state.pending && 'cup' in current)
        return { ...stamp, type: 'discard', cup: current.cup, why: line.why ?? 'discarded' };
      return { ...stamp, type: 'decide', step, choice: 'discard' };
    default:
      return { ...stamp, type: 'decide', step, choice: line.press };
  }
}

/** What the last reading says of the current step: how much more, or less, than before it. */
function gramsRead(state: RunState, reading: number | null, onPiece: boolean): number | null {
  const at = state.current && onScale(state, state.current, onPiece);
  if (reading === null || !at) return null;
  if (state.current!.kind === 'left') return Math.max(0, reading);
  return Math.max(0, at.falls ? at.startGrams - reading : reading - at.startGrams);
}

/** The `run` command, without its files. */
export function runCommand(text: string): CommandResult {
  const read = readJson(text, runFileSchema);
  if (!read.ok) return commandFailed(read.errors);
  const stops = stopsOf(read.request.request, planBatch(read.request.request));
  return stops.length > 0
    ? commandFailed(stops)
    : { output: roundedJson(playRun(read.request)), errors: '', exitCode: 0 };
}
