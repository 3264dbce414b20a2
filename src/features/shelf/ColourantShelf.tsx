'use client';

import Button from '@mui/material/Button';
import { useRef } from 'react';
import { COLOURANT_KINDS, DEFAULT_DROP_GRAMS, type Colourant } from '@/core/model/recipeSchema';
import { lookAt, waterLook } from '@/core/tint/waterLook';
import type { Stored } from '@/core/model/stored';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { fieldEdits, type ShelfDoor } from './shelfEdits';
import styles from './ShelfScreen.module.css';

const NEW: Colourant = {
  name: 'New ink',
  kind: 'ink',
  absorption: { red: 0.8, green: 0.4, blue: 0.4 },
  dropGrams: DEFAULT_DROP_GRAMS,
  bottleGrams: 30,
  bottlePrice: 5,
};
/** The swatch: what 0.1 g in 100 g does to white, 5 mm deep. */
const SWATCH = { gramsPer100: 0.1, depthMm: 5, bed: '#ffffff' };

/** Colourants: what each swallows of the light, what a drop of it weighs, what it costs. */
export function ColourantShelf({ edits }: { edits: ShelfDoor }) {
  const box = useRef<HTMLElement>(null);
  const add = async (): Promise<void> => {
    const outcome = await edits.run(
      () => ({ do: 'add', kind: 'colourant', data: NEW, label: 'Add a colourant' }),
      'Added a colourant',
    );
    if (outcome.ok && outcome.id) focusSoon(() => controlIn(box.current?.querySelector(`[data-id="${outcome.id}"]`)));
  };
  return (
    <section aria-label="Colourants" id="colourants" className={styles.colourants} ref={box}>
      <h2 className={styles.heading}>Colourants</h2>
      <p className={styles.typical}>
        Absorption is in linear light, for each mm of water with 1 g in 100 g. The swatch is 0.1 g in 100 g, 5 mm deep
        over white: an estimate until you pour your own.
      </p>
      {edits.view.colourants.map((colourant) => (
        <ColourantRow key={colourant.id} edits={edits} colourant={colourant} />
      ))}
      <Button onClick={() => void add()}>Add a colourant</Button>
    </section>
  );
}

function ColourantRow({ edits, colourant }: { edits: ShelfDoor; colourant: Stored<Colourant> }) {
  const units = useUnits();
  const { data } = colourant;
  const { put, validate } = fieldEdits(edits, 'colourant', colourant, data.name);
  const look = waterLook(
    { bedColour: SWATCH.bed },
    { clarity: 'water-clear', doses: [{ colourant: { ...data, id: colourant.id }, gramsPer100: SWATCH.gramsPer100 }] },
    SWATCH.depthMm,
  );
  const remove = (): void => {
    void edits.run(({ colourants }) => {
      const stored = colourants.find(({ id }) => id === colourant.id);
      return stored ? { do: 'remove', kind: 'colourant', id: stored.id, version: stored.version } : null;
    }, `Removed ${data.name}`);
    focusSoon(() => controlIn(document.querySelector('[aria-label="Colourants"]'), 'last'));
  };
  return (
    <fieldset className={styles.colourant} data-id={colourant.id}>
      <legend className="visually-hidden">{data.name}</legend>
      <span className={styles.swatch} style={{ background: lookAt(look, SWATCH.depthMm) }} aria-hidden />
      <WordField
        label="Name"
        value={data.name}
        validate={validate(['name'])}
        onCommit={(value) => put(['name'], value)}
        hint={
          data.swatches?.some(({ rejected }) => !rejected)
            ? 'calibrated from swatches'
            : 'uncalibrated: typical of its kind'
        }
      />
      <ChoiceField
        label="Kind"
        value={data.kind}
        choices={COLOURANT_KINDS.map((kind) => ({ value: kind, label: kind }))}
        onCommit={(value) => put(['kind'], value)}
      />
      {(['red', 'green', 'blue'] as const).map((channel) => (
        <MeasureField
          key={channel}
          label={`Takes ${channel}`}
          quantity="number"
          step={0.05}
          value={data.absorption[channel]}
          validate={validate(['absorption', channel])}
          onCommit={(value) => put(['absorption', channel], value)}
        />
      ))}
      <MeasureField
        label="A drop, g"
        quantity="number"
        step={0.001}
        decimals={3}
        value={data.dropGrams}
        hint="weigh 20: type 0.71/20"
        validate={validate(['dropGrams'])}
        onCommit={(value) => put(['dropGrams'], value)}
      />
      <MeasureField
        label="Bottle"
        quantity="mass"
        step={1}
        value={data.bottleGrams}
        validate={validate(['bottleGrams'])}
        onCommit={(value) => put(['bottleGrams'], value)}
      />
      <MeasureField
        label={`Price, ${units.currency}`}
        quantity="number"
        step={0.5}
        value={data.bottlePrice}
        validate={validate(['bottlePrice'])}
        onCommit={(value) => put(['bottlePrice'], value)}
      />
      <Button variant="text" size="small" aria-label={`Remove ${data.name}`} onClick={remove}>
        Remove
      </Button>
    </fieldset>
  );
}
