'use client';

import Autocomplete from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { findIn, type Findable, type FindableKind } from '@/core/records/findable';
import { focusSoon } from '@/ui/focusSoon';
import { NotRead } from '@/ui/held/NotRead';
import { newKey } from '@/ui/newKey';
import { useFetched } from '@/ui/useFetched';
import styles from './Finder.module.css';

const KIND_WORDS: Record<FindableKind, string> = {
  set: 'set',
  piece: 'piece',
  batch: 'batch',
  recipe: 'recipe',
  product: 'product',
  colourant: 'colourant',
  lot: 'bottle or pack',
  note: 'note',
};

/** Finds a thing of the workshop by its words or its date, and goes there. */
export function Finder({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const [asked] = useState(newKey);
  const { data, failed, again } = useFetched<Findable[]>('/api/find', asked);
  const index = useMemo(() => findIn(data ?? []), [data]);
  const go = (found: Findable): void => {
    router.push(found.href);
    // What was found takes the focus once it is there.
    const id = CSS.escape(found.id.slice(found.kind.length + 1));
    focusSoon(() => document.querySelector<HTMLElement>(`[data-id="${id}"],[data-lot="${id}"]`));
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { 'aria-label': 'Find', sx: { alignSelf: 'flex-start', mt: '12vh', p: 3 } } }}
    >
      {failed ? (
        <NotRead what="What there is to find could not be read." again={again} />
      ) : (
        <Autocomplete
          options={data ?? []}
          loading={data === null}
          loadingText="Reading what there is"
          noOptionsText="Nothing is called that, and no note or date says it"
          getOptionLabel={({ name }) => name}
          getOptionKey={({ id }) => id}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          filterOptions={(all, { inputValue }) =>
            inputValue.trim() === '' ? all.filter(({ kind }) => kind === 'set').slice(0, 12) : index.of(inputValue)
          }
          autoHighlight
          openOnFocus
          onChange={(_, found) => found && go(found)}
          renderOption={({ key, ...props }, { name, under, kind }) => (
            <li key={key} {...props}>
              <span className={styles.found}>
                <b>{name}</b>
                <span>{under}</span>
                <i>{KIND_WORDS[kind]}</i>
              </span>
            </li>
          )}
          renderInput={(params) => (
            <TextField {...params} autoFocus label="Find a set, piece, batch, bottle, note, or a date" />
          )}
        />
      )}
    </Dialog>
  );
}
