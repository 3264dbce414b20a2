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

/** What is being made, in all sets, and the days as a sensor read them. */
function useBatchesBeingMade(served: CalendarView): {
  batches: CalendarView['batches'];
  measured: CalendarView['measured'];
  known: boolean;
  readAgain: (() => void) | null;
  wasWritten: () => void;
} {
  const { desk } = useDesk();
  const versions = [desk.shelf.settings, desk.set, ...desk.batches]
    .map(({ id, version }) => `${id} ${version}`)
    .join(' ');
  // What came with the page may be from an earlier visit, and other sets are not on this desk: it is always read once more.
  const [written, setWritten] = useState(0);
  const { data, failed, again } = useFetched<Pick<CalendarView, 'batches' | 'measured'>>(
    '/api/calendar',
    `${versions} ${written}`,
  );
  const newer = <T>(read: T | undefined, first: T): T =>
    read !== undefined && JSON.stringify(read) !== JSON.stringify(first) ? read : first;
  const batches = useMemo(() => newer(data?.batches, served.batches), [data, served.batches]);
  const measured = useMemo(() => newer(data?.measured, served.measured), [data, served.measured]);
  return {
    batches,
    measured,
    known: data !== null || batches.length > 0,
    readAgain: failed ? again : null,
    wasWritten: () => setWritten((times) => times + 1),
  };
}

/** A search in the worker that can be looked at while it goes on, and stopped. */
function useSearch(): {
  looking: number | null;
  search: (request: ScheduleRequest, found: (plan: SchedulePlan) => void) => void;
  stop: () => void;
} {
  const [looking, setLooking] = useState<number | null>(null);
  const under = useRef<Underway<SchedulePlan> | null>(null);
  const stop = useCallback(() => {
    under.current?.end();
    under.current = null;
    setLooking(null);
  }, []);
  const search = useCallback(
    (request: ScheduleRequest, found: (plan: SchedulePlan) => void) => {
      stop();
      setLooking(0);
      const run = planInWorker(request, (plan, share) => {
        if (under.current !== run) return;
        found(plan);
        setLooking(share);
      });
      under.current = run;
      void run.result
        .then((plan) => under.current === run && found(plan), reportError)
        .finally(() => under.current === run && setLooking(null));
    },
    [stop],
  );
  return { looking, search, stop };
}

/** The plan of a request: the one that came with the page, the kept one held, or the best that has been found by now. */
function useBestPlan(
  request: ScheduleRequest | null,
  held: ScheduleRequest | null,
  served: SchedulePlan | null,
): {
  base: SchedulePlan | null;
  looking: number | null;
  search: ReturnType<typeof useSearch>['search'];
  stop: () => void;
} {
  const { looking, search, stop } = useSearch();
  const [best, setBest] = useState<{ of: string; plan: SchedulePlan } | null>(null);
  const asked = useMemo(() => JSON.stringify(held ?? request), [held, request]);
  const [firstAsked] = useState(asked);
  useEffect(() => {
    if (!request) return;
    let stale = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const cancel = whenIdle(() => {
      // What came with the page is the kept plan already.
      if (held && asked === firstAsked && served) return;
      if (held) void heldInWorker(held).then((plan) => !stale && setBest({ of: asked, plan }), reportError);
      else timer = setTimeout(() => search(request, (plan) => !stale && setBest({ of: asked, plan })), SEARCH_REST_MS);
    });
    return () => {
      stale = true;
      cancel();
      clearTimeout(timer);
      stop();
    };
  }, [asked, firstAsked, held, request, served, search, stop]);
  const base = best?.of === asked ? best.plan : asked === firstAsked ? served : (best?.plan ?? served);
  return { base, looking, search, stop };
}

