import type { z } from 'zod';

/** Values that a test says itself, by their place: `measured.readings[].xMm`. */
export type Given = Readonly<Record<string, unknown>>;

const parses = (schema: z.core.$ZodType, value: unknown): boolean => (schema as z.ZodType).safeParse(value).success;

const TEXTS = (n: number): string[] => [
  `text-${n}`,
  `t${n}`,
  `2026-11-${String((n % 27) + 1).padStart(2, '0')}T10:${String(n % 60).padStart(2, '0')}`,
  `2026-11-${String((n % 27) + 1).padStart(2, '0')}`,
  `#${(n * 7919 + 4096).toString(16).padStart(6, '0').slice(-6)}`,
  '€',
  n.toString(16).padStart(64, '0'),
];
const NUMBERS = (n: number): number[] => [
  n / 16 + 3,
  n + 3,
  (n % 13) + 6,
  (n % 40) / 64 + 0.25,
  (n % 90) / 100,
  (n % 9) / 100 + 0.005,
  (n % 6) + 1,
  (n % 2) + 1,
  1,
];

/**
 * A value of a schema in which every field is filled, each with one of its own: nothing that may be left out is, lists of alternatives hold
 * one of each, and records all their keys. What a schema wants of several fields together is `given`.
 */
export function filled(schema: z.core.$ZodType, given: Given = {}): unknown {
  let count = 0;
  const leaf = (one: z.core.$ZodType, values: readonly unknown[], at: string): unknown => {
    const found = values.find((value) => parses(one, value));
    if (found === undefined) throw new Error(`No value was found for ${at}`);
    return found;
  };
  const make = (one: z.core.$ZodType, at: string): unknown => {
    if (at in given) return given[at];
    const { def } = one._zod as unknown as { def: Record<string, unknown> };
    const inner = (def.innerType ??
      (def.type === 'pipe'
        ? (def.in as z.core.$ZodType)._zod.def.type === 'transform'
          ? def.out
          : def.in
        : undefined)) as z.core.$ZodType | undefined;
    if (inner) return make(inner, at);
    switch (def.type) {
      case 'object':
        return Object.fromEntries(
          Object.entries(def.shape as Record<string, z.core.$ZodType>).map(([key, part]) => [
            key,
            make(part, at === '' ? key : `${at}.${key}`),
          ]),
        );
      case 'array': {
        const element = def.element as z.core.$ZodType;
        const options = alternatives(element);
        if (options) return options.map((option) => make(option, `${at}[]`));
        return leaf(
          one,
          [1, 2, 3, 4].map((length) => Array.from({ length }, () => make(element, `${at}[]`))),
          at,
        );
      }
      case 'tuple':
        return (def.items as z.core.$ZodType[]).map((item, i) => make(item, `${at}[${i}]`));
      case 'union':
        return leaf(
          one,
          (def.options as z.core.$ZodType[]).map((option) => make(option, at)),
          at,
        );
      case 'record': {
        const keys = (def.keyType as z.core.$ZodType)._zod.def as unknown as { type: string; entries?: object };
        const names =
          keys.type === 'enum' ? Object.values(keys.entries!) : [make(def.keyType as z.core.$ZodType, `${at}{}`)];
        return Object.fromEntries(
          names.map((name) => [String(name), make(def.valueType as z.core.$ZodType, `${at}{}`)]),
        );
      }
      case 'enum':
        return Object.values(def.entries as object).at(-1);
      case 'literal':
        return (def.values as unknown[])[0];
      case 'boolean':
        return true;
      case 'null':
        return null;
      case 'number':
      case 'int':
        return leaf(one, NUMBERS(++count), at);
      case 'string':
        return leaf(one, TEXTS(++count), at);
      default:
        throw new Error(`No value is known for ${String(def.type)} at ${at}`);
    }
  };
  return make(schema, '');
}

/** The objects of a union told apart by a field: every kind of feature is filled. */
function alternatives(schema: z.core.$ZodType): z.core.$ZodType[] | null {
  const { def } = schema._zod as unknown as {
    def: { type: string; options?: z.core.$ZodType[]; discriminator?: string };
  };
  return def.type === 'union' && def.discriminator ? def.options! : null;
}
