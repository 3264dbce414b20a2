'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import styles from './RunScreen.module.css';

interface ReasonsProps {
  question: string;
  reasons: readonly string[];
  give: (why: string) => void;
  onClose: () => void;
}

/** Asks why, with what is usual one press away. */
export function Reasons({ question, reasons, give, onClose }: ReasonsProps) {
  const [text, setText] = useState('');
  return (
    <section className={styles.reasons} aria-label={question}>
      <h2>{question}</h2>
      <div className={styles.choices}>
        {reasons.map((why) => (
          <Button key={why} className={styles.tool ?? ''} onClick={() => give(why)}>
            {why}
          </Button>
        ))}
        <form
          className={styles.typing}
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() !== '') give(text.trim().slice(0, 200));
          }}
        >
          <TextField
            label="or in your words"
            value={text}
            autoComplete="off"
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit" className={styles.tool ?? ''} disabled={text.trim() === ''}>
            That
          </Button>
        </form>
        <Button className={styles.tool ?? ''} onClick={onClose}>
          Not after all
        </Button>
      </div>
    </section>
  );
}
