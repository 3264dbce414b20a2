'use client';

import { whenIdle } from '@/ui/whenIdle';
import Button from '@mui/material/Button';
import { lazy, Suspense, useEffect, useState } from 'react';
import { MenuButton } from '@/ui/controls/MenuButton';
import { PickList } from '@/ui/controls/PickList';
import { useDesk } from '../desk/DeskContext';
import { useAddStarter } from './useAddStarter';
import styles from './ShapeStage.module.css';

const loadScan = () => import('./scan/ScanDialog');
const Scan = lazy(async () => ({ default: (await loadScan()).ScanDialog }));

/** The set's piece designs, and a way to add one. */
export function DesignList() {
  const { desk, openId, select } = useDesk();
  const [importing, setImporting] = useState(false);
  // Its code is there before it is opened, and still is when the server is not.
  useEffect(() => whenIdle(() => void loadScan().catch(() => undefined)), []);
  const { choices, add } = useAddStarter();
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
        variant="outlined"
        choices={choices.map((starter) => ({
          key: starter.title,
          label: starter.title,
          onPick: () => void add(starter),
        }))}
      />
      <Button className={styles.import} size="small" onClick={() => setImporting(true)}>
        From a scan or drawing
      </Button>
      {importing && (
        <Suspense fallback={null}>
          <Scan design={desk.designs.find(({ id }) => id === openId)} onClose={() => setImporting(false)} />
        </Suspense>
      )}
    </section>
  );
}
