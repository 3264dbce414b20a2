'use client';

import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { starters } from '@/core/bed/starters';
import { useDesk } from '../desk/DeskContext';
import { ScanDialog } from './scan/ScanDialog';
import styles from './ShapeStage.module.css';

/** The set's piece designs, and a way to add one. */
export function DesignList() {
  const { desk, openId, select, door } = useDesk();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [importing, setImporting] = useState(false);
  const choices = starters(
    desk.set.data.levelMm,
    desk.designs.map(({ data }) => data.tag),
  );
  const add = async (index: number): Promise<void> => {
    setAnchor(null);
    const starter = choices[index];
    if (!starter) return;
    const outcome = await door.run(
      () => ({
        do: 'add',
        kind: 'design',
        setId: desk.set.id,
        data: starter.design,
        label: `Add ${starter.design.name}`,
      }),
      `Added ${starter.design.name}`,
    );
    if (outcome.ok && outcome.id) select(outcome.id);
  };
  return (
    <section aria-label="Designs" className={styles.designs}>
      <h2 className={styles.heading}>Designs</h2>
      <ul>
        {desk.designs.map(({ id, data }) => (
          <li key={id}>
            <button type="button" className={styles.design} aria-pressed={id === openId} onClick={() => select(id)}>
              <span className={styles.tag}>{data.tag}</span>
              <span className={styles.name}>{data.name}</span>
              <span className={styles.count}>×{data.copies}</span>
            </button>
          </li>
        ))}
      </ul>
      <Button
        variant={desk.designs.length === 0 ? 'contained' : 'outlined'}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        Add a piece
      </Button>
      <Button className={styles.import} size="small" onClick={() => setImporting(true)}>
        From a scan or drawing
      </Button>
      {importing && (
        <ScanDialog design={desk.designs.find(({ id }) => id === openId)} onClose={() => setImporting(false)} />
      )}
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {choices.map((starter, index) => (
          <MenuItem key={starter.title} onClick={() => void add(index)}>
            {starter.title}
          </MenuItem>
        ))}
      </Menu>
    </section>
  );
}
