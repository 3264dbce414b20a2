'use client';

import { copyName } from '@/core/model/pieceRef';
import type { PieceDesign } from '@/core/model/designSchema';
import type { Stored } from '@/core/model/stored';
import { waterAsMixed } from '@/core/records/waterAsMixed';
import type { PieceWater } from '@/core/model/pieceWaterSchema';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useDesk } from '../desk/DeskContext';
import { readDetail } from '../desk/useBatch';

interface CopyWaterProps {
  design: Stored<PieceDesign>;
  copy: number;
  water: PieceWater | undefined;
  onWater: (water: PieceWater | undefined, label: string) => void;
}

const OF_THE_SET = 'set';
const AS_KEPT = 'kept';

/** Which water a copy has: the set's recipe, or that of the batch in which it was poured. Its seams are judged in that colour. */
export function CopyWater({ design, copy, water, onWater }: CopyWaterProps) {
  const { desk } = useDesk();
  const tag = copyName(design.data.tag, copy);
  const poured = desk.batches.filter((row) => row.poured !== null);
  const choose = async (value: string): Promise<void> => {
    if (value === AS_KEPT) return;
    if (value === OF_THE_SET) return onWater(undefined, `Take the set’s recipe for ${tag}`);
    const row = poured.find(({ id }) => id === value);
    const kept = (await readDetail(value))?.kept;
    if (row && kept)
      onWater(waterAsMixed(kept, row.data.name, { designId: design.id, copy }), `Say when ${tag} was poured`);
  };
  return (
    <ChoiceField
      label="Its water, for its seams"
      value={water ? AS_KEPT : OF_THE_SET}
      choices={[
        { value: OF_THE_SET, label: 'the set’s recipe' },
        ...(water ? [{ value: AS_KEPT, label: `as mixed in ${water.name}` }] : []),
        ...poured
          .filter(({ data }) => data.name !== water?.name)
          .map(({ id, data }) => ({ value: id, label: `as mixed in ${data.name}` })),
      ]}
      onCommit={(value) => void choose(value)}
    />
  );
}
