import { promise } from '../schedule/promise';
import { schedule } from '../schedule/solve';
import { scheduleRequestSchema, type SchedulePlan, type ScheduleRequest } from '../schedule/scheduleRequest';
import { icsOf } from './icsFile';
import { commandFailed, readJson, roundedJson, type CommandResult, type FieldError } from './planFile';

/** What keeps a schedule from being made, each at the field of the request that it concerns. */
function stopsAt(request: ScheduleRequest, plan: SchedulePlan): FieldError[] {
  return plan.problems
    .filter(({ severity }) => severity === 'stop')
    .map(({ batchId, stepId, message, mend }) => {
      const b = request.batches.findIndex(({ id }) => id === batchId);
      const s = request.batches[b]?.steps.findIndex(({ id }) => id === stepId) ?? -1;
      const field = [...(b < 0 ? ['batches'] : ['batches', b]), ...(s < 0 ? [] : ['steps', s])].join('.');
      return { field, message: mend ? `${message} ${mend.label}` : message };
    });
}

function planned(text: string, write: (request: ScheduleRequest, plan: SchedulePlan) => string): CommandResult {
  const read = readJson(text, scheduleRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const plan = schedule(read.request);
  const stops = stopsAt(read.request, plan);
  return stops.length > 0 ? commandFailed(stops) : { output: write(read.request, plan), errors: '', exitCode: 0 };
}

/** The `schedule` command, without its files: the plan with its bound, and what may be promised. */
export const scheduleCommand = (text: string): CommandResult =>
  planned(text, (request, plan) => roundedJson({ ...plan, promise: promise(request, plan) }));

/** The same as a calendar file. */
export const scheduleIcsCommand = (text: string): CommandResult =>
  planned(text, (request, plan) => icsOf(request, plan, request.now));
