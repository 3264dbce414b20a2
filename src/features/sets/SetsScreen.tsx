'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { dayAndMonth } from '@/core/cure/dayNames';
import { wholeSetRequest } from '@/core/records/buildRequest';
import type { WaterSet } from '@/core/records/schema';
import type { DeskView, SetsView } from '@/core/records/views';
import { KeyList } from '@/ui/keys/KeyList';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { WaterlineStrip } from '@/ui/waterline/WaterlineStrip';
import { countPieces } from '../desk/DeskFrame';
import { stripPieces } from '../desk/useBed';
import { DoorNotices } from '../door/DoorNotices';
import { useEditDoor } from '../door/editDoor';
import { TopBar } from '../TopBar';
import { statusWords } from '../pour/BatchList';
import { SetDialog } from './SetDialog';
import styles from './SetsScreen.module.css';

/** All sets, each as its waterline; the first screen. */
export function SetsScreen({ initial }: { initial: SetsView }) {
  const door = useEditDoor(initial, { view: 'sets' }, 'sets');
  const router = useRouter();
  const [opened, setOpened] = useState<'new' | 'keys' | null>(null);
  const { sets, shelf } = door.view;
  const firstSet: WaterSet = {
    name: '',
    figureScaleMm: 28,
    levelMm: 15,
    productId: shelf.products[0]?.id ?? '',
    recipeId: shelf.recipes[0]?.id ?? '',
    benchWindows: [],
    job: null,
  };
  const shortcuts: Shortcut[] = [
    { key: 'n', does: 'New set', run: () => setOpened('new') },
    { key: 'z', mod: true, shift: false, does: 'Undo', run: door.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: door.redo },
    { key: '?', does: 'This list', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  const sample = (): void => void door.run(() => ({ do: 'sample' }), 'The sample is loaded');
  return (
    <UnitsProvider units={shelf.settings.data.units}>
      <div className={styles.page}>
        <TopBar door={door} onKeys={() => setOpened('keys')}>
          <h1 className={styles.title}>Sets</h1>
        </TopBar>
        <main>
          <div className={styles.actions}>
            <Button variant="contained" onClick={() => setOpened('new')}>
              New set
            </Button>
            {sets.length > 0 && !sets.some(({ set }) => set.id === 'heron-slack') && (
              <Button onClick={sample}>Load the sample, Heron Slack</Button>
            )}
            <Link href="/shelf" className={styles.shelf}>
              Shelf
            </Link>
          </div>
          {sets.length === 0 ? (
            <Empty onNew={() => setOpened('new')} onSample={sample} />
          ) : (
            <ul className={styles.list}>
              {sets.map((desk) => (
                <SetRow key={desk.set.id} desk={desk} />
              ))}
            </ul>
          )}
        </main>
        <DoorNotices door={door} />
        <KeyList open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
        {opened === 'new' && (
          <SetDialog
            title="New set"
            action="Make the set"
            draftKey="aguada.new-set"
            initial={firstSet}
            shelf={shelf}
            onClose={() => setOpened(null)}
            onSave={async (data) => {
              const outcome = await door.run(() => ({
                do: 'add',
                kind: 'set',
                data,
                label: `Make the set ${data.name}`,
              }));
              if (outcome.ok && outcome.id) router.push(`/sets/${outcome.id}/shape`);
              return outcome;
            }}
          />
        )}
      </div>
    </UnitsProvider>
  );
}

function SetRow({ desk }: { desk: DeskView }) {
  const { set, designs, batches } = desk;
  const recipe = useMemo(() => wholeSetRequest(desk)?.recipe, [desk]);
  const pieces = useMemo(
    () => stripPieces(designs, set.data.levelMm, recipe, null),
    [designs, set.data.levelMm, recipe],
  );
  const { job, name, figureScaleMm } = set.data;
  return (
    <li className={styles.set}>
      <div className={styles.head}>
        <h2>
          <Link href={`/sets/${set.id}/shape`}>{name}</Link>
        </h2>
        <p>
          {[
            `${figureScaleMm} mm`,
            countPieces(designs.map(({ data }) => data)) || 'no pieces yet',
            `${batches.length} ${batches.length === 1 ? 'batch' : 'batches'}`,
            job?.customer,
            job?.due && `for ${dayAndMonth(job.due)}`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      {pieces.length > 0 && (
        <WaterlineStrip label={`${name} at eye level`} pieces={pieces} levelMm={set.data.levelMm} heightPx={140} />
      )}
      {batches.length > 0 && (
        <ul className={styles.batches} aria-label={`Batches of ${name}`}>
          {batches.map(({ id, data }) => (
            <li key={id}>
              <Link href={`/sets/${set.id}/pour?batch=${id}`}>{data.name}</Link> {statusWords(data, null)}
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}

function Empty({ onNew, onSample }: { onNew: () => void; onSample: () => void }) {
  return (
    <section className={styles.empty}>
      <h2>Nothing on the table yet</h2>
      <p>
        A set is the pieces that stand together: creek tiles, shore boards, bases. They share one water level, one
        product and one tint. Start with its name and the height of the water above the underside; Aguada works out the
        rest, from grams of resin to the hour when it is cured.
      </p>
      <div className={styles.actions}>
        <Button variant="contained" onClick={onNew}>
          Make the first set
        </Button>
        <Button onClick={onSample}>Look at the sample, Heron Slack</Button>
      </div>
    </section>
  );
}
