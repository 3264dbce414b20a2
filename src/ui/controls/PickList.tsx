'use client';

import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import type { ReactNode } from 'react';

interface PickListProps {
  label: string;
  items: readonly { id: string; content: ReactNode }[];
  chosenId: string | null;
  onChoose: (id: string) => void;
}

/** A list of which one is open. */
export function PickList({ label, items, chosenId, onChoose }: PickListProps) {
  return (
    <List aria-label={label} disablePadding dense>
      {items.map(({ id, content }) => (
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
