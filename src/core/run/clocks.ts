import { LEAK_AGAIN_MINUTES, lookMoments, looksAfter } from '../pouring/looks';
import { attemptKey, cupEnds, restOf, type CupState } from './cupState';
import { allCured, lastPourAt, recoatWindow } from './cureMoment';
import { layerOf, type RunState } from './runState';

export type ClockKind =
  | 'pour by'
  | 'sets'
  | 'stir'
  | 'lamp'
  | 'look'
  | 'leak look'
  | 'recoat opens'
  | 'recoat closes'
  | 'firm'
  | 'cured'
  | 'timer';

/** What is asked of every kind of clock; one that is left out does not compile. */
export const CLOCK_KINDS: Record<
  ClockKind,
  {
    name: string;
    /** It belongs to a step that shows it itself, and is heard with that. */
    ofStep: boolean;
    /** It is the pot life of a cup, which stands large over the steps of that cup. */
    potLife: boolean;
    /** What to do about a leak is said with it. */
    leakHelp: boolean;
  }
> = {
  'pour by': { name: 'pour by', ofStep: false, potLife: true, leakHelp: false },
  sets: { name: 'sets', ofStep: false, potLife: true, leakHelp: false },
  stir: { name: 'stir', ofStep: true, potLife: false, leakHelp: false },
  lamp: { name: 'lamp', ofStep: true, potLife: false, leakHelp: false },
  look: { name: 'look', ofStep: false, potLife: false, leakHelp: true },
  'leak look': { name: 'leak look', ofStep: false, potLife: false, leakHelp: true },
  'recoat opens': { name: 'recoat opens', ofStep: false, potLife: false, leakHelp: false },
  'recoat closes': { name: 'recoat closes', ofStep: false, potLife: false, leakHelp: false },
  firm: { name: 'firm', ofStep: false, potLife: false, leakHelp: false },
  cured: { name: 'cured', ofStep: false, potLife: false, leakHelp: false },
  timer: { name: 'timer', ofStep: false, potLife: false, leakHelp: false },
};

/** Something to do at a moment. Clocks are moments: whatever happens to a window or the server, they come out of the run's events again. */
export interface RunClock {
  id: string;
  kind: ClockKind;
  /** What it is for, short. */
  name: string;
  /** What to do when it rings. */
  words: string;
  from: number;
  due: number;
  /** Answers that go into the log, the usual one first. */
  answers: readonly Answer[];
  /** Put off until then. */
  snoozedTo: number | null;
}

const MINUTE_MS = 60_000;
/** How long before a recoat window closes it is said. */
const CLOSES_SOON_MINUTES = 60;

/** What can be answered to a clock: a code for the log, and what stands on the button. */
export const ANSWERS = {
  dry: { words: 'dry all round', leak: false },
  'leak closed': { words: 'leak, closed from outside', leak: true },
  'leak in tray': { words: 'leak, piece set in a tray', leak: true },
  none: { words: 'none', leak: false },
  popped: { words: 'popped', leak: false },
  left: { words: 'left as they are', leak: false },
  'none, dry': { words: 'none, dry all round', leak: false },
  'popped, dry': { words: 'popped, dry all round', leak: false },
  'poured on': { words: 'poured on', leak: false },
  'rest left': { words: 'rest left for the next mix', leak: false },
  'put aside': { words: 'put aside', leak: false },
  seen: { words: 'seen', leak: false },
  done: { words: 'done', leak: false },
  'poured before': { words: 'poured before it', leak: false },
  'will be abraded': { words: 'will be abraded', leak: false },
  'so far': { words: 'it is, by touch', leak: false },
  'not yet': { words: 'not yet, by touch', leak: false },
} as const satisfies Record<string, { words: string; leak: boolean }>;
export type Answer = keyof typeof ANSWERS;

/** What an answer says; one that a maker wrote, or an older version logged, is its own words. */
export const answerWords = (did: string): string => (did in ANSWERS ? ANSWERS[did as Answer].words : did);
/** Whether an answer tells of a leak. Runs of older versions logged the words themselves. */
export const tellsOfLeak = (did: string): boolean =>
  did in ANSWERS
    ? ANSWERS[did as Answer].leak
    : Object.values(ANSWERS).some(({ words, leak }) => leak && words === did);

