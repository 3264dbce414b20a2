'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { readStockCsv, stockCsv } from '@/core/formats/stockCsv';
import { FileButton } from '@/ui/controls/FileButton';
import { saveFile } from '@/ui/saveFile';
import type { ShelfDoor } from '../shelfEdits';
import { readAllLots, stockThings } from './stockItems';
import styles from './Stock.module.css';

/** Lots to a table and from one. */
export function StockFiles({ edits }: { edits: ShelfDoor }) {
  const [said, setSaid] = useState<string[]>([]);
  const things = stockThings(edits.view);
  const take = async (file: File): Promise<void> => {
    if (file.size > 2e6) return setSaid([`${file.name} is too large for a table of lots.`]);
    const { lots, problems } = readStockCsv(await file.text(), things);
    const outcome =
      lots.length > 0
        ? await edits.run(
            () => ({ do: 'take in', lots }),
            `Took in ${lots.length} ${lots.length === 1 ? 'lot' : 'lots'}`,
          )
        : { ok: true };
    setSaid([
      ...(outcome.ok ? [`${lots.length} ${lots.length === 1 ? 'lot' : 'lots'} taken in.`] : []),
      ...problems.map(({ line, message }) => `Line ${line}: ${message}`),
    ]);
  };
  return (
    <>
      <Button
        size="small"
        variant="text"
        onClick={() =>
          void readAllLots().then((lots) => saveFile('stock.csv', stockCsv(lots, things), 'text/csv'), reportError)
        }
        disabled={edits.view.lots.length === 0}
      >
        Save as CSV
      </Button>
      <FileButton
        label="Take in a CSV"
        name="Lots from a CSV"
        accept=".csv,text/csv"
        onFile={(file) => void take(file)}
      />
      {said.length > 0 && (
        <ul role="status" className={styles.small}>
          {said.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
    </>
  );
}
