'use client';

import Autocomplete from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useDesk } from './DeskContext';

interface Found {
  key: string;
  group: string;
  label: string;
  go: () => void;
}

/** Gives the focus to something that is about to appear. */
function focusSoon(selector: string, tries = 40): void {
  const element = document.querySelector<HTMLElement>(selector);
  if (element) element.focus();
  else if (tries > 0) setTimeout(() => focusSoon(selector, tries - 1), 50);
}

/** Finds a piece, batch, product or recipe by a few letters and goes there. */
export function Finder({ onClose }: { onClose: () => void }) {
  const { desk, select } = useDesk();
  const router = useRouter();
  const base = `/sets/${desk.set.id}`;
  const to =
    (path: string): (() => void) =>
    () =>
      router.push(path);
  const options: Found[] = [
    ...desk.designs.map(({ id, data }) => ({
      key: id,
      group: 'Pieces',
      label: `${data.tag} ${data.name}`,
      go: () => {
        select(id);
        router.push(`${base}/shape`);
        // The piece that was found takes the focus, once its list is there.
        focusSoon(`[data-id="${CSS.escape(id)}"]`);
      },
    })),
    ...desk.batches.map(({ id, data }) => ({
      key: id,
      group: 'Batches',
      label: data.name,
      go: to(`${base}/pour?batch=${id}`),
    })),
    ...desk.shelf.recipes.map(({ id, data }) => ({
      key: id,
      group: 'Recipes',
      label: data.name,
      go: to(`${base}/tint`),
    })),
    ...desk.shelf.products.map(({ id, data }) => ({
      key: id,
      group: 'Products',
      label: data.name,
      go: to(`/shelf?from=${desk.set.id}&product=${id}`),
    })),
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { 'aria-label': 'Find', sx: { alignSelf: 'flex-start', mt: '12vh', p: 3 } } }}
    >
      <Autocomplete
        options={options}
        getOptionKey={({ key }) => key}
        groupBy={({ group }) => group}
        autoHighlight
        openOnFocus
        onChange={(_, found) => {
          found?.go();
          onClose();
        }}
        renderInput={(params) => <TextField {...params} autoFocus label="Find a piece, batch, recipe or product" />}
      />
    </Dialog>
  );
}