const LEAK_ANSWERS: readonly Answer[] = ['dry', 'leak closed', 'leak in tray'];
const BUBBLE_ANSWERS: readonly Answer[] = ['none', 'popped', 'left'];
const BOTH_ANSWERS: readonly Answer[] = ['none, dry', 'popped, dry', 'leak closed'];

/** What has hardened is touched, or only heard of. */
const HARD_ANSWERS: readonly Answer[] = ['seen', 'so far', 'not yet'];
/** What is not yet so far is touched again when this share of its time has gone by, and no sooner than in a quarter of an hour. */
const AGAIN_SHARE = 0.1;
const AGAIN_LEAST_MS = 15 * 60_000;

/** What to do about a leak: said when one is found, and before it. */
export const ON_A_LEAK =
  'Close it from outside with tape or putty, set the piece in a tray, keep what ran out off the good side. Top up only while the cup is liquid.';

/** All clocks of a run that still matter, the next due first. */
export function clocksOf(state: RunState): RunClock[] {
  const clocks: RunClock[] = [];
  const add = (clock: Omit<RunClock, 'snoozedTo'>): void => {
    if (state.answers.has(clock.id)) return;
    clocks.push({ ...clock, snoozedTo: state.snoozed.get(clock.id) ?? null });
  };
  if (!state.over || state.over.how === 'finished') for (const cup of state.cups) cupClocks(state, cup, add);
  if (!state.over) stepClocks(state, add);
  if (state.over?.how !== 'given up') cureClocks(state, add);
  for (const { id, name, at, minutes } of state.timers)
    add({
      id,
      kind: 'timer',
      name,
      words: `${name}: the time is up.`,
      from: at,
      due: at + minutes * MINUTE_MS,
      answers: ['done'],
    });
  return clocks.sort((a, b) => (a.snoozedTo ?? a.due) - (b.snoozedTo ?? b.due) || (a.id < b.id ? -1 : 1));
}

type Add = (clock: Omit<RunClock, 'snoozedTo'>) => void;

/** The clocks of a cup: how long it may be poured, and what its pieces are looked at for afterwards. */
function cupClocks(state: RunState, cup: CupState, add: Add): void {
  const layer = layerOf(state, cup.layer);
  const id = attemptKey(cup);
  const name = `cup ${cup.number}`;
  const ends = cupEnds(cup, layer, state.room);
  if (ends && cup.contactAt !== null && cup.closedAt === null) {
    const { by, sets } = ends;
    if (restOf(cup).length > 0)
      add({
        id: `${id}.by`,
        kind: 'pour by',
        name,
        from: cup.contactAt,
        due: by,
        words: `Cup ${cup.number} should be poured by now. Fill what is begun, leave the rest for the next mix.`,
        answers: ['poured on', 'rest left'],
      });
    add({
      id: `${id}.sets`,
      kind: 'sets',
      name,
      from: cup.contactAt,
      due: sets,
      words: `Cup ${cup.number} sets up now. Nothing more of it goes into a piece.`,
      answers: ['put aside'],
    });
  }
  const { closedAt } = cup;
  if (closedAt === null || cup.poured.length === 0) return;
  const tags = [...new Set(cup.poured.map(({ tag }) => tag))].join(', ');
  const due = (minutes: number): Pick<RunClock, 'from' | 'due'> => ({
    from: closedAt,
    due: closedAt + minutes * MINUTE_MS,
  });
  for (const { minutes, bubbles, leaks } of lookMoments(looksAfter(layer.product, state.plan.dammed))) {
    const look = `${id}.look${minutes}`;
    add({
      id: look,
      kind: bubbles ? 'look' : 'leak look',
      name: `${name}, ${minutes} min`,
      ...due(minutes),
      words: bubbles
        ? `Look for bubbles${leaks ? ' and leaks' : ''}: ${tags}. Brief heat only where nothing near burns or melts; do not lean over it.`
        : `Look for leaks: ${tags}. Feel under each dam.`,
      answers: bubbles ? (leaks ? BOTH_ANSWERS : BUBBLE_ANSWERS) : LEAK_ANSWERS,
    });
    const found = state.answers.get(look);
    if (found && tellsOfLeak(found.did))
      add({
        id: `${look}.again`,
        kind: 'leak look',
        name: `${name}, leak again`,
        from: found.at,
        due: found.at + LEAK_AGAIN_MINUTES * MINUTE_MS,
        words: `Look at the leak again: ${tags}. ${ON_A_LEAK}`,
        answers: LEAK_ANSWERS,
      });
  }
}

