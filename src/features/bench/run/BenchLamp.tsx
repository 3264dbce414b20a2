'use client';

import Button from '@mui/material/Button';
import styles from './RunScreen.module.css';

/** The bench comes up in the lamp theme, whatever the desk has; here it is turned to paper and back. */
export const LampSwitch = ({ lamp, onTurn }: { lamp: boolean; onTurn: (lamp: boolean) => void }) => (
  <Button className={styles.more ?? ''} aria-pressed={lamp} onClick={() => onTurn(!lamp)}>
    {lamp ? 'Paper' : 'Lamp'}
  </Button>
);
