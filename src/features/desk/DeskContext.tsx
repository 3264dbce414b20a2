'use client';

import { createContext, use, useCallback, useMemo, useState, type ReactNode } from 'react';
import type { PieceDesign } from '@/core/bed/schema';
import type { Mend, Problem } from '@/core/checks/problem';
import type { Plan, PlanRequest } from '@/core/plan';
import { wholeSetRequest } from '@/core/records/buildRequest';
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
  design?: { id: string; data: PieceDesign };
}

interface Desk {
  /** The set as it is on screen, drafts included. */
  desk: DeskView;
  door: EditDoor<DeskView>;
  request: PlanRequest | null;
  plan: Plan | null;
  /** True while a newer plan is being worked out. */
  planning: boolean;
  dragging: boolean;
  design: Stored<PieceDesign> | null;
  select: (designId: string) => void;
  /** Shows a design before it is written; with `done` it is written. */
  shapeDesign: (id: string, data: PieceDesign, label: string, done?: boolean) => void;
  moveLevel: (levelMm: number, done: boolean) => void;
  /** Carries out what a warning offers. */
  mend: (mend: Mend, problem: Problem) => void;
}

const DeskContext = createContext<Desk | null>(null);

/** One set on the desk: its view, its plan, and every way to change them. */
export function DeskProvider({ initial, initialPlan, children }: { initial: DeskView; initialPlan: Plan | null; children: ReactNode }) {
  const setId = initial.set.id;
  const door = useEditDoor(initial, { view: 'desk', setId }, setScope(setId));
  const [draft, setDraft] = useState<Draft>({});
  const [selectedId, setSelectedId] = useState<string | null>(null);
  const desk = useMemo(() => withDraft(door.view, draft), [door.view, draft]);
  const request = useMemo(() => wholeSetRequest(desk), [desk]);
  const { plan, planning } = usePlan(request, initialPlan);
  const design = desk.designs.find(({ id }) => id === selectedId) ?? desk.designs[0] ?? null;
  const { run } = door;

  /** Shows a draft; once it is written (or refused) it gives way to the view that came back, unless a newer draft stands. */
  const propose = useCallback((next: Draft, write: (() => Promise<unknown>) | null) => {
    setDraft(next);
    void write?.().then(() => setDraft((current) => (current === next ? {} : current)));
  }, []);
  const shapeDesign = useCallback((id: string, data: PieceDesign, label: string, done = true) => {
    propose({ design: { id, data } }, done ? () => run(({ designs }) => putDesign(designs, id, data, label), label) : null);
  }, [propose, run]);
  const moveLevel = useCallback((levelMm: number, done: boolean) => {
    if (!waterSetSchema.shape.levelMm.safeParse(levelMm).success) return;
    propose({ levelMm }, done ? () => run(({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: { ...set.data, levelMm }, label: 'Move the level' }), 'Level moved') : null);
  }, [propose, run]);
  const mend = useCallback((what: Mend, problem: Problem) => void run((view) => applyMend(view, what, problem), what.label), [run]);

  const value: Desk = { desk, door, request, plan, planning, dragging: draft.design !== undefined || draft.levelMm !== undefined, design, select: setSelectedId, shapeDesign, moveLevel, mend };
  return (
    <DeskContext value={value}>
      <UnitsProvider units={desk.shelf.settings.data.units}>{children}</UnitsProvider>
    </DeskContext>
  );
}

/** The set on the desk. */
export function useDesk(): Desk {
  const desk = use(DeskContext);
  if (!desk) throw new Error('useDesk outside a desk');
  return desk;
}

function withDraft(view: DeskView, { levelMm, design }: Draft): DeskView {
  if (levelMm === undefined && !design) return view;
  return {
    ...view,
    set: levelMm === undefined ? view.set : { ...view.set, data: { ...view.set.data, levelMm } },
    designs: design ? view.designs.map((stored) => (stored.id === design.id ? { ...stored, data: design.data } : stored)) : view.designs,
  };
}

function putDesign(designs: DeskView['designs'], id: string, data: PieceDesign, label: string): ReturnType<Parameters<EditDoor<DeskView>['run']>[0]> {
  const stored = designs.find((candidate) => candidate.id === id);
  return stored ? { do: 'put', kind: 'design', id, version: stored.version, data, label } : null;
}
