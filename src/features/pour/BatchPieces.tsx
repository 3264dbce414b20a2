'use client';

import { batchSchema, type Batch, type Stored } from '@/core/records/schema';
import { complaintAt, replaceAt } from '@/core/records/replaceAt';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import { useDesk } from '../desk/DeskContext';
import styles from './PourStage.module.css';

/** What is in a batch: its name, when it is poured, and how many of each design. Shut once a layer is poured. */
export function BatchPieces({ batch }: { batch: Stored<Batch> }) {
  const { desk, door } = useDesk();
  const { data } = batch;
  const shut = data.planned !== null;
  const change = (make: (data: Batch) => Batch, label: string): void => {
    void door.run(({ batches }) => {
      const stored = batches.find(({ id }) => id === batch.id);
      return stored
        ? { do: 'put', kind: 'batch', id: batch.id, version: stored.version, data: make(stored.data), label }
        : null;
    }, label);
  };
  const setCopies = (designId: string, copies: number): void => {
    const order = desk.designs.map(({ id }) => id);
    change((newest) => {
      const others = newest.items.filter((item) => item.designId !== designId);
      return {
        ...newest,
        items:
          copies === 0
            ? others
            : [...others, { designId, copies }].sort((a, b) => order.indexOf(a.designId) - order.indexOf(b.designId)),
      };
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
      {shut ? (
        <p className={styles.small}>The plan is kept as it was at the first pour, so that the log compares with it.</p>
      ) : (
        <>
          <WordField
            label="Pour at"
            type="datetime-local"
            value={data.pourAt}
            onCommit={(pourAt) => change((newest) => ({ ...newest, pourAt }), `Pour ${data.name} at another time`)}
            validate={(pourAt) => complaintAt(batchSchema, data, ['pourAt'], pourAt)}
          />
          <div className={styles.copies}>
            {desk.designs.map(({ id, data: design }) => (
              <MeasureField
                key={id}
                label={design.tag}
                quantity="number"
                value={data.items.find(({ designId }) => designId === id)?.copies ?? 0}
                validate={(copies) =>
                  copies === 0
                    ? null
                    : complaintAt(
                        batchSchema,
                        replaceAt(data, ['items'], [{ designId: id, copies: 1 }]),
                        ['items', 0, 'copies'],
                        copies,
                      )
                }
                onCommit={(copies) => setCopies(id, copies)}
              />
            ))}
          </div>
        </>
      )}
    </div>
  );
}