function stepClocks(state: RunState, add: Add): void {
  const { current } = state;
  if (current?.kind === 'stir' || current?.kind === 'lamp') {
    const stir = current.kind === 'stir';
    add({
      id: `${current.id}.${state.since}`,
      kind: current.kind,
      name: stir ? 'stir' : 'lamp',
      from: state.since,
      due: state.since + current.minutes * MINUTE_MS,
      words: stir ? 'Stirred long enough.' : 'The lamp has been on for its minutes. Switch it off before you look.',
      answers: ['done'],
    });
  }
}

function cureClocks(state: RunState, add: Add): void {
  state.plan.layers.forEach((layer, i) => {
    const cups = state.cups.filter((cup) => cup.layer === layer.number);
    const from = lastPourAt(state.cups, layer.number);
    if (from === null || cups.some(({ closedAt }) => closedAt === null)) return;
    const { number } = layer;
    const window = recoatWindow(state, layer)!;
    const name = state.plan.layers.length > 1 ? `layer ${number}` : 'the water';
    const next = state.plan.layers[i + 1];
    const id = `L${number}`;
    if (next && lastPourAt(state.cups, next.number) === null) {
      const { opens, closes } = window;
      touched(state, add, {
        id: `${id}.opens`,
        kind: 'recoat opens',
        name,
        from,
        due: opens,
        words: `Layer ${next.number} may be poured from now on.`,
      });
      if (closes !== null) {
        // The hour is one of the wall clock, however long the label's are in this room.
        const soon = closes - CLOSES_SOON_MINUTES * MINUTE_MS;
        add({
          id: `${id}.closes`,
          kind: 'recoat closes',
          name,
          from,
          due: Math.max(opens, soon),
          words: `The recoat window of layer ${number} closes in ${soon < opens ? 'less than ' : ''}an hour. After it, abrade before you pour.`,
          answers: ['poured before', 'will be abraded'],
        });
      }
    }
    if (next) return;
    if ((state.plan.dammed || state.plan.moulded) && !state.done.has('dams off'))
      touched(state, add, {
        id: `${id}.firm`,
        kind: 'firm',
        name,
        from,
        due: allCured(state, 'demouldMinutes'),
        words: state.plan.moulded ? 'Firm: turn the pieces out.' : 'Firm: dams may come off.',
      });
    if (!state.done.has('cured'))
      touched(state, add, {
        id: `${id}.cured`,
        kind: 'cured',
        name,
        from,
        due: allCured(state, 'fullCureMinutes'),
        words: 'Fully cured: the pieces may be handled and stacked.',
      });
  });
}

/** A clock of what hardens; found too soft it rings again, as often as that is found. */
function touched(state: RunState, add: Add, clock: Omit<RunClock, 'snoozedTo' | 'answers'>): void {
  const again = Math.max(AGAIN_LEAST_MS, AGAIN_SHARE * (clock.due - clock.from));
  let [id, due] = [clock.id, clock.due];
  for (let n = 1; state.answers.get(id)?.did === 'not yet'; n++) {
    due = state.answers.get(id)!.at + again;
    id = `${clock.id}.again${n}`;
  }
  add({ ...clock, id, due, answers: HARD_ANSWERS });
}

/** Moments at which what a clock is about was touched, by what was found. */
export const touchesOf = (
  { answers }: Pick<RunState, 'answers'>,
  clock: string,
  found: 'so far' | 'not yet',
): number[] =>
  [...answers].flatMap(([id, { at, did }]) =>
    did === found && (id === clock || id.startsWith(`${clock}.again`)) ? [at] : [],
  );

/** When a clock rings next; null while it lies ahead. */
export const isRinging = ({ due, snoozedTo }: Pick<RunClock, 'due' | 'snoozedTo'>, now: number): boolean =>
  now >= Math.max(due, snoozedTo ?? due);

/** Which clocks ring, the one that has waited longest first. */
export const ringing = (clocks: readonly RunClock[], now: number): RunClock[] =>
  clocks.filter((clock) => isRinging(clock, now));
