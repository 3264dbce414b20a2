'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { KeyList } from '@/ui/keys/KeyList';
import type { Shortcut } from '@/ui/keys/useShortcuts';
import { HelpEntries } from './HelpEntries';
import { HELP, type HelpPage } from './helpTexts';

interface HelpDialogProps {
  open: boolean;
  page: HelpPage;
  shortcuts: readonly Shortcut[];
  onClose: () => void;
}

/** What `?` opens: what each figure and picture of the page says, and its keys. */
export function HelpDialog({ open, page, shortcuts, onClose }: HelpDialogProps) {
  return (
    <KeyList open={open} title="Help" shortcuts={shortcuts} onClose={onClose}>
      <HelpEntries entries={HELP[page]} />
      <Button variant="text" size="small" component={Link} href="/booklet">
        All of it as a booklet to print
      </Button>
    </KeyList>
  );
}
