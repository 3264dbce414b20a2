import { expiredLotsTaken } from './expired';
import type { Refusal, RunNote, RunState } from './runState';
import type { RunEventOf, RunPlan } from './runSchema';

const MINUTE_MS = 60_000;

/** What is said in a run without being a step of it. */
export type AsideEvent = RunEventOf<'answer' | 'snooze' | 'bottle' | 'timer' | 'room' | 'note' | 'slip'>;

/** What was recorded beside the steps of a run: answers to clocks, bottles taken, timers, readings of the room, notes, slips of practice. */
export class RunAside {
  readonly #plan: RunPlan;
  readonly #begunAt: number;
  #notes: RunNote[] = [];
  #answers = new Map<string, { at: number; did: string }>();
  #snoozed = new Map<string, number>();
  #bottles: RunState['bottles'] = [];
  #timers: RunState['timers'][number][] = [];
  #room: RunState['room'][number][];
  #slips: RunState['slips'][number][] = [];

  constructor(plan: RunPlan, begunAt: number) {
    this.#plan = plan;
    this.#begunAt = begunAt;
    this.#room = [{ at: begunAt, temperatureC: plan.roomC, humidity: plan.humidity }];
  }

  get room(): RunState['room'] {
    return this.#room;
  }

  state(): Pick<RunState, 'notes' | 'answers' | 'snoozed' | 'bottles' | 'timers' | 'room' | 'slips'> {
    return {
      notes: [...this.#notes],
      answers: new Map(this.#answers),
      snoozed: new Map(this.#snoozed),
      bottles: this.#bottles,
      timers: [...this.#timers],
      room: [...this.#room],
      slips: [...this.#slips],
    };
  }

  /** Takes one event; null when it was taken, else why not. `done`: the steps that are done, with the lots that they name. */
  take(event: AsideEvent, done: RunState['done']): Refusal | null {
    switch (event.type) {
      case 'answer':
        if (this.#answers.has(event.clock)) return 'nothing of the kind';
        this.#answers.set(event.clock, { at: event.at, did: event.did });
        this.#snoozed.delete(event.clock);
        return null;
      case 'snooze':
        if (this.#answers.has(event.clock)) return 'nothing of the kind';
        this.#snoozed.set(event.clock, event.at + event.minutes * MINUTE_MS);
        return null;
      case 'bottle': {
        const bottle = this.#plan.bottles.find(({ id }) => id === event.lot);
        if (!bottle) return 'nothing of the kind';
        const known = [...expiredLotsTaken({ done }), ...this.#bottles.map(({ lot }) => lot)];
        if (bottle.past && !event.anyway && !known.includes(bottle.id)) return 'a reason is asked for';
        this.#bottles = [...this.#bottles, { lot: event.lot, at: event.at, anyway: event.anyway ?? null }];
        return null;
      }
      case 'timer':
        this.#timers.push({ id: `timer.${event.id}`, name: event.name, at: event.at, minutes: event.minutes });
        return null;
      case 'room': {
        const { at, temperatureC, humidity } = event;
        // One that comes late takes its place in time.
        const last = this.#room.at(-1)!;
        const place = this.#room.findLastIndex((one) => one.at <= at) + 1;
        const reading = { at: Math.max(at, this.#begunAt), temperatureC, humidity: humidity ?? last.humidity };
        this.#room.splice(Math.max(1, place), 0, reading);
        return null;
      }
      case 'note':
        this.#notes.push({ at: event.at, text: event.text, own: true });
        return null;
      case 'slip':
        this.#slips.push({ slip: event.slip, at: event.at, seconds: event.seconds ?? 0 });
        return null;
    }
  }
}
