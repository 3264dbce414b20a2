'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { starters } from '@/core/bed/starters';
import { MenuButton } from '@/ui/controls/MenuButton';
import { PickList } from '@/ui/controls/PickList';
import { focusSoon } from '@/ui/focusSoon';
import { later } from '@/ui/later';
import { useDesk } from '../desk/DeskContext';
import styles from './ShapeStage.module.css';

const Scan = later(async () => (await import('./scan/ScanDialog')).ScanDialog);

/** The set's piece designs, and a way to add one. */
export function DesignList() {
  const { desk, openId, select, door } = useDesk();
  const [importing, setImporting] = useState(false);
  const choices = starters(
    desk.set.data.levelMm,
    desk.designs.map(({ data }) => data.tag),
  );
  const add = async (index: number): Promise<void> => {
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
    if (!outcome.ok || !outcome.id) return;
    select(outcome.id);
    focusSoon(() => document.querySelector<HTMLElement>(`[data-id="${outcome.id}"]`));
  };
  return (
    <section aria-label="Designs" className={styles.designs}>
      <h2 className={styles.heading}>Designs</h2>
      <PickList
        label="Designs"
        chosenId={openId}
        onChoose={select}
        items={desk.designs.map(({ id, data }) => ({
          id,
          content: (
            <span className={styles.design}>
              <span className={styles.tag}>{data.tag}</span>
              <span className={styles.name}>{data.name}</span>
              <span className={styles.count}>×{data.copies}</span>
            </span>
          ),
        }))}
      />
      <MenuButton
        label="Add a piece"
        size="medium"
        variant={desk.designs.length === 0 ? 'contained' : 'outlined'}
        choices={choices.map(({ title }, index) => ({ key: title, label: title, onPick: () => void add(index) }))}
      />
      <Button className={styles.import} size="small" onClick={() => setImporting(true)}>
        From a scan or drawing
      </Button>
      <Scan.Fetch />
      {importing && (
        <Scan.Part design={desk.designs.find(({ id }) => id === openId)} onClose={() => setImporting(false)} />
      )}
    </section>
  );
}
