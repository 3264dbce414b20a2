import { editRequestSchema, scopeWanted, type Scope, type ViewWanted } from '@/core/records/command';
import type { EditAnswer } from '@/core/records/views';
import { EditRefusedError, history, StaleEditError } from '@/db/journal';
import { workOutAhead } from './figuresAhead';
import { changesOf } from './changes';
import { keepTodaySoon } from './backups';
import { withData } from './data';
import { answer, ownJson, refusalOf } from './respond';
import { runCommand } from './runCommand';
import { setCards, withLooks } from './views';

/**
 * Carries out the command in a request and answers with the rows it changed; a stale edit gets the newer row with its refusal, a
 * refused undo what can be undone by now.
 */
export function answerEdit(request: Request): Promise<Response> {
  return answer(async () => {
    const { command, wanted, key } = editRequestSchema.parse(await ownJson(request));
    try {
      const edit = await runCommand(command, scopeWanted(wanted), key ?? null);
      workOutAhead(edit);
      keepTodaySoon();
      return await withCards(edit, wanted);
    } catch (error) {
      const newer = newerThan(error, scopeWanted(wanted));
      const refusal = newer && refusalOf(error);
      if (!refusal) throw error;
      return Response.json({ ...refusal.body, ...newer }, { status: refusal.status });
    }
  });
}

/** What a screen does not know yet, when its edit is refused for that: the newer row, and what undo would do by now. */
function newerThan(error: unknown, scope: Scope): Pick<EditAnswer, 'changes' | 'history'> | null {
  if (!(error instanceof StaleEditError || error instanceof EditRefusedError)) return null;
  const touched = error instanceof StaleEditError ? [{ kind: error.kind, id: error.id, setId: null }] : [];
  return withData((db) => ({ changes: changesOf(db, touched), history: history(db, scope) }));
}

/** The list of sets shows cards: those of the sets that were changed; and the shelf, settings among it. */
async function withCards(edit: EditAnswer, wanted: ViewWanted): Promise<EditAnswer> {
  if (wanted.view !== 'sets') return edit;
  const ids = [
    ...new Set(edit.changes.flatMap(({ kind, id, setId }) => (kind === 'set' ? [id] : setId ? [setId] : []))),
  ];
  const cards = ids.length > 0 ? await withLooks(setCards(ids)) : [];
  return {
    ...edit,
    changes: edit.changes.filter(({ kind, setId }) => kind !== 'set' && setId === null),
    cards: ids.map((id) => ({ id, card: cards.find(({ set }) => set.id === id) ?? null })),
  };
}
