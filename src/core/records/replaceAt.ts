import type { z } from 'zod';

export type Path = readonly (string | number)[];

/** A copy of a record with the value at a path replaced; everything else is shared. */
export function replaceAt<T>(data: T, path: Path, value: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return value as T;
  if (Array.isArray(data))
    return data.map((item: unknown, i) => (i === key ? replaceAt(item, rest, value) : item)) as T;
  return { ...data, [key]: replaceAt((data as Record<string, unknown> | undefined)?.[key], rest, value) };
}

/** What a schema says against a value put in place of another, at that very field or below; null when it takes it. */
export function complaintAt<T>(schema: z.ZodType<T>, data: T, path: Path, value: unknown): string | null {
  const issues = schema.safeParse(replaceAt(data, path, value)).error?.issues ?? [];
  return issues.find((issue) => path.every((part, i) => issue.path[i] === part))?.message ?? null;
}

/** Complaints of a failed parse, by dotted field; the first of each field. */
export function complaintsByField(error: z.ZodError): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const { path, message } of error.issues) fields[path.join('.')] ??= message;
  return fields;
}
