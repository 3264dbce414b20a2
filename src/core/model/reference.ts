import { z } from 'zod';

/** What can be named by another thing. */
export type Thing =
  | 'product'
  | 'colourant'
  | 'recipe'
  | 'consumable'
  | 'set'
  | 'design'
  | 'piece'
  | 'batch'
  | 'lot'
  | 'standard'
  | 'table';

/**
 * What becomes of the record that names a thing when that thing goes: the removal is `refused`, the record `goes along`, the entry of
 * the list that names it is `dropped`, or the name `stays` and is read as gone.
 */
export type WhenGone = 'refused' | 'goes along' | 'dropped' | 'stays';

/** Declared at the schema, once: which field names what. */
export interface Reference {
  to: Thing;
  whenGone: WhenGone;
}

const references = z.registry<Reference>();

/** The id of another thing (or of the thing itself, where it is kept whole). What depends on whom, what is missing and new ids follow from it. */
export const reference = (to: Thing, whenGone: WhenGone = 'stays'): z.ZodString =>
  z.string().min(1).max(40).register(references, { to, whenGone });

type Path = (string | number)[];
/** What becomes of an id: another one, the same, or nothing, by which the entry of the list that holds it is dropped. */
export type OnReference = (id: string, reference: Reference, path: Path) => string | null;

/** Said of a value in which a reference was let go: the list that holds it leaves it out. */
const DROPPED = Symbol('dropped');

interface Def {
  type: string;
  shape?: Record<string, z.core.$ZodType>;
  element?: z.core.$ZodType;
  innerType?: z.core.$ZodType;
  in?: z.core.$ZodType;
  out?: z.core.$ZodType;
  options?: z.core.$ZodType[];
  keyType?: z.core.$ZodType;
  valueType?: z.core.$ZodType;
  items?: z.core.$ZodType[];
  left?: z.core.$ZodType;
  right?: z.core.$ZodType;
}
const defOf = (schema: z.core.$ZodType): Def => (schema as unknown as { _zod: { def: Def } })._zod.def;

/** Walks a value along its schema and gives every reference in it to `on`; the value with what that gave back. */
export function mapReferences<T>(schema: z.core.$ZodType, value: T, on: OnReference): T {
  const walked = walk(schema, value, on, []);
  return walked as T;
}

function walk(schema: z.core.$ZodType, value: unknown, on: OnReference, path: Path): unknown {
  if (value === undefined || value === null) return value;
  const named = references.get(schema);
  if (named && typeof value === 'string') return on(value, named, path) ?? DROPPED;
  const def = defOf(schema);
  const inner = def.innerType ?? (def.type === 'pipe' ? pipeOf(def) : undefined);
  if (inner) return walk(inner, value, on, path);
  if (def.left && def.right) return walk(def.right, walk(def.left, value, on, path), on, path);
  if (def.options) {
    const fits = def.options.find((option) => (option as z.ZodType).safeParse(value).success) ?? def.options[0]!;
    return walk(fits, value, on, path);
  }
  if (Array.isArray(value)) {
    const of = (i: number): z.core.$ZodType | undefined => def.element ?? def.items?.[i];
    return value
      .map((part: unknown, i) => (of(i) ? walk(of(i)!, part, on, [...path, i]) : part))
      .filter((part) => part !== DROPPED);
  }
  if (typeof value !== 'object') return value;
  const entries = Object.entries(value).map(([key, part]): [string, unknown] => {
    const own = def.shape?.[key] ?? def.valueType;
    const name = def.keyType ? walk(def.keyType, key, on, [...path, key]) : key;
    return [String(name), own ? walk(own, part, on, [...path, key]) : part];
  });
  return entries.some(([, part]) => part === DROPPED) ? DROPPED : Object.fromEntries(entries);
}

/** What a pipe lets in; of a preprocessed value what it is made into. */
const pipeOf = (def: Def): z.core.$ZodType | undefined =>
  def.in && defOf(def.in).type === 'transform' ? def.out : def.in;

/** Every reference in a value, with its place. */
export function referencesIn(schema: z.core.$ZodType, value: unknown): (Reference & { id: string; path: Path })[] {
  const found: (Reference & { id: string; path: Path })[] = [];
  mapReferences(schema, value, (id, named, path) => {
    found.push({ ...named, id, path });
    return id;
  });
  return found;
}

/** Whether records of a schema name things of a kind at all, and what becomes of them then. */
export function namesIn(schema: z.core.$ZodType): Reference[] {
  const found = new Map<string, Reference>();
  const seen = new Set<z.core.$ZodType>();
  const visit = (one: z.core.$ZodType | undefined): void => {
    if (!one || seen.has(one)) return;
    seen.add(one);
    const named = references.get(one);
    if (named) found.set(`${named.to} ${named.whenGone}`, named);
    const { shape = {}, options = [], items = [], ...def } = defOf(one);
    for (const part of [...Object.values(shape), ...options, ...items]) visit(part);
    for (const part of [def.element, def.innerType, def.in, def.out, def.keyType, def.valueType, def.left, def.right])
      visit(part);
  };
  visit(schema);
  return [...found.values()];
}
