import MiniSearch from 'minisearch';

/** What can be found, by kind, in the order in which kinds are listed. */
export const FINDABLE_KINDS = ['set', 'piece', 'batch', 'recipe', 'product', 'colourant', 'lot', 'note'] as const;
export type FindableKind = (typeof FINDABLE_KINDS)[number];

/** A thing that can be found: what it is called, what stands beneath its name, what else it is found by, and where it is. */
export interface Findable {
  id: string;
  kind: FindableKind;
  name: string;
  /** Of which set, when, how much. */
  under: string;
  /** Words that are not shown. */
  words: string;
  href: string;
}

const MOST_FOUND = 40;

/** An index of things by their words; `of` looks them up: every word counts, begun or with a slip of the finger, names before the rest. */
export function findIn(things: readonly Findable[]): { of: (line: string) => Findable[] } {
  const index = new MiniSearch<Findable>({ fields: ['name', 'under', 'words'], idField: 'id' });
  index.addAll(things);
  const byId = new Map(things.map((thing) => [thing.id, thing]));
  return {
    of: (line) =>
      index
        .search(line, {
          combineWith: 'AND',
          prefix: true,
          fuzzy: (term) => (term.length > 4 ? 0.2 : false),
          boost: { name: 4, under: 2 },
        })
        .slice(0, MOST_FOUND)
        .map(({ id }) => byId.get(id as string)!),
  };
}
