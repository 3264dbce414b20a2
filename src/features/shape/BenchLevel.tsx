'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { LEVEL_BENCH, tiltSchema, type Tilt } from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import { Fold } from '@/ui/controls/Fold';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from '../desk/DeskContext';
import styles from './BenchLevel.module.css';

/** How the bench is out of level: two falls, typed as mm per m or degrees, or worked out from two readings of a level. */
export function BenchLevel() {
  const { desk, edits } = useDesk();
  const { tilt } = desk.shelf.settings.data;
  const put = (change: Partial<Tilt>): void =>
    void edits.run(
      ({ shelf: { settings } }) => ({
        do: 'put',
        kind: 'settings',
        id: settings.id,
        version: settings.version,
        data: { ...settings.data, tilt: { ...settings.data.tilt, ...change } },
        label: 'Change the level of the bench',
      }),
      'Bench changed',
    );
  const level = tilt.eastMmPerM === 0 && tilt.northMmPerM === 0;
  const field = (label: string, key: keyof Tilt): React.ReactNode => (
    <MeasureField
      label={label}
      quantity="slope"
      step={0.0005}
      decimals={2}
      value={tilt[key] / 1000}
      validate={(value) => complaintAt(tiltSchema, tilt, [key], value * 1000)}
      onCommit={(value) => put({ [key]: value * 1000 })}
    />
  );
  return (
    <Fold summary={level ? 'Bench: level' : 'Bench: out of level'} open={!level}>
      <div className={styles.fields} data-falls>
        {field('Falls to the east', 'eastMmPerM')}
        {field('Falls to the north', 'northMmPerM')}
      </div>
      <TwoReadings onFall={put} />
      {!level && (
        <Button
          size="small"
          onClick={() => {
            put(LEVEL_BENCH);
            focusSoon(() => controlIn(document.querySelector('[data-falls]')));
          }}
        >
          It is level now
        </Button>
      )}
    </Fold>
  );
}

const LINES = [
  { value: 'eastMmPerM', label: 'west to east' },
  { value: 'northMmPerM', label: 'south to north' },
] as const;
const ENDS = { eastMmPerM: ['West', 'East'], northMmPerM: ['South', 'North'] } as const;

/** Two heights of the bench against a level line, a distance apart, give the fall between them. */
function TwoReadings({ onFall }: { onFall: (change: Partial<Tilt>) => void }) {
  const [line, setLine] = useState<keyof Tilt>('eastMmPerM');
  const [start, setStart] = useState(0);
  const [end, setEnd] = useState(0);
  const [apart, setApart] = useState(300);
  const fall = ((start - end) / apart) * 1000;
  const [from, to] = ENDS[line];
  return (
    <div className={styles.readings}>
      <span>Or from two readings of its height:</span>
      <div className={styles.fields}>
        <ChoiceField label="Along" value={line} choices={LINES} onCommit={setLine} />
        <MeasureField label={from} quantity="length" step={0.1} value={start} onCommit={setStart} />
        <MeasureField label={to} quantity="length" step={0.1} value={end} onCommit={setEnd} />
        <MeasureField
          label="Apart"
          quantity="length"
          step={10}
          value={apart}
          validate={(value) => (value > 0 ? null : 'More than 0')}
          onCommit={setApart}
        />
      </div>
      {start !== end && (
        <Button size="small" onClick={() => onFall({ [line]: fall })}>
          Falls {Math.abs(fall).toFixed(1)} mm per m to the {(fall > 0 ? to : from).toLowerCase()}: use it
        </Button>
      )}
    </div>
  );
}
