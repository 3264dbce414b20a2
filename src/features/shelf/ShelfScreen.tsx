'use client';

import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import type { ShelfView } from '@/core/records/views';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { BackupsPanel } from '../backups/BackupsPanel';
import { DevicesPanel } from '../devices/DevicesPanel';
import { EditNotices } from '../edits/EditNotices';
import { shelfWith } from '../edits/applyChanges';
import { useEdits } from '../edits/useEdits';
import { UnreadableNotice } from '../edits/UnreadableNotice';
import { Finder } from '../find/Finder';
import { HelpDialog } from '../help/HelpDialog';
import { TopBar } from '../TopBar';
import { ColourantShelf } from './ColourantShelf';
import { ProductShelf } from './ProductShelf';
import { Consumables } from './stock/Consumables';
import { StockShelf } from './stock/StockShelf';
import styles from './ShelfScreen.module.css';
import { Workshop } from './Workshop';

const SECTIONS = [
  { id: 'stock', name: 'What stands here' },
  { id: 'products', name: 'Products' },
  { id: 'colourants', name: 'Colourants' },
  { id: 'consumables', name: 'Consumables' },
  { id: 'workshop', name: 'Workshop' },
  { id: 'devices', name: 'Devices' },
  { id: 'copies', name: 'Copies of the data' },
] as const;

/** The shelf: products and colourants with their figures, and what holds for the whole workshop. */
export function ShelfScreen({ initial }: { initial: ShelfView }) {
  const edits = useEdits(initial, { view: 'shelf' }, shelfWith);
  const settings = edits.view.settings.data;
  const params = useSearchParams();
  const from = params.get('from');
  const to = params.get('to');
  useEffect(() => {
    if (!to) return;
    const id = CSS.escape(to);
    focusSoon(
      () =>
        document.querySelector<HTMLElement>(`[data-lot="${id}"]`) ??
        controlIn(document.querySelector(`[data-id="${id}"]`)),
    );
  }, [to]);
  const [opened, setOpened] = useState<'find' | 'keys' | null>(null);
  const shortcuts: Shortcut[] = [
    { key: 'z', mod: true, shift: false, does: 'Undo', run: edits.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: edits.redo },
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  return (
    <UnitsProvider units={settings.units}>
      <CalendarProvider calendar={settings.calendar}>
        <div className={styles.page}>
          <TopBar edits={edits} onFind={() => setOpened('find')} onKeys={() => setOpened('keys')}>
            <h1 className={styles.title}>Shelf</h1>
            <Link href={from ? `/sets/${from}/shape` : '/'} className={styles.back}>
              {from ? 'Back to the set' : 'All sets'}
            </Link>
          </TopBar>
          <main className={styles.main}>
            <UnreadableNotice unreadable={edits.view.unreadable} />
            <nav className={styles.sections} aria-label="Sections of the shelf">
              {SECTIONS.map(({ id, name }) => (
                <a key={id} href={`#${id}`}>
                  {name}
                </a>
              ))}
            </nav>
            <StockShelf edits={edits} asked={to} />
            <ProductShelf edits={edits} chosen={params.get('product')} />
            <ColourantShelf edits={edits} />
            <Consumables edits={edits} />
            <Workshop edits={edits} />
            <section aria-label="Devices" id="devices">
              <h2 className={styles.heading}>Devices</h2>
              <DevicesPanel />
            </section>
            <section aria-label="Copies" id="copies">
              <h2 className={styles.heading}>Copies</h2>
              <BackupsPanel onPutBack={() => window.location.reload()} />
            </section>
          </main>
          <EditNotices edits={edits} />
          <HelpDialog page="shelf" open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
          {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
        </div>
      </CalendarProvider>
    </UnitsProvider>
  );
}
