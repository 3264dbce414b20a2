'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { LEVEL_BENCH, tiltSchema, type Tilt } from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from '../desk/DeskContext';
import styles from './BenchLevel.module.css';

/** How the bench is out of level: two falls, typed as mm per m or degrees, or worked out from two readings of a level. */
export function BenchLevel() {
  const { desk, door } = useDesk();
  const { tilt } = desk.shelf.settings.data;
  const put = (change: Partial<Tilt>): void => void door.run(({ shelf: { settings } }) => ({ do: 'put', kind: 'settings', id: settings.id, version: settings.version, data: { ...settings.data, tilt: { ...settings.data.tilt, ...change } }, label: 'Change the level of the bench' }), 'Bench changed');
  const level = tilt.eastMmPerM === 0 && tilt.northMmPerM === 0;
  const field = (label: string, key: keyof Tilt): React.ReactNode => (
    <MeasureField label={label} quantity="slope" step={0.0005} decimals={2} value={tilt[key] / 1000} validate={(value) => complaintAt(tiltSchema, tilt, [key], value * 1000)} onCommit={(value) => put({ [key]: value * 1000 })} />
  );
  return (
    <details className={styles.bench} open={!level}>
      <summary>{level ? 'Bench: level' : 'Bench: out of level'}</summary>
      <div className={styles.fields}>
        {field('Falls to the east', 'eastMmPerM')}
        {field('Falls to the north', 'northMmPerM')}
      </div>
      <TwoReadings onFall={(mmPerM) => put({ eastMmPerM: mmPerM })} />
      {!level && (
        <Button size="small" onClick={() => put(LEVEL_BENCH)}>
          It is level now
        </Button>
      )}
    </details>
  );
}

/** Two heights of a standing level over a distance give the fall between them. */
function TwoReadings({ onFall }: { onFall: (mmPerM: number) => void }) {
  const [west, setWest] = useState(0);
  const [east, setEast] = useState(0);
  const [apart, setApart] = useState(300);
  const fall = ((west - east) / apart) * 1000;
  return (
    <div className={styles.readings}>
      <span>Or from two readings of a height, west and east:</span>
      <div className={styles.fields}>
        <MeasureField label="West" quantity="length" step={0.1} value={west} onCommit={setWest} />
        <MeasureField label="East" quantity="length" step={0.1} value={east} onCommit={setEast} />
        <MeasureField label="Apart" quantity="length" step={10} value={apart} validate={(value) => (value > 0 ? null : 'More than 0')} onCommit={setApart} />
      </div>
      {west !== east && (
        <Button size="small" onClick={() => onFall(fall)}>
          Falls {Math.abs(fall).toFixed(1)} mm per m to the {fall > 0 ? 'east' : 'west'}: use it
        </Button>
      )}
    </div>
  );
}
