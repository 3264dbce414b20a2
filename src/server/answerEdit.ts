import { editRequestSchema, type ViewWanted } from '@/core/records/command';
import { StaleEditError } from '@/db/journal';
import { answer, ownJson, refusalOf } from './respond';
import { runCommand } from './runCommand';
import { viewOf } from './views';

/** Carries out the command in a request and answers with the view it wants; a stale edit gets the newer view with its refusal. */
export function answerEdit(request: Request): Promise<Response> {
  return answer(async () => {
    const body = await ownJson(request);
    const { command, wanted } = editRequestSchema.parse(body);
    try {
      const { id } = runCommand(command);
      // A set that removes itself has no desk to show any more.
      const gone =
        command.do === 'remove' && command.kind === 'set' && wanted.view === 'desk' && wanted.setId === command.id;
      return { id, view: gone ? null : viewOf(wanted) };
    } catch (error) {
      if (error instanceof StaleEditError) return staleAnswer(error, wanted);
      throw error;
    }
  });
}

function staleAnswer(error: StaleEditError, wanted: ViewWanted): Response {
  const refusal = refusalOf(error);
  return Response.json({ ...refusal?.body, view: viewOf(wanted) }, { status: refusal?.status ?? 409 });
}
