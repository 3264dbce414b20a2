'use client';

import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Link from 'next/link';
import { useState } from 'react';
import { copyName, pieceKey } from '@/core/model/pieceRef';
import {
  copiesOfDesigns,
  copyWords,
  countCopies,
  isBegun,
  isFinished,
  type Copy,
  type CopyInBatch,
  type CopyState,
} from '@/core/records/copies';
import { notApproved } from '@/core/records/job';
import type { CopyFate } from '@/core/records/recordSchemas';
import { LineForm } from '@/ui/controls/LineForm';
import { Held } from '@/ui/held/Held';
import { NotRead } from '@/ui/held/NotRead';
import { useOwnWords } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import { useCopies } from '../desk/useCopies';
import { CopyCut } from './CopyCut';
import styles from './CopiesView.module.css';

/** What a copy is called in a list of states. */
const STATE_WORDS: Record<CopyState, string> = {
  open: 'open',
  planned: 'planned',
  begun: 'layers to come',
  poured: 'poured',
  firm: 'firm',
  cured: 'cured',
  'to mend': 'to mend',
  inspected: 'looked over',
  delivered: 'delivered',
  spoilt: 'spoilt',
};

/** Every copy of the set as a small cut, filled as far as it is poured: which exist, which are finished, which are to be made anew. */
export function CopiesView() {
  const { desk } = useDesk();
  const own = useOwnWords();
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const { data: taken, failed, again } = useCopies();
  if (failed && !taken) return <NotRead what="The copies could not be read." again={again} />;
  if (!taken) return <Held label="Reading the copies" />;
  const copies = copiesOfDesigns(desk.designs, taken, desk.now);
  const { of, finished, inWork } = countCopies(copies);
  const chosen = copies.filter((copy) => picked.has(pieceKey(copy)));
  return (
    <section className={styles.copies} aria-label="Copies">
      <p className={styles.sum}>
        <b>{finished}</b> of {of} finished, <b>{inWork}</b> more in work, <b>{of - finished - inWork}</b> to pour
      </p>
      {desk.designs.map(({ id, data }) => {
        const itsCopies = copies.filter(({ designId }) => designId === id);
        const keys = itsCopies.map(pieceKey);
        return (
          <section key={id} aria-label={data.name} className={styles.design}>
            <h3>
              {data.tag} <span>{data.name}</span>
              <small>
                {itsCopies.filter(isFinished).length} of {itsCopies.length} finished
              </small>
            </h3>
            <ToggleButtonGroup
              aria-label={`Copies of ${data.tag}`}
              className={styles.row}
              value={keys.filter((key) => picked.has(key))}
              onChange={(_, next: string[]) =>
                setPicked((before) => new Set([...[...before].filter((key) => !keys.includes(key)), ...next]))
              }
            >
              {itsCopies.map((copy) => (
                <ToggleButton
                  key={pieceKey(copy)}
                  value={pieceKey(copy)}
                  className={styles.copy}
                  title={own(copyWords(copy))}
                  aria-label={`${copyName(data.tag, copy.copy)}, ${own(copyWords(copy))}`}
                >
                  <CopyCut state={copy.state} share={shareOf(copy)} />
                  <span>#{copy.copy}</span>
                  <small>{STATE_WORDS[copy.state]}</small>
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          </section>
        );
      })}
      {chosen.length > 0 ? (
        <Chosen chosen={chosen} onDone={() => setPicked(new Set())} />
      ) : (
        <p className={styles.hint}>
          Press copies to say what became of them: handed over, or spoilt and to be made anew.
        </p>
      )}
    </section>
  );
}

/** How much of its water a copy has got. */
const shareOf = ({ held }: Copy): number =>
  !held || held.of === 0 ? 0 : (held.layers + (held.partly ? 0.5 : 0)) / held.of;

const isIn = (held: CopyInBatch | null): held is CopyInBatch => held !== null;

/** What is known of the copies that were pressed, and what can be said of them. */
function Chosen({ chosen, onDone }: { chosen: readonly Copy[]; onDone: () => void }) {
  const { desk, edits } = useDesk();
  const own = useOwnWords();
  const [spoiling, setSpoiling] = useState(false);
  const nameOf = ({ designId, copy }: Pick<Copy, 'designId' | 'copy'>): string =>
    copyName(desk.designs.find(({ id }) => id === designId)?.data.tag ?? '', copy);
  const names = chosen.length === 1 ? nameOf(chosen[0]!) : `${chosen.length} copies`;
  const poured = chosen.filter(isBegun);
  const waiting = notApproved(desk.set.data.job);
  const say = async (fate: Pick<CopyFate, 'fate' | 'at' | 'why'> | null, label: string): Promise<void> => {
    const copies = poured.flatMap(({ designId, copy, held }) =>
      held ? [{ designId, copy, batchId: held.batchId }] : [],
    );
    const outcome = await edits.run(() => ({ do: 'fate', setId: desk.set.id, copies, fate, label }), label);
    if (outcome.ok) onDone();
  };
  return (
    <div className={styles.chosen} role="group" aria-label="What became of them">
      <ul>
        {chosen.slice(0, 6).map((copy) => (
          <li key={pieceKey(copy)}>
            <b>{nameOf(copy)}</b> {own(copyWords(copy))}
            {[...copy.before, copy.held].filter(isIn).map((held, i, all) => (
              <span key={held.batchId}>
                {' · '}
                <Link href={`/sets/${held.setId}/log?batch=${encodeURIComponent(held.batchId)}`}>{held.batchName}</Link>
                {i < all.length - 1 && held.fate?.why ? ` (${held.fate.why})` : ''}
              </span>
            ))}
          </li>
        ))}
        {chosen.length > 6 && <li>and {chosen.length - 6} more</li>}
      </ul>
      {poured.length === 0 ? (
        <p className={styles.hint}>
          Nothing is poured of {names} yet. A copy that is in no batch comes into the next one that you plan.
        </p>
      ) : spoiling ? (
        <LineForm
          label="What went wrong"
          press="It is spoilt"
          most={200}
          send={(why) => void say({ fate: 'spoilt', at: desk.now, why }, `${names}: spoilt`)}
          field={{ autoFocus: true, helperText: 'The next batch that you plan makes it anew, under the same number.' }}
          className={styles.line}
        />
      ) : (
        <div className={styles.actions}>
          {waiting.length > 0 && (
            <p className={styles.waiting}>
              {`Not approved yet: ${waiting.join('; ')}. `}
              <Link href={`/job/${desk.set.id}`}>To the job</Link>
            </p>
          )}
          <Button
            variant={waiting.length > 0 ? 'outlined' : 'contained'}
            onClick={() => void say({ fate: 'delivered', at: desk.now, why: '' }, `${names}: delivered`)}
          >
            {waiting.length > 0 ? 'Delivered today all the same' : 'Delivered today'}
          </Button>
          <Button onClick={() => setSpoiling(true)}>Spoilt</Button>
          {poured.some(({ held }) => held?.fate) && (
            <Button variant="text" onClick={() => void say(null, `${names}: neither delivered nor spoilt`)}>
              Neither
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
