'use client';

import Autocomplete from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useDesk } from './DeskContext';

interface Found {
  group: string;
  label: string;
  go: () => void;
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
      group: 'Pieces',
      label: `${data.tag} ${data.name}`,
      go: () => (select(id), router.push(`${base}/shape`)),
    })),
    ...desk.batches.map(({ id, data }) => ({ group: 'Batches', label: data.name, go: to(`${base}/pour?batch=${id}`) })),
    ...desk.shelf.recipes.map(({ data }) => ({ group: 'Recipes', label: data.name, go: to(`${base}/tint`) })),
    ...desk.shelf.products.map(({ id, data }) => ({
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
