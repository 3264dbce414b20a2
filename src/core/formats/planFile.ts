import type { z } from 'zod';
import { samePiece } from '../model/pieceRef';
import { planBatch, planRequestSchema, refOfPiece, type Plan, type PlanRequest } from '../plan';

/** One thing wrong with a file: the field it concerns, dotted, and what to do about it. */
export interface FieldError {
  field: string;
  message: string;
}

/** What reading a file gave. */
export type ReadFile<T> = { ok: true; request: T } | { ok: false; errors: FieldError[] };

/** Reads JSON text against a schema. Never throws: broken JSON is an error of the field `(file)`. */
export function readJson<T>(text: string, schema: z.ZodType<T>): ReadFile<T> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return {
      ok: false,
      errors: [
        { field: '(file)', message: `This is not JSON: ${error instanceof Error ? error.message : String(error)}` },
      ],
    };
  }
  const parsed = schema.safeParse(json);
  if (parsed.success) return { ok: true, request: parsed.data };
  return {
    ok: false,
    errors: parsed.error.issues.map(({ path, message }) => ({ field: path.join('.') || '(file)', message })),
  };
}

/** Reads a plan request. */
export const readPlanRequest = (text: string): ReadFile<PlanRequest> => readJson(text, planRequestSchema);

/** What stands in the way of pouring a plan, each at the field of the request that it concerns. */
export function stopsOf(request: PlanRequest, plan: Plan): FieldError[] {
  return plan.problems
    .filter(({ severity }) => severity === 'stop')
    .map(({ piece: ref, path, message }) => {
      const piece = request.pieces.findIndex((design) => ref !== undefined && samePiece(refOfPiece(design), ref));
      return { field: [...(piece < 0 || path[0] === 'levelMm' ? [] : ['pieces', piece]), ...path].join('.'), message };
    });
}

/** JSON as files hold it: two spaces, a final newline. Figures are rounded to 1/10 000, far below any scale or ruler. */
export const planFileText = (value: PlanRequest | Plan): string =>
  value.format === 'aguada.plan' ? roundedJson(value) : `${JSON.stringify(value, null, 2)}\n`;

/** What was worked out, rounded, as text. */
export function roundedJson(value: object): string {
  const round = (_: string, item: unknown): unknown =>
    typeof item === 'number' ? Math.round(item * 10_000) / 10_000 : item;
  return `${JSON.stringify(value, round, 2)}\n`;
}

/** What a command gives back: text for standard output, text for standard error, and the exit code. */
export interface CommandResult {
  output: string;
  errors: string;
  exitCode: 0 | 2;
}

/** Errors as the command prints them: one line each, the field first. */
export const commandFailed = (errors: readonly FieldError[]): CommandResult => ({
  output: '',
  errors: errors.map(({ field, message }) => `${field}: ${message}\n`).join(''),
  exitCode: 2,
});

/** The `plan` command, without its files: text in, text out, and the exit code. */
export function planCommand(text: string): CommandResult {
  const read = readPlanRequest(text);
  if (!read.ok) return commandFailed(read.errors);
  const plan = planBatch(read.request);
  const stops = stopsOf(read.request, plan);
  return stops.length > 0 ? commandFailed(stops) : { output: planFileText(plan), errors: '', exitCode: 0 };
}