/** The courses of batches as this window knows them, by its own edits too, which come before they are read anew. */
function useCourses(
  batches: CalendarView['batches'],
  wasWritten: () => void,
): {
  courseNow: (batchId: string, pins: readonly Pin[]) => Course;
  write: (make: () => [id: string, course: Course][], label: string) => Promise<boolean>;
} {
  const { edits } = useDesk();
  const latest = useRef(new Map<string, { version: number; course: Course }>());
  useEffect(() => {
    for (const { id, version, course } of batches)
      if ((latest.current.get(id)?.version ?? 0) < version) latest.current.set(id, { version, course });
  }, [batches]);
  return {
    /** The course of a batch as it is, with what is held in a what-if. */
    courseNow: (batchId, pins) =>
      pins.reduce(
        (course, pin) =>
          pin.batchId === batchId ? withMark(course, pin.stepId, { pinned: pin.at ?? undefined }) : course,
        latest.current.get(batchId)?.course ?? { marks: [] },
      ),
    /**
     * Writes courses, each over the one that it was made from. False when another window was first: nothing is written then, and what
     * that wrote is read.
     */
    async write(make, label) {
      let sent: { id: string; version: number; course: Course }[] = [];
      const outcome = await edits.run(() => {
        sent = make().map(([id, course]) => ({ id, version: latest.current.get(id)?.version ?? 1, course }));
        return { do: 'course', label: label.slice(0, 80), batches: sent };
      }, label);
      if (outcome.ok)
        for (const { id, version, course } of sent) latest.current.set(id, { version: version + 1, course });
      wasWritten();
      return outcome.ok;
    },
  };
}

/** The calendar of all that is being made. `served` came with the page. */
export function useCalendar(served: CalendarView): Calendar {
  const { desk } = useDesk();
  const { batches, measured, known, readAgain, wasWritten } = useBatchesBeingMade(served);
  const {
    room,
    benchWindows,
    benchExceptions,
    stepMinutes,
    workplace: usual = FIRST_WORKPLACE,
  } = desk.shelf.settings.data;
  const workplace = useMemo(() => ({ ...usual, days: withMeasured(usual.days, measured) }), [usual, measured]);
  const { now, clockChanges } = desk;
  const workshop = useMemo(
    () => ({ room, benchWindows, benchExceptions, workplace, now, clockChanges, stepMinutes }),
    [room, benchWindows, benchExceptions, workplace, now, clockChanges, stepMinutes],
  );
  const request = useMemo(() => calendarRequest(batches, workshop), [batches, workshop]);
  const held = useMemo(() => request && keptRequest(request, batches), [request, batches]);
  const { base, looking, search, stop } = useBestPlan(request, held, served.plan);
  const { courseNow, write } = useCourses(batches, wasWritten);
  const [whatIf, setWhatIf] = useState<WhatIf | null>(null);
  const plan = whatIf?.plan ?? base;
  const pins = whatIf?.pins ?? [];

  const withPins = (wanted: readonly Pin[]): ScheduleRequest | null =>
    calendarRequest(
      batches.map((batch) => ({ ...batch, course: courseNow(batch.id, wanted) })),
      workshop,
    );
  const show = (words: string, wanted: readonly Pin[], next: SchedulePlan): void =>
    setWhatIf({ words, pins: wanted, plan: next, moved: base ? movedSteps(base, next).length : 0 });
  const follow = async (wanted: readonly Pin[], batchId: string, words: string): Promise<void> => {
    const wished = plan && withPins(wanted);
    if (!wished) return;
    const own = request?.batches.find(({ id }) => id === batchId)?.steps ?? [];
    show(
      words,
      wanted,
      await replanInWorker(
        wished,
        plan,
        own.map(({ id }) => stepKey(batchId, id)),
      ),
    );
  };
  return {
    workshop,
    readAgain,
    known,
    batches,
    request,
    plan,
    kept: held !== null && whatIf === null,
    whatIf,
    looking,
    stop,
    hold: (batchId, stepId, at, words) => follow([...pins, { batchId, stepId, at }], batchId, words),
    async say(batchId, stepId, mark, words) {
      // What happened is written; what is only thought of stays what would be if.
      if (await write(() => [[batchId, withMark(courseNow(batchId, []), stepId, mark)]], words))
        await follow(pins, batchId, words);
    },
    planAnew() {
      const wished = request && withPins(pins);
      if (wished) search(wished, (next) => show('Planned anew from now', pins, next));
    },
    keep() {
      if (!plan) return;
      void write(
        () => batches.map(({ id }) => [id, withKept(courseNow(id, pins), id, plan, now)]),
        'Keep the calendar',
      ).then((ok) => ok && setWhatIf(null));
    },
    letBe: () => setWhatIf(null),
  };
}
