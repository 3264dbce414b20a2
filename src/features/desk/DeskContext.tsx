'use client';

import { createContext, use, useCallback, useMemo, useState, type ReactNode } from 'react';
import type { PieceDesign } from '@/core/bed/schema';
import type { Mend, Problem } from '@/core/checks/problem';
import type { Plan, PlanRequest } from '@/core/plan';
import { withoutJoints } from '@/core/bed/joints';
import { drawnDesigns, wholeSetRequest } from '@/core/records/buildRequest';
import { setScope } from '@/core/records/command';
import { waterSetSchema, type Stored } from '@/core/records/schema';
import type { DeskView } from '@/core/records/views';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { useEditDoor, type EditDoor } from '../door/editDoor';
import { applyMend } from './applyMend';
import { usePlan } from './usePlan';

/** What is being dragged and not written yet. */
interface Draft {
  levelMm?: number;
  design?: { id: string; change: (data: PieceDesign) => PieceDesign };
}

/** The set as it is kept, and every way to change it. Stands still while something is dragged. */
interface Desk {
  desk: DeskView;
  door: EditDoor<DeskView>;
  /** Id of the design that is open. */
  openId: string | null;
  select: (designId: string) => void;
  /**
   * Changes a design: shown at once, and written when `done`. The change is made to the newest design each time,
   * so that quick edits one after another do not undo each other.
   */
  shapeDesign: (id: string, change: (data: PieceDesign) => PieceDesign, label: string, done?: boolean) => void;
  moveLevel: (levelMm: number, done: boolean) => void;
  /** Carries out what a warning offers. */
  mend: (mend: Mend, problem: Problem) => void;
}

/** The set as it is on screen, what is dragged included. Changes with every movement: for pictures only. */
interface LiveDesk {
  designs: DeskView['designs'];
  levelMm: number;
  recipe: PlanRequest['recipe'] | undefined;
  dragging: boolean;
}

/** The plan of the whole set, a moment behind the picture while something is dragged. */
interface DeskPlan {
  request: PlanRequest | null;
  plan: Plan | null;
  planning: boolean;
}

const DeskContext = createContext<Desk | null>(null);
const LiveContext = createContext<LiveDesk | null>(null);
const PlanContext = createContext<DeskPlan | null>(null);

/** One set on the desk: its view, its plan, and every way to change them. */
export function DeskProvider({
  initial,
  initialPlan,
  children,
}: {
  initial: DeskView;
  initialPlan: Plan | null;
  children: ReactNode;
}) {
  const setId = initial.set.id;
  const door = useEditDoor(initial, { view: 'desk', setId }, setScope(setId));
  const [draft, setDraft] = useState<Draft>({});
  const [selectedId, setSelectedId] = useState<string | null>(null);
  const desk = door.view;
  const openId = desk.designs.find(({ id }) => id === selectedId)?.id ?? desk.designs[0]?.id ?? null;
  const { run } = door;

  /** Shows a draft; once it is written (or refused) it gives way to the view that came back, unless a newer draft stands. */
  const propose = useCallback((next: Draft, write: (() => Promise<unknown>) | null) => {
    setDraft(next);
    void write?.().then(() => setDraft((current) => (current === next ? {} : current)));
  }, []);
  const shapeDesign = useCallback(
    (id: string, change: (data: PieceDesign) => PieceDesign, label: string, done = true) => {
      propose(
        { design: { id, change } },
        done ? () => run(({ designs }) => putDesign(designs, id, change, label), label) : null,
      );
    },
    [propose, run],
  );
  const moveLevel = useCallback(
    (levelMm: number, done: boolean) => {
      if (!waterSetSchema.shape.levelMm.safeParse(levelMm).success) return;
      propose(
        { levelMm },
        done
          ? () =>
              run(
                ({ set }) => ({
                  do: 'put',
                  kind: 'set',
                  id: set.id,
                  version: set.version,
                  data: { ...set.data, levelMm },
                  label: 'Move the level',
                }),
                'Level moved',
              )
          : null,
      );
    },
    [propose, run],
  );
  const mend = useCallback(
    (what: Mend, problem: Problem) => void run((view) => applyMend(view, what, problem), what.label),
    [run],
  );

  const value = useMemo<Desk>(
    () => ({ desk, door, openId, select: setSelectedId, shapeDesign, moveLevel, mend }),
    [desk, door, openId, shapeDesign, moveLevel, mend],
  );
  return (
    <DeskContext value={value}>
      <UnitsProvider units={desk.shelf.settings.data.units}>
        <LiveProvider draft={draft} view={desk} initialPlan={initialPlan}>
          {children}
        </LiveProvider>
      </UnitsProvider>
    </DeskContext>
  );
}

/** Lays the draft over the view, for pictures at once and for the plan through the worker. */
function LiveProvider({
  draft,
  view,
  initialPlan,
  children,
}: {
  draft: Draft;
  view: DeskView;
  initialPlan: Plan | null;
  children: ReactNode;
}) {
  const drafted = useMemo(() => withDraft(view, draft), [view, draft]);
  const request = useMemo(() => wholeSetRequest(drafted), [drafted]);
  // The recipe of the view itself: the same object all through a drag.
  const recipe = useMemo(() => wholeSetRequest(view)?.recipe, [view]);
  const { plan, planning } = usePlan(request, initialPlan);
  const live = useMemo<LiveDesk>(
    () => ({ designs: drawnDesigns(drafted), levelMm: drafted.set.data.levelMm, recipe, dragging: drafted !== view }),
    [drafted, view, recipe],
  );
  const planned = useMemo<DeskPlan>(() => ({ request, plan, planning }), [request, plan, planning]);
  // While something is dragged the figures keep to the last plan that is whole; a new request alone is no news to them.
  const [settled, setSettled] = useState(planned);
  if (settled.plan !== planned.plan || (!live.dragging && settled !== planned)) setSettled(planned);
  return (
    <LiveContext value={live}>
      <PlanContext value={settled}>{children}</PlanContext>
    </LiveContext>
  );
}

const needed = <T,>(value: T | null): T => {
  if (value === null) throw new Error('There is no desk round this');
  return value;
};

/** The set on the desk as it is kept. */
export const useDesk = (): Desk => needed(use(DeskContext));
/** The set on the desk as it is drawn. */
export const useLiveDesk = (): LiveDesk => needed(use(LiveContext));
/** The plan of the set on the desk. */
export const useDeskPlan = (): DeskPlan => needed(use(PlanContext));

function withDraft(view: DeskView, { levelMm, design }: Draft): DeskView {
  if (levelMm === undefined && !design) return view;
  return {
    ...view,
    set: levelMm === undefined ? view.set : { ...view.set, data: { ...view.set.data, levelMm } },
    designs: design
      ? view.designs.map((stored) =>
          stored.id === design.id ? { ...stored, data: design.change(stored.data) } : stored,
        )
      : view.designs,
  };
}

function putDesign(
  designs: readonly Stored<PieceDesign>[],
  id: string,
  change: (data: PieceDesign) => PieceDesign,
  label: string,
): ReturnType<Parameters<EditDoor<DeskView>['run']>[0]> {
  const stored = designs.find((candidate) => candidate.id === id);
  return stored
    ? { do: 'put', kind: 'design', id, version: stored.version, data: withoutJoints(change(stored.data)), label }
    : null;
}
