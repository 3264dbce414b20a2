import { pieceDesignSchema } from '@/core/model/designSchema';
import type { Mend, Problem } from '@/core/model/problem';
import type { Command } from '@/core/records/command';
import { replaceAt } from '@/core/records/replaceAt';
import { batchSchema, waterSetSchema } from '@/core/records/recordSchemas';
import { withPourAt } from '@/core/schedule/kept';
import type { DeskView } from '@/core/records/views';

/** The edit that carries out a mend, or null when what it would mend is gone. `batchId` says which batch a batch's mend is for. */
export function applyMend(view: DeskView, mend: Mend, problem: Problem, batchId?: string): Command | null {
  const { label, path, value } = mend;
  if (mend.target === 'set') {
    const { id, version, data } = view.set;
    return { do: 'put', kind: 'set', id, version, data: waterSetSchema.parse(replaceAt(data, path, value)), label };
  }
  if (mend.target === 'design') {
    const design = view.designs.find(({ id }) => id === problem.piece?.designId);
    if (!design) return null;
    const { id, version, data } = design;
    return {
      do: 'put',
      kind: 'design',
      id,
      version,
      data: pieceDesignSchema.parse(replaceAt(data, path, value)),
      label,
    };
  }
  const batch = view.batches.find(({ id }) => id === batchId);
  if (mend.target !== 'batch' || !batch) return null;
  const { id, version, data } = batch;
  const changed = batchSchema.parse(replaceAt(data, path, value));
  const moved = changed.pourAt === data.pourAt ? changed : withPourAt(changed, changed.pourAt);
  return { do: 'put', kind: 'batch', id, version, data: moved, label };
}
