'use client';

import { useSearchParams } from 'next/navigation';
import { createContext, use, useCallback, useMemo, useState, type ReactNode } from 'react';
import { withoutJoints } from '@/core/bed/joints';
import type { PieceDesign } from '@/core/model/designSchema';
import type { Mend, Problem } from '@/core/model/problem';
import { unpackStrip, type PackedStrip } from '@/core/picture/packedStrip';
import type { StripPiece } from '@/core/picture/strip';
import type { Amounts, PlanRequest } from '@/core/plan';
import { drawnDesigns, setTint, wholeSetRequest } from '@/core/records/buildRequest';
import { waterSetSchema } from '@/core/records/recordSchemas';
import type { DeskView } from '@/core/records/views';
import type { Recipe } from '@/core/model/recipeSchema';
import type { WaterTint } from '@/core/tint/waterTint';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { deskWith } from '../edits/applyChanges';
import { useEdits, type Edits, type MakeCommand } from '../edits/useEdits';
import { applyMend } from './applyMend';
import { useAmounts, type Served } from './useAmounts';
import type { Stored } from '@/core/model/stored';

/** What is being dragged and not written yet. */
interface Draft {
  levelMm?: number;
  design?: { id: string; change: (data: PieceDesign) => PieceDesign };
  recipe?: { id: string; change: (data: Recipe) => Recipe };
}

/** The set as it is kept, and every way to change it. Stands still while something is dragged. */
interface Desk {
  desk: DeskView;
  edits: Edits<DeskView>;
  /** Id of the design that is open. */
  openId: string | null;
  select: (designId: string) => void;
  /**
   * Changes a design: shown at once, and written when `done`. The change is made to the newest design each time,
   * so that quick edits one after another do not undo each other.
   */
  shapeDesign: (id: string, change: (data: PieceDesign) => PieceDesign, label: string, done?: boolean) => void;
  /** The same for a recipe of the shelf. */
  tintRecipe: (id: string, change: (data: Recipe) => Recipe, label: string, done?: boolean) => void;
  /** Changes the set's own document, at once. */
  changeSet: (change: (set: DeskView['set']['data']) => DeskView['set']['data'], label: string) => void;
  moveLevel: (levelMm: number, done: boolean) => void;
  /** Carries out what a warning offers; of which batch, where it is about one. */
  mend: (mend: Mend, problem: Problem, batchId?: string) => void;
}

/** The set as it is on screen, what is dragged included. Changes with every movement: for pictures only. */
interface LiveDesk {
  designs: DeskView['designs'];
  levelMm: number;
  tint: WaterTint;
  dragging: boolean;
  /** The strip that came with the page, while nothing that it shows has changed. */
  served: StripPiece[] | null;
}

/** The amounts of the whole set, a moment behind the picture while something is dragged. */
interface DeskPlan {
  request: PlanRequest | null;
  plan: Amounts | null;
  planning: boolean;
  /** The amounts that still come in with the page. */
  later: Promise<Amounts> | null;
}

const DeskContext = createContext<Desk | null>(null);
const LiveContext = createContext<LiveDesk | null>(null);
const PlanContext = createContext<DeskPlan | null>(null);

interface DeskProviderProps {
  initial: DeskView;
  /** What the server worked out of the whole set. */
  plan: Served<Amounts> | null;
  strip: PackedStrip | null;
  children: ReactNode;
}

