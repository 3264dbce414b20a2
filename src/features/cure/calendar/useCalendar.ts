'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { CalendarView } from '@/core/records/views';
import { keptRequest, withKept, withMark } from '@/core/schedule/kept';
import { movedSteps, stepKey } from '@/core/schedule/replan';
import type { Course, StepMark } from '@/core/schedule/routes';
import type { SchedulePlan, ScheduleRequest } from '@/core/schedule/schema';
import { withMeasured } from '@/core/schedule/roomDays';
import { calendarRequest, FIRST_WORKPLACE, type CalendarBatch, type CalendarWorkshop } from '@/core/schedule/workplace';
import { whenCalm } from '@/ui/whenCalm';
import { heldInWorker, planInWorker, replanInWorker, type Underway } from '@/workers/scheduler';
import { useDesk } from '../../desk/DeskContext';
import { useFetched } from '../../desk/useFetched';

/** What would be if: courses of batches that are not kept yet, and the plan that follows. */
export interface WhatIf {
  words: string;
  courses: ReadonlyMap<string, Course>;
  plan: SchedulePlan;
  moved: number;
}

export interface Calendar {
  batches: CalendarBatch[];
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
  const { desk, door } = useDesk();
  const { settings } = desk.shelf;
  const versions = [settings, desk.set, ...desk.batches].map(({ id, version }) => `${id} ${version}`).join(' ');
  // What came with the page may be from an earlier visit, and other sets are not on this desk: it is always read once more.
  const fetched = useFetched<Pick<CalendarView, 'batches' | 'measured'>>('/api/calendar', versions, null);
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
    const cancel = whenCalm(() => {
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

  const follow = async (
    courses: ReadonlyMap<string, Course>,
    free: readonly string[],
    words: string,
  ): Promise<void> => {
    const plan = whatIf?.plan ?? base;
    if (!plan) return;
    const changed = batches.map((batch) => ({ ...batch, course: courses.get(batch.id) ?? batch.course }));
    const wished = calendarRequest(changed, workshop);
    if (!wished) return;
    const next = await replanInWorker(wished, plan, free);
    setWhatIf({ words, courses, plan: next, moved: base ? movedSteps(base, next).length : 0 });
  };
  const courseOf = (batchId: string): Course =>
    whatIf?.courses.get(batchId) ?? batches.find(({ id }) => id === batchId)?.course ?? { marks: [] };
  const stepsOf = (batchId: string): string[] =>
    (request?.batches.find(({ id }) => id === batchId)?.steps ?? []).map(({ id }) => stepKey(batchId, id));

  const hold: Calendar['hold'] = (batchId, stepId, at, words) => {
    const course = withMark(courseOf(batchId), stepId, { pinned: at ?? undefined });
    return follow(new Map([...(whatIf?.courses ?? []), [batchId, course]]), stepsOf(batchId), words);
  };
  const write = (courses: ReadonlyMap<string, Course>, label: string): Promise<unknown> =>
    door.run(
      () => ({
        do: 'course',
        label: label.slice(0, 80),
        batches: [...courses].map(([id, course]) => ({ id, course })),
      }),
      label,
    );
  const say: Calendar['say'] = async (batchId, stepId, mark, words) => {
    // What happened is written; what is only thought of stays what would be if.
    const stored = batches.find(({ id }) => id === batchId)?.course ?? { marks: [] };
    await write(new Map([[batchId, withMark(stored, stepId, mark)]]), words);
    const courses = new Map([
      ...(whatIf?.courses ?? []),
      [batchId, withMark(courseOf(batchId), stepId, mark)] as const,
    ]);
    await follow(courses, stepsOf(batchId), words);
  };
  const keep = (): void => {
    const plan = whatIf?.plan ?? base;
    if (!plan) return;
    const courses = new Map(batches.map(({ id }) => [id, withKept(courseOf(id), id, plan, now)] as const));
    void write(courses, 'Keep the calendar').then(() => setWhatIf(null));
  };
  const planAnew = (): void => {
    if (!request) return;
    stop();
    setLooking(0);
    const courses = new Map([...(whatIf?.courses ?? [])]);
    const changed = batches.map((batch) => ({ ...batch, course: courses.get(batch.id) ?? batch.course }));
    const run = planInWorker(calendarRequest(changed, workshop)!, (plan, share) => {
      setLooking(share);
      setWhatIf({ words: 'Planned anew from now', courses, plan, moved: base ? movedSteps(base, plan).length : 0 });
    });
    under.current = run;
    void run.result
      .then(
        (plan) =>
          setWhatIf({ words: 'Planned anew from now', courses, plan, moved: base ? movedSteps(base, plan).length : 0 }),
        reportError,
      )
      .finally(() => setLooking(null));
  };
  return {
    ...{ workshop, known: fetched !== null || batches.length > 0 },
    ...{ batches, request, plan: whatIf?.plan ?? base, kept: kept && whatIf === null, whatIf, looking, stop },
    ...{ hold, say, planAnew, keep },
    letBe: () => setWhatIf(null),
  };
}
