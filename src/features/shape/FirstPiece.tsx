'use client';

import ButtonBase from '@mui/material/ButtonBase';
import { useEffect, useRef } from 'react';
import { useAwake } from '@/ui/useAwake';
import { BedThumb } from '../desk/BedThumb';
import { useDesk, useLiveDesk } from '../desk/DeskContext';
import { useAddStarter } from './useAddStarter';
import styles from './FirstPiece.module.css';

/** What stands where the first piece will: the pieces to start from, as they look at the set's level. */
export function FirstPiece() {
  const { desk } = useDesk();
  const { tint } = useLiveDesk();
  const { choices, add } = useAddStarter();
  const awake = useAwake();
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // A new set leads here from a dialog that is gone: the keyboard goes on at the first choice.
    if (awake && document.activeElement === document.body) first.current?.focus({ preventScroll: true });
  }, [awake]);
  return (
    <section aria-label="The first piece" className={styles.first}>
      <p>
        Begin with one of these. Each is drawn for the level of the set; then drag its ports and rocks, or type its
        measures. <code>4 3/4&quot;</code>, <code>16 cm</code> and <code>3*40+2</code> all work.
      </p>
      <ul>
        {choices.map((starter, index) => (
          <li key={starter.title}>
            <ButtonBase
              ref={index === 0 ? first : undefined}
              className={styles.choice ?? ''}
              onClick={() => void add(starter)}
            >
              <span className={styles.picture} aria-hidden>
                {awake && <BedThumb design={starter.design} levelMm={desk.set.data.levelMm} tint={tint} />}
              </span>
              {starter.title}
            </ButtonBase>
          </li>
        ))}
      </ul>
    </section>
  );
}
