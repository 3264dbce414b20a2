'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { CalendarView } from '@/core/records/views';
import { keptRequest, withKept, withMark } from '@/core/schedule/kept';
import { movedSteps, stepKey } from '@/core/schedule/replan';
import type { Course, StepMark } from '@/core/schedule/routes';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import { withMeasured } from '@/core/schedule/roomDays';
import { calendarRequest, FIRST_WORKPLACE, type CalendarBatch, type CalendarWorkshop } from '@/core/schedule/workplace';
import { whenIdle } from '@/ui/whenIdle';
import { heldInWorker, planInWorker, replanInWorker, type Underway } from '@/workers/scheduler';
import { useDesk } from '../../desk/DeskContext';
import { useFetched } from '@/ui/useFetched';

/** A step that is held at a time; null: let go of. */
interface Pin {
  batchId: string;
  stepId: string;
  at: string | null;
}

/** What would be if: steps that are held, which is not kept yet, and the plan that follows. */
export interface WhatIf {
  words: string;
  pins: readonly Pin[];
  plan: SchedulePlan;
  moved: number;
}

export interface Calendar {
  batches: CalendarBatch[];
  /** Reads it once more, where it could not be read; null where it was. */
  readAgain: (() => void) | null;
  /** False until it is known that nothing is being made. */
  known: boolean;
  workshop: CalendarWorkshop;
  /** What is asked, what is kept left aside; null when nothing is being made. */
  request: ScheduleRequest | null;
  /** The plan on the screen: what would be if, or the one that is kept, or the best so far. */
  plan: SchedulePlan | null;
  /** True when the plan on the screen is the one that is kept. */
  kept: boolean;
  whatIf: WhatIf | null;
  /** Share of the effort that is spent while a better plan is looked for. */
  looking: number | null;
  stop: () => void;
  /** Holds a step at a time, or lets go of it; shown as what would be if. */
  hold: (batchId: string, stepId: string, at: string | null, words: string) => Promise<void>;
  /** Says what happened to a step: written at once, the rest follows as what would be if. */
  say: (batchId: string, stepId: string, mark: Partial<StepMark>, words: string) => Promise<void>;
  planAnew: () => void;
  keep: () => void;
  letBe: () => void;
}

/** A page stands and answers before a search takes a processor for itself: a first plan is on it already. */
const SEARCH_REST_MS = 700;

