import { planBatch, planRequestSchema, type Plan, type PlanRequest } from '../plan';

/** One thing wrong with a file: the field it concerns, dotted, and what to do about it. */
export interface FieldError {
  field: string;
  message: string;
}

/** What reading a plan request gave. */
export type ReadRequest = { ok: true; request: PlanRequest } | { ok: false; errors: FieldError[] };

/** Reads a plan request from JSON text. Never throws: broken JSON is an error of the field `(file)`. */
export function readPlanRequest(text: string): ReadRequest {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return { ok: false, errors: [{ field: '(file)', message: `This is not JSON: ${error instanceof Error ? error.message : String(error)}` }] };
  }
  const parsed = planRequestSchema.safeParse(json);
  if (parsed.success) return { ok: true, request: parsed.data };
  return { ok: false, errors: parsed.error.issues.map(({ path, message }) => ({ field: path.join('.') || '(file)', message })) };
}

/** What stands in the way of pouring a plan, each at the field of the request that it concerns. */
export function stopsOf(request: PlanRequest, plan: Plan): FieldError[] {
  return plan.problems
    .filter(({ severity }) => severity === 'stop')
    .map(({ tag, path, message }) => {
      const piece = request.pieces.findIndex((design) => design.tag === tag);
      return { field: [...(piece < 0 || path[0] === 'levelMm' ? [] : ['pieces', piece]), ...path].join('.'), message };
    });
}

/** JSON as files hold it: two spaces, a final newline. Figures are rounded to 1/10 000, far below any scale or ruler. */
export function planFileText(value: PlanRequest | Plan): string {
  const round = (_: string, item: unknown): unknown => (typeof item === 'number' ? Math.round(item * 10_000) / 10_000 : item);
  return `${JSON.stringify(value, value.format === 'aguada.plan' ? round : undefined, 2)}\n`;
}

/** The `plan` command, without its files: text in, text out, and the exit code. */
export function planCommand(text: string): { output: string; errors: string; exitCode: 0 | 2 } {
  const failed = (errors: readonly FieldError[]): ReturnType<typeof planCommand> => ({ output: '', errors: errors.map(({ field, message }) => `${field}: ${message}\n`).join(''), exitCode: 2 });
  const read = readPlanRequest(text);
  if (!read.ok) return failed(read.errors);
  const plan = planBatch(read.request);
  const stops = stopsOf(read.request, plan);
  return stops.length > 0 ? failed(stops) : { output: planFileText(plan), errors: '', exitCode: 0 };
}
