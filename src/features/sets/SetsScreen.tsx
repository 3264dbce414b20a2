'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { settingsSchema } from '@/core/records/recordSchemas';
import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import type { SetCard, SetsView } from '@/core/records/views';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { FileButton } from '@/ui/controls/FileButton';
import { sendFile } from '../backups/askBackups';
import { EditNotices } from '../edits/EditNotices';
import { setsWith, withAllSets } from '../edits/applyChanges';
import { useEdits, type Edits } from '../edits/useEdits';
import { UnitFields } from '../desk/UnitFields';
import { UnreadableNotice } from '../edits/UnreadableNotice';
import { Finder } from '../find/Finder';
import { HelpDialog } from '../help/HelpDialog';
import { TopBar } from '../TopBar';
import { firstSet } from './setDraft';
import { SetDialog } from './SetDialog';
import { SetsTable } from './SetsTable';
import styles from './SetsScreen.module.css';

/** All sets, each as its waterline; the first screen. */
export function SetsScreen({ initial }: { initial: SetsView }) {
  const edits = useEdits(initial, { view: 'sets' }, setsWith);
  const router = useRouter();
  const [opened, setOpened] = useState<'new' | 'keys' | 'find' | null>(null);
  const { sets, setCount, shelf } = edits.view;
  const known = sets.length >= setCount;
  const { show } = edits;
  useEffect(() => {
    if (known) return;
    let gone = false;
    void fetch('/api/sets')
      .then(async (response) => (response.ok ? ((await response.json()) as { sets: SetCard[] }).sets : null))
      .then((all) => all && !gone && show((view) => withAllSets(view, all)), reportError);
    return () => {
      gone = true;
    };
  }, [known, show]);
  const shortcuts: Shortcut[] = [
    { key: 'n', does: 'New set', run: () => setOpened('new') },
    { key: 'z', mod: true, shift: false, does: 'Undo', run: edits.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: edits.redo },
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  const [trouble, setTrouble] = useState<string | null>(null);
  const takeIn = async (file: File): Promise<void> => {
    setTrouble(null);
    const outcome = await sendFile(file, 'set', () => undefined);
    if (!outcome.ok) setTrouble(`${file.name}: ${outcome.message}`);
    else if (outcome.answer.setId) router.push(`/sets/${outcome.answer.setId}/shape`);
  };
  const sample = (): void => void edits.run(() => ({ do: 'sample' }), 'The sample is loaded');
  return (
    <UnitsProvider units={shelf.settings.data.units}>
      <CalendarProvider calendar={shelf.settings.data.calendar}>
        <div className={styles.page}>
          <TopBar edits={edits} onFind={() => setOpened('find')} onKeys={() => setOpened('keys')}>
            <h1 className={styles.title}>Sets</h1>
          </TopBar>
          <main>
            <UnreadableNotice unreadable={edits.view.unreadable} />
            <div className={styles.actions}>
              <Button variant="contained" onClick={() => setOpened('new')}>
                New set
              </Button>
              {sets.length > 0 && known && !sets.some(({ set }) => set.id === 'heron-slack') && (
                <Button onClick={sample}>Load the sample, Heron Slack</Button>
              )}
              <FileButton
                label="Take in a set"
                name="An archive of a set, as it was handed on"
                accept=".zip"
                size="medium"
                onFile={(file) => void takeIn(file)}
              />
              <nav className={styles.elsewhere} aria-label="Workshop">
                <Link href="/bench">Bench</Link>
                <Link href="/log">Log</Link>
                <Link href="/shelf">Shelf</Link>
              </nav>
            </div>
            {trouble && (
              <p role="alert" className={styles.trouble}>
                {trouble}
              </p>
            )}
            {sets.length === 0 ? (
              <Empty edits={edits} onNew={() => setOpened('new')} onSample={sample} />
            ) : (
              <SetsTable sets={sets} count={setCount} now={edits.view.now} />
            )}
          </main>
          <EditNotices edits={edits} />
          <HelpDialog page="sets" open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
          {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
          {opened === 'new' && (
            <SetDialog
              title="New set"
              action="Make the set"
              draftKey="aguada.new-set"
              initial={firstSet(shelf.products[0]?.id ?? '', shelf.recipes[0]?.id ?? '', shelf.settings.data.units)}
              shelf={shelf}
              onClose={() => setOpened(null)}
              onSave={async (data) => {
                const outcome = await edits.run(() => ({
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
      </CalendarProvider>
    </UnitsProvider>
  );
}

interface EmptyProps {
  edits: Edits<SetsView>;
  onNew: () => void;
  onSample: () => void;
}

/** Before the first set: what a set is, and how the maker measures and writes, asked this once. */
function Empty({ edits, onNew, onSample }: EmptyProps) {
  const { settings } = edits.view.shelf;
  const put = (path: Path, value: unknown): void =>
    void edits.run(({ shelf: { settings: newest } }) => ({
      do: 'put',
      kind: 'settings',
      id: newest.id,
      version: newest.version,
      data: replaceAt(newest.data, path, value),
      label: 'Change units and dates',
    }));
  return (
    <section className={styles.empty}>
      <h2>Nothing on the table yet</h2>
      <p>
        A set is the pieces that stand together: creek tiles, shore boards, bases. They share one water level, one
        product and one tint. Start with its name and the height of the water above the underside; Aguada works out the
        rest, from grams of resin to the hour when it is cured.
      </p>
      <fieldset className={styles.habits}>
        <legend>How you measure and write</legend>
        <UnitFields
          settings={settings.data}
          put={put}
          validate={(path) => (value) => complaintAt(settingsSchema, settings.data, path, value)}
        />
      </fieldset>
      <div className={styles.actions}>
        <Button variant="contained" onClick={onNew}>
          Make the first set
        </Button>
        <Button onClick={onSample}>Look at the sample, Heron Slack</Button>
      </div>
    </section>
  );
}
