'use client';

import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import type { Shelf, ViewState } from '@/core/records/views';
import { CalendarProvider } from '@/ui/controls/CalendarContext';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { EditNotices } from './edits/EditNotices';
import { UnreadableNotice } from './edits/UnreadableNotice';
import type { Edits } from './edits/useEdits';
import { Finder } from './find/Finder';
import { HelpDialog } from './help/HelpDialog';
import type { HelpPage } from './help/helpTexts';
import { TopBar } from './TopBar';
import styles from './PageFrame.module.css';

interface PageFrameProps<V> {
  edits: Edits<V>;
  title: string;
  /** What its help is called. */
  page: HelpPage;
  /** Pages that lie beside it. */
  ways: readonly { href: string; words: string }[];
  widthPx: number;
  children: ReactNode;
}

/** What pages of the workshop have in common: the maker's units and dates, the bar with the ways beside it, undo, finder and help. */
export function PageFrame<V extends Pick<Shelf, 'settings'> & ViewState>({
  edits,
  title,
  page,
  ways,
  widthPx,
  children,
}: PageFrameProps<V>) {
  const { settings, unreadable } = edits.view;
  const [opened, setOpened] = useState<'find' | 'keys' | null>(null);
  const shortcuts: Shortcut[] = [
    { key: 'z', mod: true, shift: false, does: 'Undo', run: edits.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: edits.redo },
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  return (
    <UnitsProvider units={settings.data.units}>
      <CalendarProvider calendar={settings.data.calendar}>
        <div className={styles.page} style={{ maxWidth: widthPx }}>
          <TopBar edits={edits} onFind={() => setOpened('find')} onKeys={() => setOpened('keys')}>
            <h1 className={styles.title}>{title}</h1>
            {ways.map(({ href, words }) => (
              <Link key={href} href={href} className={styles.way}>
                {words}
              </Link>
            ))}
          </TopBar>
          <main>
            <UnreadableNotice unreadable={unreadable} />
            {children}
          </main>
          <EditNotices edits={edits} />
          <HelpDialog page={page} open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
          {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
        </div>
      </CalendarProvider>
    </UnitsProvider>
  );
}
