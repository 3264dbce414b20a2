'use client';

import Button from '@mui/material/Button';
import { LineForm } from '@/ui/controls/LineForm';
import styles from './RunScreen.module.css';

interface ReasonsProps {
  question: string;
  reasons: readonly string[];
  give: (why: string) => void;
  onClose: () => void;
}

/** Asks why, with what is usual one press away. */
export function Reasons({ question, reasons, give, onClose }: ReasonsProps) {
  return (
    <section className={styles.reasons} aria-label={question}>
      <h2>{question}</h2>
      <div className={styles.choices}>
        {reasons.map((why) => (
          <Button key={why} className={styles.tool ?? ''} onClick={() => give(why)}>
            {why}
          </Button>
        ))}
        <LineForm
          label="or in your words"
          press="That"
          most={200}
          className={styles.typing}
          buttonClass={styles.tool}
          send={give}
        />
        <Button className={styles.tool ?? ''} onClick={onClose}>
          Not after all
        </Button>
      </div>
    </section>
  );
}
