import type { Mend, Problem } from '@/core/checks/problem';
import type { Command } from '@/core/records/command';
import { replaceAt } from '@/core/records/replaceAt';
import { batchSchema, waterSetSchema } from '@/core/records/schema';
import type { DeskView } from '@/core/records/views';
import { pieceDesignSchema } from '@/core/bed/schema';

/** The edit that carries out a mend, or null when what it would mend is gone. `batchId` says which batch a batch's mend is for. */
export function applyMend(view: DeskView, mend: Mend, problem: Problem, batchId?: string): Command | null {
  if (mend.target === 'set') {
    return {
      do: 'put',
      kind: 'set',
      id: view.set.id,
      version: view.set.version,
      data: waterSetSchema.parse(replaceAt(view.set.data, mend.path, mend.value)),
      label: mend.label,
    };
  }
  if (mend.target === 'design') {
    const design = view.designs.find(
      ({ data }) => data.tag === problem.tag || problem.tag?.startsWith(`${data.tag} #`),
    );
    return design
      ? {
          do: 'put',
          kind: 'design',
          id: design.id,
          version: design.version,
          data: pieceDesignSchema.parse(replaceAt(design.data, mend.path, mend.value)),
          label: mend.label,
        }
      : null;
  }
  const batch = view.batches.find(({ id }) => id === batchId);
  return mend.target === 'batch' && batch
    ? {
        do: 'put',
        kind: 'batch',
        id: batch.id,
        version: batch.version,
        data: batchSchema.parse(replaceAt(batch.data, mend.path, mend.value)),
        label: mend.label,
      }
    : null;
}
