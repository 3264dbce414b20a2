'use client';

import { complaintAt, replaceAt } from '@/core/records/replaceAt';
import { batchSchema, type Batch } from '@/core/records/schema';
import type { BatchRow } from '@/core/records/views';
import { DateTimeField } from '@/ui/controls/MomentField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import { useDesk } from './DeskContext';
import styles from './BatchPieces.module.css';

/** What is in a batch: its name, when it is poured, and how many of each design. Shut once a layer is poured. */
export function BatchPieces({ batch }: { batch: BatchRow }) {
  const { desk, door } = useDesk();
  const { data, poured } = batch;
  const change = (make: (data: Batch) => Batch, label: string): void => {
    void door.run(({ batches }) => {
      const stored = batches.find(({ id }) => id === batch.id) ?? batch;
      return { do: 'put', kind: 'batch', id: batch.id, version: stored.version, data: make(stored.data), label };
    }, label);
  };
  const setCopies = (designId: string, copies: number): void => {
    const order = desk.designs.map(({ id }) => id);
    change((newest) => {
      const others = newest.items.filter((item) => item.designId !== designId);
      const items = copies === 0 ? others : [...others, { designId, copies }];
      return { ...newest, items: items.sort((a, b) => order.indexOf(a.designId) - order.indexOf(b.designId)) };
    }, `Change the pieces of ${data.name}`);
  };
  return (
    <div className={styles.contents}>
      <WordField
        label="Name"
        value={data.name}
        onCommit={(name) => change((newest) => ({ ...newest, name }), 'Rename the batch')}
        validate={(name) => complaintAt(batchSchema, data, ['name'], name)}
      />
      {poured ? (
        <p className={styles.small}>The plan is kept as it was at the first pour, so that the log compares with it.</p>
      ) : (
        <>
          <DateTimeField
            label="Pour at"
            value={data.pourAt}
            onCommit={(pourAt) => change((newest) => ({ ...newest, pourAt }), `Pour ${data.name} at another time`)}
            error={complaintAt(batchSchema, data, ['pourAt'], data.pourAt)}
          />
          <div className={styles.copies}>
            {desk.designs.map(({ id, data: design }) => (
              <MeasureField
                key={id}
                label={design.tag}
                quantity="number"
                value={data.items.find(({ designId }) => designId === id)?.copies ?? 0}
                validate={(copies) => copiesComplaint(data, id, copies)}
                onCommit={(copies) => setCopies(id, copies)}
              />
            ))}
          </div>
        </>
      )}
    </div>
  );
}

const copiesComplaint = (data: Batch, designId: string, copies: number): string | null =>
  copies === 0
    ? null
    : complaintAt(batchSchema, replaceAt(data, ['items'], [{ designId, copies: 1 }]), ['items', 0, 'copies'], copies);
