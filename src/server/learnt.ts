import type { LearnRequest } from '@/core/formats/learnFile';
import { learntFigures } from '@/core/learn/figures';
import type { LearntFigure } from '@/core/learn/learntFigure';
import { planDifference } from '@/core/plan/whatIf';
import { batchRequest } from '@/core/records/buildRequest';
import {
  standingOf,
  withChanged,
  withFigures,
  type Figured,
  type LearntEffect,
  type LearntView,
} from '@/core/records/learnt';
import type { BatchRow, ClockAndRoom, SetDocuments, Shelf } from '@/core/records/views';
import type { Stored } from '@/core/model/stored';
import { usualRoute } from '@/core/schedule/routes';
import { batchFacts } from '@/core/schedule/facts';
import { getBatch } from '@/db/batches';
import { openBatches } from '@/db/openBatches';
import { batchDetail } from '@/db/pours';
import { batchNames, recordedWork } from '@/db/recordedWork';
import type { Database } from '@/db/storage';
import { wallClockNow } from './clock';
import { withData } from './data';
import { amountsOf } from './figures';
import { answer, RequestError } from './respond';
import { setsToPlan, shelfAndState } from './views';

const figuresNow = (db: Database, shelf: Shelf): LearntFigure[] => learntFigures(recordedWork(db), standingOf(shelf));

/** More of a figure are not told apart on a screen: the newest are handed out. */
const MOST_DOTS = 120;

/** What the record says of the figures that plans are made with, as its page begins. */
export const learntView = (): LearntView =>
  withData((db) => {
    const shelf = shelfAndState(db, 'log');
    const figures = figuresNow(db, shelf).map((figure) => ({ ...figure, dots: figure.dots.slice(-MOST_DOTS) }));
    const shown = new Set(figures.flatMap(({ dots }) => dots.flatMap(({ batchId }) => batchId ?? [])));
    return { ...shelf, figures, batches: batchNames(db, [...shown]) };
  });

/** The same once something has changed. */
export const learntAnswer = (): Promise<Response> =>
  answer(() => {
    const { figures, batches } = learntView();
    return { figures, batches };
  });

/** The record that figures are learnt from, as the `learn` command reads it. */
export const recordAnswer = (): Promise<Response> =>
  answer(() =>
    withData((db): LearnRequest => {
      const { products, colourants, learning, ...rest } = standingOf(shelfAndState(db, 'log'));
      const own = <T>(stored: readonly Stored<T>[]): { id: string; data: T }[] =>
        stored.map(({ id, data }) => ({ id, data }));
      const standing = { ...rest, products: own(products), colourants: own(colourants), ...(learning && { learning }) };
      return { format: 'aguada.learn-request', version: 1, ...standing, ...recordedWork(db) };
    }),
  );

/** What a figure that is taken over would change of the batches that are still to be poured. */
async function effectOf(id: string): Promise<LearntEffect[]> {
  const { shelf, figure, open } = withData((db) => {
    const known = shelfAndState(db, 'log');
    return {
      shelf: known,
      figure: figuresNow(db, known).find((one) => one.id === id),
      open: openBatches(db, wallClockNow()),
    };
  });
  if (!figure) throw new RequestError(404, 'Nothing on record says anything of this figure.');
  const now = figure.fields.map((field) => field.now);
  const { settings, products, colourants } = withChanged(shelf, withFigures(figure, now, shelf));
  const changed = { settings, products, colourants };
  const sets = setsToPlan([...new Set(open.map(({ setId }) => setId))]);
  const effects = await Promise.all(
    open.map(async ({ id: batchId, setId }) => {
      const set = sets.get(setId);
      const row = withData((db) => (batchDetail(db, batchId).kept ? null : getBatch(db, batchId)));
      return set && row ? effectOn(set, row, changed, figure) : null;
    }),
  );
  return effects.flatMap((effect) => effect ?? []);
}

async function effectOn(
  set: SetDocuments & ClockAndRoom,
  row: BatchRow,
  changed: Figured,
  { kind, of }: LearntFigure,
): Promise<LearntEffect | null> {
  const nothing = { batchId: row.id, kept: null, pours: [] };
  const [was, now] = [set, { ...set, shelf: { ...set.shelf, ...changed } }].map((one) =>
    batchRequest(one, row.data, nothing),
  );
  if (!was || !now) return null;
  const [before, after] = await Promise.all([amountsOf(was), amountsOf(now)]);
  const difference = planDifference({ request: was, amounts: before }, { request: now, amounts: after });
  const minutes =
    kind === 'step' && !set.set.data.route
      ? stepMinutes(set, row, of!, changed, batchFacts(was, before))
      : { was: 0, now: difference.minutes };
  const by = (from: number, more: number): { was: number; now: number } => ({ was: from, now: from + more });
  const effect = {
    batchId: row.id,
    name: row.data.name,
    setId: set.set.id,
    set: set.set.data.name,
    mixGrams: by(before.totals.mixGrams, difference.mixGrams),
    cups: by(before.totals.cups, difference.cups),
    minutes,
    money: by(before.cost.total, difference.money),
  };
  const moved = [effect.mixGrams, effect.cups, effect.minutes, effect.money].some(
    (one) => Math.abs(one.now - one.was) > 1e-6,
  );
  return moved ? effect : null;
}

/** Minutes at the bench of one step of a batch, before and with other figures. */
function stepMinutes(
  set: SetDocuments,
  row: BatchRow,
  kind: string,
  changed: Pick<Shelf, 'settings'>,
  facts: ReturnType<typeof batchFacts>,
): { was: number; now: number } {
  const pieces = row.data.items.reduce((sum, { copies }) => sum + copies, 0);
  const [was, now] = [set.shelf.settings, changed.settings].map(({ data }) => {
    const step = usualRoute(facts, data.stepMinutes).find((one) => one.kind === kind && one.on);
    return step ? step.perBatchMinutes + pieces * step.perPieceMinutes : 0;
  });
  return { was: was!, now: now! };
}

export const effectAnswer = (request: Request): Promise<Response> =>
  answer(async () => {
    const id = new URL(request.url).searchParams.get('figure') ?? '';
    return { effects: await effectOf(id) };
  });
