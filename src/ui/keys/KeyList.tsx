'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { ReactNode } from 'react';
import type { Shortcut } from './useShortcuts';

const label = ({ key, mod, shift }: Shortcut): string =>
  [mod ? 'Ctrl' : '', shift ? 'Shift' : '', key.length === 1 ? key.toUpperCase() : key].filter(Boolean).join(' ');

/** The list of keys that `?` opens. */
export function KeyList({
  open,
  title = 'Keys',
  shortcuts,
  onClose,
  children,
}: {
  open: boolean;
  title?: string;
  shortcuts: readonly Shortcut[];
  onClose: () => void;
  /** What stands before the keys. */
  children?: ReactNode;
}) {
  const more = [
    ['Arrow keys', 'Move the level, a port, a rock, a waterline that has the focus (Shift: further)'],
    ['↑ ↓', 'In a measure field: one more, one less'],
    ['Enter / Esc', 'In a field: take it / put back what was there'],
  ];
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">{title}</DialogTitle>
      <DialogContent>
        {children}
        <Table size="small">
          <TableBody>
            {[...shortcuts.map((shortcut) => [label(shortcut), shortcut.does]), ...more].map(([keys, does]) => (
              <TableRow key={keys}>
                <TableCell component="th" scope="row">
                  <kbd>{keys}</kbd>
                </TableCell>
                <TableCell>{does}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
