'use client';

import IconButton from '@mui/material/IconButton';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { LampSwitch } from '@/ui/theme/LampSwitch';
import styles from './TopBar.module.css';

interface TopBarProps {
  door: {
    undo: () => void;
    redo: () => void;
    busy: boolean;
    view: { history: { undo: string | null; redo: string | null } };
  };
  room?: string;
  onFind?: () => void;
  onKeys?: () => void;
  children?: ReactNode;
}

/** The head of every screen: whose desk it is, and undo at hand. */
export function TopBar({ door, room, onFind, onKeys, children }: TopBarProps) {
  const { undo, redo } = door.view.history;
  return (
    <header className={styles.bar}>
      <Link href="/" className={styles.brand} aria-label="Aguada, all sets">
        Aguada
      </Link>
      <div className={styles.middle}>{children}</div>
      <div className={styles.tools}>
        {room && (
          <Link href="/shelf#workshop" className={styles.room} title="Room: temperature and humidity">
            {room}
          </Link>
        )}
        <Turn
          label={undo ? `Undo “${undo}”` : 'Nothing to undo'}
          disabled={!undo}
          onClick={door.undo}
          path="M7 4 3 8l4 4M3.5 8H12a4.5 4.5 0 0 1 0 9H9"
        />
        <Turn
          label={redo ? `Redo “${redo}”` : 'Nothing to redo'}
          disabled={!redo}
          onClick={door.redo}
          path="m13 4 4 4-4 4M16.5 8H8a4.5 4.5 0 0 0 0 9h3"
        />
        <LampSwitch />
        {onFind && (
          <button type="button" className={styles.key} onClick={onFind}>
            find <kbd>/</kbd>
          </button>
        )}
        {onKeys && (
          <button type="button" className={styles.key} onClick={onKeys}>
            keys <kbd>?</kbd>
          </button>
        )}
      </div>
    </header>
  );
}

function Turn({
  label,
  disabled,
  onClick,
  path,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  path: string;
}) {
  return (
    <IconButton size="small" aria-label={label} title={label} disabled={disabled} onClick={onClick}>
      <svg
        width="20"
        height="20"
        viewBox="0 0 20 20"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.7"
        strokeLinecap="round"
        strokeLinejoin="round"
        aria-hidden
      >
        <path d={path} />
      </svg>
    </IconButton>
  );
}
