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
  answers: readonly string[];
  /** Put off until then. */
  snoozedTo: number | null;
}

const MINUTE_MS = 60_000;
/** How long before a recoat window closes it is said. */
const CLOSES_SOON_MINUTES = 60;

const LEAK_ANSWERS = ['dry all round', 'leak, closed from outside', 'leak, piece set in a tray'] as const;
const BUBBLE_ANSWERS = ['none', 'popped', 'left as they are'] as const;
const BOTH_ANSWERS = ['none, dry all round', 'popped, dry all round', 'leak, closed from outside'] as const;

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
    add({ id, kind: 'timer', name, words: name, from: at, due: at + minutes * MINUTE_MS, answers: ['done'] });
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
        ...{ id: `${id}.by`, kind: 'pour by', name, from: cup.contactAt, due: by },
        words: `Cup ${cup.number} should be poured by now. Fill what is begun, leave the rest for the next mix.`,
        answers: ['poured on', 'rest left for the next mix'],
      });
    add({
      ...{ id: `${id}.sets`, kind: 'sets', name, from: cup.contactAt, due: sets },
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
      ...{ id: look, kind: bubbles ? 'look' : 'leak look', name: `${name}, ${minutes} min`, ...due(minutes) },
      words: bubbles
        ? `Look for bubbles${leaks ? ' and leaks' : ''}: ${tags}. Brief heat only where nothing near burns or melts; do not lean over it.`
        : `Look for leaks: ${tags}. Feel under each dam.`,
      answers: bubbles ? (leaks ? BOTH_ANSWERS : BUBBLE_ANSWERS) : LEAK_ANSWERS,
    });
    const found = state.answers.get(look);
    if (found?.did.startsWith('leak'))
      add({
        ...{ id: `${look}.again`, kind: 'leak look', name: `${name}, leak again` },
        ...{ from: found.at, due: found.at + LEAK_AGAIN_MINUTES * MINUTE_MS },
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
      ...{ id: `${current.id}.${state.since}`, kind: current.kind, name: stir ? 'stir' : 'lamp' },
      ...{ from: state.since, due: state.since + current.minutes * MINUTE_MS },
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
      add({
        ...{ id: `${id}.opens`, kind: 'recoat opens', name, from, due: opens },
        words: `Layer ${next.number} may be poured from now on.`,
        answers: ['seen'],
      });
      if (closes !== null) {
        // The hour is one of the wall clock, however long the label's are in this room.
        const soon = closes - CLOSES_SOON_MINUTES * MINUTE_MS;
        add({
          ...{ id: `${id}.closes`, kind: 'recoat closes', name, from, due: Math.max(opens, soon) },
          words: `The recoat window of layer ${number} closes in ${soon < opens ? 'less than ' : ''}an hour. After it, abrade before you pour.`,
          answers: ['poured before it', 'will be abraded'],
        });
      }
    }
    if (next) return;
    if ((state.plan.dammed || state.plan.moulded) && !state.done.has('dams off'))
      add({
        ...{ id: `${id}.firm`, kind: 'firm', name, from, due: allCured(state, 'demouldMinutes') },
        words: state.plan.moulded ? 'Firm: turn the pieces out.' : 'Firm: dams may come off.',
        answers: ['seen'],
      });
    if (!state.done.has('cured'))
      add({
        ...{ id: `${id}.cured`, kind: 'cured', name, from, due: allCured(state, 'fullCureMinutes') },
        words: 'Fully cured: the pieces may be handled and stacked.',
        answers: ['seen'],
      });
  });
}

/** When a clock rings next; null while it lies ahead. */
export const isRinging = ({ due, snoozedTo }: Pick<RunClock, 'due' | 'snoozedTo'>, now: number): boolean =>
  now >= Math.max(due, snoozedTo ?? due);

/** Which clocks ring, the one that has waited longest first. */
export const ringing = (clocks: readonly RunClock[], now: number): RunClock[] =>
  clocks.filter((clock) => isRinging(clock, now));