/** One set on the desk: its view, its plan, and every way to change them. */
export function DeskProvider({ initial, plan, strip, children }: DeskProviderProps) {
  const edits = useEdits(initial, { view: 'desk', setId: initial.set.id }, deskWith);
  const [draft, setDraft] = useState<Draft>({});
  // The piece that the address asks for, until another is chosen.
  const asked = useSearchParams().get('piece');
  const [selected, setSelected] = useState<{ id: string; asked: string | null } | null>(null);
  const selectedId = selected?.asked === asked ? selected.id : asked;
  const select = useCallback((id: string) => setSelected({ id, asked }), [asked]);
  const desk = edits.view;
  const openId = desk.designs.find(({ id }) => id === selectedId)?.id ?? desk.designs[0]?.id ?? null;
  const { run } = edits;

  /** Shows a draft; once it is written (or refused) it gives way to the view that came back, unless a newer draft stands. */
  const propose = useCallback((next: Draft, write: (() => Promise<unknown>) | null) => {
    setDraft(next);
    void write?.().then(() => setDraft((current) => (current === next ? {} : current)));
  }, []);
  const shapeDesign = useCallback<Desk['shapeDesign']>(
    (id, change, label, done = true) => {
      propose({ design: { id, change } }, done ? () => run(putDesign(id, change, label), label) : null);
    },
    [propose, run],
  );
  const tintRecipe = useCallback<Desk['tintRecipe']>(
    (id, change, label, done = true) => {
      propose({ recipe: { id, change } }, done ? () => run(putRecipe(id, change, label), label) : null);
    },
    [propose, run],
  );
  const changeSet = useCallback<Desk['changeSet']>(
    (change, label) =>
      void run(
        ({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: change(set.data), label }),
        label,
      ),
    [run],
  );
  const moveLevel = useCallback<Desk['moveLevel']>(
    (levelMm, done) => {
      if (!waterSetSchema.shape.levelMm.safeParse(levelMm).success) return;
      const write: MakeCommand<DeskView> = ({ set: { id, version, data } }) => ({
        do: 'put',
        kind: 'set',
        id,
        version,
        data: { ...data, levelMm },
        label: 'Move the level',
      });
      propose({ levelMm }, done ? () => run(write, 'Level moved') : null);
    },
    [propose, run],
  );
  const mend = useCallback<Desk['mend']>(
    (what, problem, batchId) => void run((view) => applyMend(view, what, problem, batchId), what.label),
    [run],
  );

  const value = useMemo<Desk>(
    () => ({ desk, edits, openId, select, shapeDesign, tintRecipe, changeSet, moveLevel, mend }),
    [desk, edits, openId, select, shapeDesign, tintRecipe, changeSet, moveLevel, mend],
  );
  const { units, calendar } = desk.shelf.settings.data;
  return (
    <DeskContext value={value}>
      <UnitsProvider units={units}>
        <CalendarProvider calendar={calendar}>
          <LiveProvider draft={draft} view={desk} plan={plan} strip={strip}>
            {children}
          </LiveProvider>
        </CalendarProvider>
      </UnitsProvider>
    </DeskContext>
  );
}

/** The parts of a view that a set is drawn and planned from; the rest may change without anything being drawn anew. */
function useDocuments(view: DeskView): DeskView {
  const { set, designs, pieces, shelf } = view;
  // Only these make it another view; the batches and the history in it are those of when they last changed.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => view, [set, designs, pieces, shelf]);
}

/** Lays the draft over the view, for pictures at once and for the plan through the worker. */
function LiveProvider({
  draft,
  view: newest,
  plan: servedPlan,
  strip,
  children,
}: {
  draft: Draft;
  view: DeskView;
  plan: Served<Amounts> | null;
  strip: PackedStrip | null;
  children: ReactNode;
}) {
  const view = useDocuments(newest);
  const [first] = useState(view);
  const [served] = useState(() => strip && unpackStrip(strip, first.designs, first.set.data.levelMm));
  const drafted = useMemo(() => withDraft(view, draft), [view, draft]);
  // A dose that is dragged moves no bed: grams are asked for when it is let go.
  const shaped = draft.recipe ? view : drafted;
  const request = useMemo(() => wholeSetRequest(shaped), [shaped]);
  // The same tint all through the drag of a shape.
  const tinted = draft.recipe ? drafted : view;
  const tint = useMemo(() => setTint(tinted), [tinted]);
  const { amounts, planning, later } = useAmounts(request, servedPlan);
  const live = useMemo<LiveDesk>(
    () => ({
      designs: drawnDesigns(drafted),
      levelMm: drafted.set.data.levelMm,
      tint,
      dragging: drafted !== view,
      served: drafted === first ? served : null,
    }),
    [drafted, view, tint, first, served],
  );
  const planned = useMemo<DeskPlan>(
    () => ({ request, plan: amounts, planning, later }),
    [request, amounts, planning, later],
  );
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

const changed = <T,>(all: readonly Stored<T>[], { id, change }: { id: string; change: (data: T) => T }): Stored<T>[] =>
  all.map((stored) => (stored.id === id ? { ...stored, data: change(stored.data) } : stored));

function withDraft(view: DeskView, { levelMm, design, recipe }: Draft): DeskView {
  if (levelMm === undefined && !design && !recipe) return view;
  return {
    ...view,
    set: levelMm === undefined ? view.set : { ...view.set, data: { ...view.set.data, levelMm } },
    designs: design ? changed(view.designs, design) : view.designs,
    shelf: recipe ? { ...view.shelf, recipes: changed(view.shelf.recipes, recipe) } : view.shelf,
  };
}

const putRecipe =
  (id: string, change: (data: Recipe) => Recipe, label: string): MakeCommand<DeskView> =>
  ({ shelf }) => {
    const stored = shelf.recipes.find((candidate) => candidate.id === id);
    return stored ? { do: 'put', kind: 'recipe', id, version: stored.version, data: change(stored.data), label } : null;
  };

const putDesign =
  (id: string, change: (data: PieceDesign) => PieceDesign, label: string): MakeCommand<DeskView> =>
  ({ designs }: { designs: readonly Stored<PieceDesign>[] }) => {
    const stored = designs.find((candidate) => candidate.id === id);
    return stored
      ? { do: 'put', kind: 'design', id, version: stored.version, data: withoutJoints(change(stored.data)), label }
      : null;
  };
