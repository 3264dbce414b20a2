'use client';

import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Link from 'next/link';
import type { ReactNode } from 'react';
import type { History } from '@/core/records/views';
import { LampSwitch } from '@/ui/theme/LampSwitch';
import styles from './TopBar.module.css';

interface TopBarProps {
  edits: { undo: () => void; redo: () => void; busy: boolean; sentShare: number | null; view: { history: History } };
  room?: string;
  onFind?: () => void;
  onKeys?: () => void;
  children?: ReactNode;
}

/** The head of every screen: whose desk it is, and undo at hand. */
export function TopBar({ edits, room, onFind, onKeys, children }: TopBarProps) {
  const { undo, redo } = edits.view.history;
  return (
    <header className={styles.bar}>
      <Link href="/" className={styles.brand} aria-label="Aguada, all sets">
        Aguada
      </Link>
      <div className={styles.middle}>{children}</div>
      <div className={styles.tools}>
        {edits.sentShare !== null && (
          <span role="status" className={styles.sent}>{`sending, ${Math.round(100 * edits.sentShare)} %`}</span>
        )}
        {room && (
          <Link href="/shelf#workshop" className={styles.room} title="Room: temperature and humidity">
            {room}
          </Link>
        )}
        <Turn
          label={undo ? `Undo “${undo.label}”` : 'Nothing to undo'}
          disabled={!undo}
          onClick={edits.undo}
          icon={<UndoIcon />}
        />
        <Turn
          label={redo ? `Redo “${redo.label}”` : 'Nothing to redo'}
          disabled={!redo}
          onClick={edits.redo}
          icon={<RedoIcon />}
        />
        <LampSwitch />
        {onFind && (
          <Button variant="text" size="small" className={styles.key ?? ''} onClick={onFind}>
            find <kbd>/</kbd>
          </Button>
        )}
        {onKeys && (
          <Button variant="text" size="small" className={styles.key ?? ''} onClick={onKeys}>
            help <kbd>?</kbd>
          </Button>
        )}
      </div>
    </header>
  );
}

interface TurnProps {
  label: string;
  disabled: boolean;
  onClick: () => void;
  icon: ReactNode;
}

function Turn({ label, disabled, onClick, icon }: TurnProps) {
  return (
    <IconButton size="small" aria-label={label} title={label} disabled={disabled} onClick={onClick}>
      {icon}
    </IconButton>
  );
}
