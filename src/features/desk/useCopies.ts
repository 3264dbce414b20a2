import type { CopyInBatch } from '@/core/records/copies';
import { useFetched, type Fetched } from '@/ui/useFetched';
import { useDesk } from './DeskContext';

/** The copies of the set that batches have taken; read anew when a batch has changed, or what was poured of it. */
export function useCopies(): Fetched<CopyInBatch[]> {
  const { desk } = useDesk();
  const key = desk.batches.map(({ id, version }) => `${id}.${version}`).join();
  return useFetched(`/api/sets/${encodeURIComponent(desk.set.id)}/copies`, key);
}
