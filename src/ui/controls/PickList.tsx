'use client';

import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import { useDeferredValue, type ReactNode } from 'react';

interface PickListProps {
  label: string;
  items: readonly { id: string; content: ReactNode }[];
  chosenId: string | null;
  onChoose: (id: string) => void;
}

/** Rows that a page brings along; a long list is filled up a frame later. */
const FIRST_ROWS = 18;

/** A list of which one is open. */
export function PickList({ label, items, chosenId, onChoose }: PickListProps) {
  const filled = useDeferredValue(true, false);
  const shown = filled ? items : items.filter(({ id }, i) => i < FIRST_ROWS || id === chosenId);
  return (
    <List aria-label={label} disablePadding dense>
      {shown.map(({ id, content }) => (
        <ListItem key={id} disablePadding divider>
          <ListItemButton
            component="button"
            data-id={id}
            selected={id === chosenId}
            aria-pressed={id === chosenId}
            onClick={() => onChoose(id)}
          >
            {content}
          </ListItemButton>
        </ListItem>
      ))}
    </List>
  );
}