/** The calendar of all that is being made. `served` came with the page. */
export function useCalendar(served: CalendarView): Calendar {
  const { desk, edits } = useDesk();
  const { settings } = desk.shelf;
  const versions = [settings, desk.set, ...desk.batches].map(({ id, version }) => `${id} ${version}`).join(' ');
  // What came with the page may be from an earlier visit, and other sets are not on this desk: it is always read once more.
  const [written, setWritten] = useState(0);
  const read = useFetched<Pick<CalendarView, 'batches' | 'measured'>>('/api/calendar', `${versions} ${written}`);
  const fetched = read.data;
  const batches = useMemo(
    () =>
      fetched && JSON.stringify(fetched.batches) !== JSON.stringify(served.batches) ? fetched.batches : served.batches,
    [fetched, served.batches],
  );
  const { room, benchWindows, benchExceptions, workplace: usual = FIRST_WORKPLACE } = settings.data;
  const measured = useMemo(
    () =>
      fetched && JSON.stringify(fetched.measured) !== JSON.stringify(served.measured)
        ? fetched.measured
        : served.measured,
    [fetched, served.measured],
  );
  const workplace = useMemo(() => ({ ...usual, days: withMeasured(usual.days, measured) }), [usual, measured]);
  const { now, clockChanges } = desk;
  const workshop = useMemo(
    () => ({ room, benchWindows, benchExceptions, workplace, now, clockChanges }),
    [room, benchWindows, benchExceptions, workplace, now, clockChanges],
  );
  const request = useMemo(() => calendarRequest(batches, workshop), [batches, workshop]);
  const held = useMemo(() => request && keptRequest(request, batches), [request, batches]);
  const [best, setBest] = useState<{ of: string; plan: SchedulePlan; kept: boolean } | null>(null);
  const [looking, setLooking] = useState<number | null>(null);
  const [whatIf, setWhatIf] = useState<WhatIf | null>(null);
  const under = useRef<Underway<SchedulePlan> | null>(null);
  const stop = useCallback(() => {
    under.current?.end();
    under.current = null;
    setLooking(null);
  }, []);

  const asked = useMemo(() => JSON.stringify(held ?? request), [held, request]);
  const [firstAsked] = useState(asked);
  useEffect(() => {
    if (!request) return;
    let stale = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const cancel = whenIdle(() => {
      if (held) {
        // What came with the page is that plan already.
        if (asked === firstAsked && served.plan) return;
        void heldInWorker(held).then((plan) => !stale && setBest({ of: asked, plan, kept: true }), reportError);
        return;
      }
      setLooking(0);
      timer = setTimeout(() => {
        const run = planInWorker(request, (plan, share) => {
          if (stale) return;
          setBest({ of: asked, plan, kept: false });
          setLooking(share);
        });
        under.current = run;
        void run.result
          .then((plan) => !stale && setBest({ of: asked, plan, kept: false }), reportError)
          .finally(() => !stale && setLooking(null));
      }, SEARCH_REST_MS);
    });
    return () => {
      stale = true;
      cancel();
      clearTimeout(timer);
      under.current?.end();
      setLooking(null);
    };
  }, [asked, firstAsked, held, request, served.plan]);

  const base = best?.of === asked ? best.plan : asked === firstAsked ? served.plan : (best?.plan ?? served.plan);
  const kept = held !== null;

  // As this window knows them, by its own edits too, which come before they are read anew.
  const latest = useRef(new Map<string, { version: number; course: Course }>());
  useEffect(() => {
    for (const { id, version, course } of batches)
      if ((latest.current.get(id)?.version ?? 0) < version) latest.current.set(id, { version, course });
  }, [batches]);
  /** The course of a batch as it is, with what is held in a what-if. */
  const courseNow = (batchId: string, pins: readonly Pin[]): Course =>
    pins.reduce(
      (course, pin) =>
        pin.batchId === batchId ? withMark(course, pin.stepId, { pinned: pin.at ?? undefined }) : course,
      latest.current.get(batchId)?.course ?? { marks: [] },
    );
  const withPins = (pins: readonly Pin[]): ScheduleRequest | null =>
    calendarRequest(
      batches.map((batch) => ({ ...batch, course: courseNow(batch.id, pins) })),
      workshop,
    );
  const stepsOf = (batchId: string): string[] =>
    (request?.batches.find(({ id }) => id === batchId)?.steps ?? []).map(({ id }) => stepKey(batchId, id));
  const movedBy = (plan: SchedulePlan): number => (base ? movedSteps(base, plan).length : 0);

  const follow = async (pins: readonly Pin[], batchId: string, words: string): Promise<void> => {
    const plan = whatIf?.plan ?? base;
    const wished = plan && withPins(pins);
    if (!wished) return;
    const next = await replanInWorker(wished, plan, stepsOf(batchId));
    setWhatIf({ words, pins, plan: next, moved: movedBy(next) });
  };
  const hold: Calendar['hold'] = (batchId, stepId, at, words) =>
    follow([...(whatIf?.pins ?? []), { batchId, stepId, at }], batchId, words);
  /**
   * Writes courses, each over the one that it was made from. False when another window was first: nothing is written then, and what
   * that wrote is read.
   */
  const write = async (make: () => [id: string, course: Course][], label: string): Promise<boolean> => {
    let sent: { id: string; version: number; course: Course }[] = [];
    const outcome = await edits.run(() => {
      sent = make().map(([id, course]) => ({ id, version: latest.current.get(id)?.version ?? 1, course }));
      return { do: 'course', label: label.slice(0, 80), batches: sent };
    }, label);
    if (outcome.ok)
      for (const { id, version, course } of sent) latest.current.set(id, { version: version + 1, course });
    setWritten((times) => times + 1);
    return outcome.ok;
  };
  const say: Calendar['say'] = async (batchId, stepId, mark, words) => {
    // What happened is written; what is only thought of stays what would be if.
    if (await write(() => [[batchId, withMark(courseNow(batchId, []), stepId, mark)]], words))
      await follow(whatIf?.pins ?? [], batchId, words);
  };
  const keep = (): void => {
    const plan = whatIf?.plan ?? base;
    if (!plan) return;
    const pins = whatIf?.pins ?? [];
    void write(
      () => batches.map(({ id }) => [id, withKept(courseNow(id, pins), id, plan, now)]),
      'Keep the calendar',
    ).then((ok) => ok && setWhatIf(null));
  };
  const planAnew = (): void => {
    const pins = whatIf?.pins ?? [];
    const wished = request && withPins(pins);
    if (!wished) return;
    stop();
    setLooking(0);
    const show = (plan: SchedulePlan): void =>
      setWhatIf({ words: 'Planned anew from now', pins, plan, moved: movedBy(plan) });
    const run = planInWorker(wished, (plan, share) => {
      setLooking(share);
      show(plan);
    });
    under.current = run;
    void run.result.then(show, reportError).finally(() => setLooking(null));
  };
  return {
    workshop,
    readAgain: read.failed ? read.again : null,
    known: fetched !== null || batches.length > 0,
    batches,
    request,
    plan: whatIf?.plan ?? base,
    kept: kept && whatIf === null,
    whatIf,
    looking,
    stop,
    hold,
    say,
    planAnew,
    keep,
    letBe: () => setWhatIf(null),
  };
}
