import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import { RECORD_SCHEMAS, type RecordData } from '@/core/records/recordSchemas';
import type { ShelfView } from '@/core/records/views';
import type { Command } from '@/core/records/command';
import type { Edits } from '../edits/useEdits';
import type { Stored } from '@/core/model/stored';

export type ShelfDoor = Edits<ShelfView>;
type ShelfKind = 'product' | 'colourant' | 'consumable' | 'settings';

function newestOf(view: ShelfView, kind: ShelfKind, id: string): Stored<object> | undefined {
  if (kind === 'settings') return view.settings;
  const lists = { product: view.products, colourant: view.colourants, consumable: view.consumables };
  return (lists[kind] as Stored<object>[]).find((stored) => stored.id === id);
}

/** Ways to change one record on the shelf: write a value at a path, and ask its schema about one first. */
export function fieldEdits<K extends ShelfKind>(
  edits: ShelfDoor,
  kind: K,
  stored: Stored<RecordData<K>>,
  name: string,
): {
  put: (path: Path, value: unknown) => void;
  /** Changes several values of a record in one edit. */
  putAll: (make: (data: RecordData<K>) => RecordData<K>) => void;
  validate: (path: Path) => (value: unknown) => string | null;
} {
  const schema = RECORD_SCHEMAS[kind] as never;
  const putAll = (make: (data: RecordData<K>) => RecordData<K>): void =>
    void edits.run((view) => {
      const newest = newestOf(view, kind, stored.id);
      return newest
        ? ({
            do: 'put',
            kind,
            id: stored.id,
            version: newest.version,
            data: make(newest.data as RecordData<K>),
            label: `Change ${name}`,
          } as Command)
        : null;
    }, `Changed ${name}`);
  return {
    putAll,
    put: (path, value) => putAll((data) => replaceAt(data, path, value)),
    validate: (path) => (value) => complaintAt(schema, stored.data as never, path, value),
  };
}
