import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import { RECORD_SCHEMAS, type RecordData, type Stored } from '@/core/records/schema';
import type { ShelfView } from '@/core/records/views';
import type { Command } from '@/core/records/command';
import type { EditDoor } from '../door/editDoor';

export type ShelfDoor = EditDoor<ShelfView>;
type ShelfKind = 'product' | 'colourant' | 'settings';

function versionOf(view: ShelfView, kind: ShelfKind, id: string): number | undefined {
  if (kind === 'settings') return view.settings.version;
  return (kind === 'product' ? view.products : view.colourants).find((stored) => stored.id === id)?.version;
}

/** Ways to change one record on the shelf: write a value at a path, and ask its schema about one first. */
export function fieldEdits<K extends ShelfKind>(door: ShelfDoor, kind: K, stored: Stored<RecordData<K>>, name: string): { put: (path: Path, value: unknown) => void; validate: (path: Path) => (value: unknown) => string | null } {
  const schema = RECORD_SCHEMAS[kind] as never;
  return {
    put: (path, value) =>
      void door.run((view) => {
        const version = versionOf(view, kind, stored.id);
        return version ? ({ do: 'put', kind, id: stored.id, version, data: replaceAt(stored.data, path, value), label: `Change ${name}` } as Command) : null;
      }, `Changed ${name}`),
    validate: (path) => (value) => complaintAt(schema, stored.data as never, path, value),
  };
}
