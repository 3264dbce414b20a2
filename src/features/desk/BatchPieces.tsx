'use client';

import Link from 'next/link';
import { shortTime } from '@/core/time/dayNames';
import { withPourAt } from '@/core/schedule/kept';
import { withCopies } from '@/core/records/copies';
import { complaintAt, replaceAt } from '@/core/records/replaceAt';
import { batchOwnSchema, batchSchema, type BatchOwn, type Batch } from '@/core/records/recordSchemas';
import type { BatchRow } from '@/core/records/views';
import { DateTimeField } from '@/ui/controls/MomentField';
import { Fold } from '@/ui/controls/Fold';
import { Toggles } from '@/ui/controls/Toggles';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { BenchWindows } from '@/ui/measure/BenchWindows';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import { useFetched } from '@/ui/useFetched';
import { useDesk } from './DeskContext';
import { GuestPieces } from './GuestPieces';
import styles from './BatchPieces.module.css';

/** What is in a batch: its name, when it is poured, and how many of each design. Shut once a layer is poured. */
export function BatchPieces({ batch }: { batch: BatchRow }) {
  const { desk, edits } = useDesk();
  const { data, poured } = batch;
  const change = (make: (data: Batch) => Batch, label: string): void => {
    void edits.run(({ batches }) => {
      const stored = batches.find(({ id }) => id === batch.id) ?? batch;
      return { do: 'put', kind: 'batch', id: batch.id, version: stored.version, data: make(stored.data), label };
    }, label);
  };
  const setCopies = (designId: string, copies: number, first?: number): void => {
    const order = [...desk.designs.map(({ id }) => id), ...(desk.guests ?? []).map(({ design }) => design.id)];
    const placeOf = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
    change((newest) => {
      const others = newest.items.filter((item) => item.designId !== designId);
      const now = newest.items.find((item) => item.designId === designId);
      const before = now ?? { designId, copies: 0, ...(first && { first }) };
      const items = copies === 0 ? others : [...others, withCopies(before, copies)];
      return { ...newest, items: items.sort((a, b) => placeOf(a.designId) - placeOf(b.designId)) };
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
            onCommit={(pourAt) => change((newest) => withPourAt(newest, pourAt), `Pour ${data.name} at another time`)}
            error={complaintAt(batchSchema, data, ['pourAt'], data.pourAt)}
            hint={data.course?.kept ? 'by the calendar that is kept on Cure' : 'when you wish it'}
          />
          {!data.course?.kept && <ByCalendar batch={batch} />}
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
          <GuestPieces
            batch={data}
            setCopies={setCopies}
            complaint={(designId, copies) => copiesComplaint(data, designId, copies)}
          />
          <Own batch={data} change={change} />
        </>
      )}
    </div>
  );
}

/** When the calendar as it stands would pour the batch: all that comes before it takes its time. */
function ByCalendar({ batch: { id, data } }: { batch: BatchRow }) {
  const { desk } = useDesk();
  const key = [desk.set, desk.shelf.settings, ...desk.batches].map((row) => `${row.id}.${row.version}`).join();
  const { data: times } = useFetched<Record<string, string>>(
    `/api/sets/${encodeURIComponent(desk.set.id)}/pour-times`,
    key,
  );
  const at = times?.[id];
  return (
    <p className={styles.small}>
      {at === undefined || at === data.pourAt
        ? 'When all that comes before it is done is in '
        : `With all that comes before it, about ${shortTime(at)}: see `}
      <Link href={`/sets/${desk.set.id}/cure`}>the calendar</Link>
    </p>
  );
}

interface OwnProps {
  batch: Batch;
  change: (make: (data: Batch) => Batch, label: string) => void;
}

const NO_FILLER = 'smallest';

/** In what a batch departs from the workshop: the room on the day, its cups, who pours, what leftovers fill. */
function Own({ batch, change }: OwnProps) {
  const { desk } = useDesk();
  const { room, cupGrams, benchWindows } = desk.shelf.settings.data;
  const putWindows = (windows: Batch['benchWindows']): void =>
    change((newest) => ({ ...newest, benchWindows: windows }), `Change when ${batch.name} is poured`);
  const own = batch.own ?? {};
  const departs = Object.keys(own).length > 0 || batch.benchWindows !== null;
  const put = (part: { [K in keyof BatchOwn]?: BatchOwn[K] | undefined }): void =>
    change(({ own: before, ...data }) => {
      const next = Object.fromEntries(
        Object.entries({ ...before, ...part }).filter(([, value]) => value !== undefined),
      ) as BatchOwn;
      return Object.keys(next).length > 0 ? { ...data, own: next } : data;
    }, `Change what ${batch.name} has of its own`);
  const complaint = (key: keyof BatchOwn) => (value: number) => complaintAt(batchOwnSchema, own, [key], value);
  return (
    <Fold summary={departs ? 'Room, cups, hands: its own' : 'Room, cups, hands: as the workshop'}>
      <div className={styles.own}>
        <MeasureField
          label="Room on that day"
          quantity="temperature"
          value={own.roomC ?? room.temperatureC}
          hint={own.roomC === undefined ? 'as in the workshop' : undefined}
          validate={complaint('roomC')}
          onCommit={(roomC) => put({ roomC: roomC === room.temperatureC ? undefined : roomC })}
        />
        <MeasureField
          label="A cup may hold"
          quantity="mass"
          value={own.cupGrams ?? cupGrams}
          step={10}
          hint={own.cupGrams === undefined ? 'as in the workshop' : undefined}
          validate={complaint('cupGrams')}
          onCommit={(grams) => put({ cupGrams: grams === cupGrams ? undefined : grams })}
        />
        <Toggles
          label="Pairs of hands"
          shown
          value={String(own.hands ?? 1) as '1' | '2'}
          choices={[
            { value: '1', label: 'one' },
            { value: '2', label: 'two' },
          ]}
          onChoose={(hands) => put({ hands: hands === '2' ? 2 : undefined })}
        />
        <ChoiceField
          label="Leftovers fill"
          value={own.fillerId ?? NO_FILLER}
          choices={[
            { value: NO_FILLER, label: 'the smallest piece' },
            ...desk.designs
              .filter(({ id }) => batch.items.some(({ designId }) => designId === id))
              .map(({ id, data }) => ({ value: id, label: data.tag })),
          ]}
          onCommit={(id) => put({ fillerId: id === NO_FILLER ? undefined : id })}
        />
        <ChoiceField
          label="Poured"
          value={batch.benchWindows ? 'own' : 'workshop'}
          choices={[
            { value: 'workshop', label: 'whenever at the bench' },
            { value: 'own', label: 'only at some times' },
          ]}
          onCommit={(which) => putWindows(which === 'own' ? [...benchWindows] : null)}
        />
        {batch.benchWindows && (
          <BenchWindows
            windows={batch.benchWindows}
            onChange={putWindows}
            none="None: nothing can be poured of this batch."
          />
        )}
      </div>
    </Fold>
  );
}

const copiesComplaint = (data: Batch, designId: string, copies: number): string | null =>
  copies === 0
    ? null
    : complaintAt(batchSchema, replaceAt(data, ['items'], [{ designId, copies: 1 }]), ['items', 0, 'copies'], copies);
