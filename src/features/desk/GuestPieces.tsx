'use client';

import type { Batch } from '@/core/records/recordSchemas';
import type { Guest } from '@/core/records/views';
import { sameLevel } from '@/core/records/guests';
import { Fold } from '@/ui/controls/Fold';
import { Held } from '@/ui/held/Held';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from './DeskContext';
import { NotRead } from '@/ui/held/NotRead';
import { useFetched } from '@/ui/useFetched';
import styles from './BatchPieces.module.css';

interface GuestPiecesProps {
  batch: Batch;
  setCopies: (designId: string, copies: number, first?: number) => void;
  complaint: (designId: string, copies: number) => string | null;
}

/** Pieces of other sets that a batch takes along: their water has to stand at the same level. */
export function GuestPieces(props: GuestPiecesProps) {
  const { desk } = useDesk();
  const here = (desk.guests ?? []).filter(({ design }) =>
    props.batch.items.some(({ designId }) => designId === design.id),
  );
  return (
    <>
      {here
        .filter(({ set }) => !sameLevel(set, desk.set.data))
        .map(({ set, design }) => (
          <p key={design.id} role="status" className={styles.small}>
            {`${design.data.tag} of ${set.name} stands at another level now: it is left out until the levels agree.`}
          </p>
        ))}
      <Fold summary={here.length > 0 ? `Of other sets: ${here.length}` : 'Pieces of another set'}>
        <Choices {...props} />
      </Fold>
    </>
  );
}

function Choices({ batch, setCopies, complaint }: GuestPiecesProps) {
  const { desk, edits } = useDesk();
  const { data: found, failed, again } = useFetched<Guest[]>(`/api/sets/${encodeURIComponent(desk.set.id)}/guests`, '');
  if (failed && !found) return <NotRead what="The other sets could not be read." again={again} />;
  if (!found) return <Held label="Looking at the other sets" />;
  if (found.length === 0)
    return (
      <p className={styles.small}>No other set’s water stands at this set’s level. Layers are poured level by level.</p>
    );
  const take = (guest: Guest, copies: number): void => {
    const { id } = guest.design;
    edits.show((view) => ({
      ...view,
      guests: [...(view.guests ?? []).filter(({ design }) => design.id !== id), guest],
    }));
    const there = batch.items.find(({ designId }) => designId === id);
    setCopies(id, copies, there ? undefined : guest.taken + 1);
  };
  return (
    <div className={styles.copies}>
      {found.map((guest) => (
        <MeasureField
          key={guest.design.id}
          label={`${guest.design.data.tag}, ${guest.set.name}`}
          quantity="number"
          value={batch.items.find(({ designId }) => designId === guest.design.id)?.copies ?? 0}
          validate={(copies) => complaint(guest.design.id, copies)}
          onCommit={(copies) => take(guest, copies)}
        />
      ))}
    </div>
  );
}
