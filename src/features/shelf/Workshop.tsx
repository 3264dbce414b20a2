'use client';

import { boxSchema, type Box } from '@/core/model/bodySchema';
import type { Losses } from '@/core/mixing/losses';
import { complaintAt } from '@/core/records/replaceAt';
import { BenchWindows } from '@/ui/measure/BenchWindows';
import type { Quantity } from '@/core/units/quantities';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { UnitFields } from '../desk/UnitFields';
import { BenchDays } from './BenchDays';
import { Workplace } from './Workplace';
import { fieldEdits, type ShelfDoor } from './shelfEdits';
import styles from './ShelfScreen.module.css';

/** Shown until the maker states a box; nothing is packed into it before that. */
const FIRST_BOX: Box = { widthMm: 340, lengthMm: 260, heightMm: 120 };
const BOX_SIDES = [
  { key: 'widthMm', label: 'Storage box, inside width' },
  { key: 'lengthMm', label: 'Its inside length' },
  { key: 'heightMm', label: 'Its inside height' },
] as const;

/** What never reaches a piece, as it is asked for. */
const LOSSES = [
  { key: 'perCupGrams', label: 'Stays in each cup', quantity: 'mass', step: 0.1 },
  { key: 'perPieceGrams', label: 'Drips for each piece', quantity: 'mass', step: 0.1 },
  { key: 'share', label: 'Lost of every mix', quantity: 'fraction', step: 0.005 },
] as const satisfies readonly { key: keyof Losses; label: string; quantity: Quantity; step: number }[];
/** The room, the bench and the units: what every plan counts with. */
export function Workshop({ edits }: { edits: ShelfDoor }) {
  const units = useUnits();
  const stored = edits.view.settings;
  const { data } = stored;
  const { put, putAll, validate } = fieldEdits(edits, 'settings', stored, 'the workshop');
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
        <UnitFields settings={data} put={put} validate={validate} />
        <ChoiceField
          label="Parts are measured"
          value={data.measureBy}
          choices={[
            { value: 'weight', label: 'by weight' },
            { value: 'volume', label: 'by volume' },
          ]}
          onCommit={(value) => put(['measureBy'], value)}
        />
      </div>
      <fieldset className={styles.group}>
        <legend>What is lost on the way</legend>
        <div className={styles.fields}>
          {LOSSES.map(({ key, label, quantity, step }) => (
            <MeasureField
              key={key}
              label={label}
              quantity={quantity}
              step={step}
              value={data.losses[key]}
              validate={validate(['losses', key])}
              onCommit={(value) => put(['losses', key], value)}
            />
          ))}
        </div>
      </fieldset>
      <fieldset className={styles.group}>
        <legend>When you are at the bench</legend>
        <BenchWindows
          windows={data.benchWindows}
          onChange={(windows) => put(['benchWindows'], windows)}
          none="No windows: any hour will do. A set or a batch may narrow them."
        />
      </fieldset>
      <fieldset className={styles.group}>
        <legend>Days unlike others</legend>
        <BenchDays
          exceptions={data.benchExceptions}
          today={edits.view.now.slice(0, 10)}
          onChange={(days) => put(['benchExceptions'], days)}
        />
      </fieldset>
      <Workplace settings={data} today={edits.view.now.slice(0, 10)} putAll={putAll} />
    </section>
  );
}
