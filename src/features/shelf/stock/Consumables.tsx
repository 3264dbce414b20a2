'use client';

import Button from '@mui/material/Button';
import { useRef } from 'react';
import { USED_PER, type Consumable } from '@/core/model/stockSchema';
import type { Stored } from '@/core/model/stored';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { fieldEdits, type ShelfDoor } from '../shelfEdits';
import styles from './Stock.module.css';

const NEW: Consumable = { name: 'Paper cups', per: 'cup', amount: 1, packCount: 50, packPrice: 4 };

/** Cups, sticks, tape, gloves: what every batch takes some of. */
export function Consumables({ edits }: { edits: ShelfDoor }) {
  const box = useRef<HTMLElement>(null);
  const add = async (): Promise<void> => {
    const outcome = await edits.run(
      () => ({ do: 'add', kind: 'consumable', data: NEW, label: 'Add a consumable' }),
      'Added a consumable',
    );
    if (outcome.ok && outcome.id) focusSoon(() => controlIn(box.current?.querySelector(`[data-id="${outcome.id}"]`)));
  };
  return (
    <section aria-label="Consumables" id="consumables" ref={box}>
      <h2 className={styles.heading}>Consumables</h2>
      {edits.view.consumables.length === 0 && (
        <p className={styles.small}>
          Cups, sticks, tape, gloves, strip: say what each cup, layer or batch takes of them, and plans count them in.
        </p>
      )}
      {edits.view.consumables.map((consumable) => (
        <ConsumableRow key={consumable.id} edits={edits} consumable={consumable} />
      ))}
      <div className={styles.actions}>
        <Button onClick={() => void add()}>Add a consumable</Button>
      </div>
    </section>
  );
}

function ConsumableRow({ edits, consumable }: { edits: ShelfDoor; consumable: Stored<Consumable> }) {
  const units = useUnits();
  const { data } = consumable;
  const { put, validate } = fieldEdits(edits, 'consumable', consumable, data.name);
  return (
    <fieldset className={styles.consumable} data-id={consumable.id}>
      <legend className="visually-hidden">{data.name}</legend>
      <WordField
        label="Name"
        value={data.name}
        validate={validate(['name'])}
        onCommit={(value) => put(['name'], value)}
      />
      <MeasureField
        label="So many"
        quantity="number"
        step={1}
        value={data.amount}
        validate={validate(['amount'])}
        onCommit={(value) => put(['amount'], value)}
      />
      <ChoiceField
        label="For each"
        value={data.per}
        choices={USED_PER.map((per) => ({ value: per, label: per }))}
        onCommit={(value) => put(['per'], value)}
      />
      <MeasureField
        label="In a pack"
        quantity="number"
        step={10}
        value={data.packCount}
        validate={validate(['packCount'])}
        onCommit={(value) => put(['packCount'], value)}
      />
      <MeasureField
        label={`Price, ${units.currency}`}
        quantity="number"
        step={0.5}
        value={data.packPrice}
        validate={validate(['packPrice'])}
        onCommit={(value) => put(['packPrice'], value)}
      />
      <Button
        variant="text"
        size="small"
        aria-label={`Remove ${data.name}`}
        onClick={() => {
          void edits.run(({ consumables }) => {
            const stored = consumables.find(({ id }) => id === consumable.id);
            return stored ? { do: 'remove', kind: 'consumable', id: stored.id, version: stored.version } : null;
          }, `Removed ${data.name}`);
          focusSoon(() => controlIn(document.querySelector('[aria-label="Consumables"]'), 'last'));
        }}
      >
        Remove
      </Button>
    </fieldset>
  );
}
