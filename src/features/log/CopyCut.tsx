import type { CopyState } from '@/core/records/copies';
import styles from './CopyCut.module.css';

interface CopyCutProps {
  state: CopyState;
  /** How much of its water it has got, 0 to 1. */
  share: number;
}

/** A copy from the side: as much water as it has got, still moving until it is firm. */
export function CopyCut({ state, share }: CopyCutProps) {
  const level = 26 - 16 * Math.min(1, share);
  const top = state === 'poured' ? `M6 ${level}q5 -3 10 0t10 0t10 0` : `M6 ${level}H36`;
  return (
    <svg viewBox="0 0 42 32" className={styles.cut} data-state={state} aria-hidden>
      {share > 0 && <path d={`${top}V26H6Z`} className={styles.water} />}
      <path d="M1 8H6V26H36V8H41V31H1Z" className={styles.body} />
      {state === 'inspected' && <path d="M15 18l4 4 8 -9" className={styles.mark} />}
      {state === 'delivered' && <path d="M13 17H28M23 12l6 5 -6 5" className={styles.mark} />}
      {state === 'to mend' && <path d="M21 11v8M21 23v1" className={styles.mark} />}
      {state === 'spoilt' && <path d="M8 3L34 29M34 3L8 29" className={styles.spoilt} />}
    </svg>
  );
}
