'use client';

import Button from '@mui/material/Button';
import { z } from 'zod';
import { useKept } from '@/ui/keptDraft';
import { useDesk } from '../desk/DeskContext';
import styles from './Help.module.css';

/** The steps by which a first set is led, each at its place. */
const HINTS = {
  level:
    'The line through the strip is the water. Drag it, or give it the focus and use the arrow keys: every piece follows.',
  grams:
    'Plan a batch and these are its grams, cup by cup. Then print the pour card, or go to the bench and be led step by step.',
} as const;
const goneSchema = z.array(z.string());

/** Says what comes next at its place, until something of the set is poured or the hint is sent away, for good. */
export function Hint({ step }: { step: keyof typeof HINTS }) {
  const { desk } = useDesk();
  const [gone, setGone] = useKept<string[]>('aguada.hints-gone', [], goneSchema);
  if (gone.includes(step) || desk.designs.length === 0 || desk.batches.some(({ poured }) => poured)) return null;
  return (
    <aside className={styles.hint} aria-label="What comes next">
      <p>{HINTS[step]}</p>
      <Button size="small" variant="text" onClick={() => setGone([...gone, step])}>
        Understood
      </Button>
    </aside>
  );
}
