'use client';

import { boxSchema, type Box } from '@/core/body/schema';
import { complaintAt } from '@/core/records/replaceAt';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { fieldEdits, type ShelfDoor } from './shelfEdits';
import styles from './ShelfScreen.module.css';

/** Shown until the maker states a box; nothing is packed into it before that. */
const FIRST_BOX: Box = { widthMm: 340, lengthMm: 260, heightMm: 120 };
const BOX_SIDES = [
  { key: 'widthMm', label: 'Storage box, inside width' },
  { key: 'lengthMm', label: 'Its inside length' },
  { key: 'heightMm', label: 'Its inside height' },
] as const;

const same = <T extends string>(values: readonly T[]): { value: T; label: T }[] =>
  values.map((value) => ({ value, label: value }));

/** The room, the bench and the units: what every plan counts with. */
export function Workshop({ door }: { door: ShelfDoor }) {
  const units = useUnits();
  const stored = door.view.settings;
  const { data } = stored;
  const { put, validate } = fieldEdits(door, 'settings', stored, 'the workshop');
  return (
    <section aria-label="Workshop" id="workshop" className={styles.workshop}>
      <h2 className={styles.heading}>Workshop</h2>
      <div className={styles.fields}>
        <MeasureField
          label="Room temperature"
          quantity="temperature"
          step={0.5}
          value={data.room.temperatureC}
          validate={validate(['room', 'temperatureC'])}
          onCommit={(value) => put(['room', 'temperatureC'], value)}
        />
        <MeasureField
          label="Humidity"
          quantity="fraction"
          step={0.05}
          value={data.room.humidity}
          validate={validate(['room', 'humidity'])}
          onCommit={(value) => put(['room', 'humidity'], value)}
        />
        <MeasureField
          label="A cup holds"
          quantity="mass"
          step={10}
          value={data.cupGrams}
          validate={validate(['cupGrams'])}
          onCommit={(value) => put(['cupGrams'], value)}
        />
        <MeasureField
          label="Scale shows steps of, g"
          quantity="number"
          step={0.1}
          value={data.scaleStepGrams}
          validate={validate(['scaleStepGrams'])}
          onCommit={(value) => put(['scaleStepGrams'], value)}
        />
        <MeasureField
          label={`A cup costs, ${units.currency}`}
          quantity="number"
          step={0.01}
          value={data.pricePerCup}
          validate={validate(['pricePerCup'])}
          onCommit={(value) => put(['pricePerCup'], value)}
        />
        {BOX_SIDES.map(({ key, label }) => (
          <MeasureField
            key={key}
            label={label}
            quantity="length"
            step={10}
            value={data.box?.[key] ?? FIRST_BOX[key]}
            hint={data.box ? undefined : 'not stated yet'}
            validate={(value) => complaintAt(boxSchema, data.box ?? FIRST_BOX, [key], value)}
            onCommit={(value) => put(['box'], { ...(data.box ?? FIRST_BOX), [key]: value })}
          />
        ))}
        <ChoiceField
          label="Lengths in"
          value={units.length}
          choices={same(['mm', 'in'] as const)}
          onCommit={(value) => put(['units', 'length'], value)}
        />
        <ChoiceField
          label="Masses in"
          value={units.mass}
          choices={same(['g', 'oz'] as const)}
          onCommit={(value) => put(['units', 'mass'], value)}
        />
        <ChoiceField
          label="Volumes in"
          value={units.volume}
          choices={same(['ml', 'fl oz'] as const)}
          onCommit={(value) => put(['units', 'volume'], value)}
        />
        <ChoiceField
          label="Temperatures in"
          value={units.temperature}
          choices={same(['°C', '°F'] as const)}
          onCommit={(value) => put(['units', 'temperature'], value)}
        />
        <WordField
          label="Currency sign"
          value={units.currency}
          validate={validate(['units', 'currency'])}
          onCommit={(value) => put(['units', 'currency'], value)}
        />
      </div>
    </section>
  );
}
