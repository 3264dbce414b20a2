import { sql } from 'drizzle-orm';
import { FEATURE_NAMES, type FeatureKind } from '@/core/model/designSchema';
import type { Findable } from '@/core/records/findable';
import { daysAfter } from '@/core/records/workshopLog';
import { dayWithYear } from '@/core/time/dayNames';
import { listDocuments } from './documents';
import type { Connection } from './storage';

interface SetLine {
  id: string;
  name: string;
  customer: string | null;
  due: string | null;
  recipeId: string;
}
interface NoteLine {
  batchId: string;
  batch: string;
  setId: string;
  layer: number;
  cup: number;
  at: string;
  note: string;
}

const day = (date: string | null): string => (date ? dayWithYear(date.slice(0, 10)) : '');
const under = (...parts: (string | null)[]): string => parts.filter(Boolean).join(' · ');

/** Everything of the workshop that can be found, with where it is. */
export function findable(db: Connection): Findable[] {
  const sets = db.all<SetLine>(sql`
    select id, json_extract(data, '$.name') as name, json_extract(data, '$.job.customer') as customer,
      json_extract(data, '$.job.due') as due, recipe_id as recipeId from sets order by position`);
  const nameOf = new Map(sets.map(({ id, name }) => [id, name]));
  const homeOf = new Map(sets.map(({ id, recipeId }) => [recipeId, id]));
  const designs = db.all<{ id: string; setId: string; tag: string; name: string; kind: string; features: string }>(sql`
    select id, set_id as setId, json_extract(data, '$.tag') as tag, json_extract(data, '$.name') as name,
      json_extract(data, '$.kind') as kind,
      (select group_concat(json_extract(f.value, '$.kind')) from json_each(data, '$.features') f) as features
    from designs`);
  const batches = db.all<{ id: string; setId: string; name: string; at: string }>(sql`
    select b.id as id, b.set_id as setId, b.name as name,
      coalesce((select max(poured_at) from current_pours c where c.batch_id = b.id), b.pour_at) as at from batches b`);
  const named = (table: 'products' | 'colourants' | 'recipes'): { id: string; name: string }[] =>
    db.all(sql`select id, json_extract(data, '$.name') as name from ${sql.raw(table)}`);
  const lots = db.all<{ id: string; name: string; boughtOn: string; itemId: string; kind: string }>(sql`
    select id, name, bought_on as boughtOn, item_id as itemId, item_kind as kind from lots where gone = 0`);
  const notes = db.all<NoteLine>(sql`
    select b.id as batchId, b.name as batch, b.set_id as setId, c.layer as layer, 0 as cup, c.poured_at as at, c.note as note
      from current_pours c join batches b on b.id = c.batch_id where c.note <> ''
    union all
    select b.id, b.name, b.set_id, c.layer, w.cup, c.poured_at, w.note
      from current_pours c join batches b on b.id = c.batch_id join weighings w on w.pour_id = c.id where w.note <> ''`);
  const products = named('products');
  const thingOf = new Map([...products, ...named('colourants')].map(({ id, name }) => [id, name]));
  return [
    ...sets.map(({ id, name, customer, due }) => ({
      id: `set ${id}`,
      kind: 'set' as const,
      name,
      under: under(customer, due && `due ${day(due)}`),
      words: due ?? '',
      href: `/sets/${id}/shape`,
    })),
    ...designs.map(({ id, setId, tag, name, kind, features }) => ({
      id: `piece ${id}`,
      kind: 'piece' as const,
      name: `${tag} ${name}`,
      under: nameOf.get(setId) ?? '',
      words: `${kind} ${kind}s ${(features ?? '')
        .split(',')
        .map((one) => FEATURE_NAMES[one as FeatureKind] ?? '')
        .join(' ')}`,
      href: `/sets/${setId}/shape?piece=${encodeURIComponent(id)}`,
    })),
    ...batches.map(({ id, setId, name, at }) => ({
      id: `batch ${id}`,
      kind: 'batch' as const,
      name,
      under: under(nameOf.get(setId) ?? '', day(at)),
      words: at.slice(0, 10),
      href: `/sets/${setId}/pour?batch=${encodeURIComponent(id)}`,
    })),
    ...named('recipes').flatMap(({ id, name }) => {
      const home = homeOf.get(id) ?? sets[0]?.id;
      return home
        ? [{ id: `recipe ${id}`, kind: 'recipe' as const, name, under: 'tint', words: '', href: `/sets/${home}/tint` }]
        : [];
    }),
    ...products.map(({ id, name }) => ({
      id: `product ${id}`,
      kind: 'product' as const,
      name,
      under: 'on the shelf',
      words: '',
      href: `/shelf?product=${encodeURIComponent(id)}`,
    })),
    ...named('colourants').map(({ id, name }) => ({
      id: `colourant ${id}`,
      kind: 'colourant' as const,
      name,
      under: 'on the shelf',
      words: '',
      href: `/shelf?to=${encodeURIComponent(id)}`,
    })),
    ...lots.map(({ id, name, boughtOn, itemId }) => ({
      id: `lot ${id}`,
      kind: 'lot' as const,
      name,
      under: under(thingOf.get(itemId) ?? '', `bought ${day(boughtOn)}`),
      words: boughtOn,
      href: `/shelf?to=${encodeURIComponent(id)}`,
    })),
    ...notes.map(({ batchId, batch, setId, layer, cup, at, note }) => ({
      id: `note ${batchId} ${layer} ${cup}`,
      kind: 'note' as const,
      name: note,
      under: under(nameOf.get(setId) ?? '', `${batch}, layer ${layer}${cup > 0 ? `, cup ${cup}` : ''}`, day(at)),
      words: at.slice(0, 10),
      href: `/sets/${setId}/log?batch=${encodeURIComponent(batchId)}`,
    })),
    ...listDocuments(db, 'note').records.map(({ id, data: { at, text, setId } }) => ({
      id: `note ${id}`,
      kind: 'note' as const,
      name: text.slice(0, 120),
      under: under((setId && nameOf.get(setId)) ?? '', 'in the log of the workshop', day(at)),
      words: at.slice(0, 10),
      href: `/log?before=${daysAfter(at.slice(0, 10), 1)}&kinds=note`,
    })),
  ];
}
