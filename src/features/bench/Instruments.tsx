'use client';

import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Reading } from '@/core/model/readingSchema';
import { wallMinutes } from '@/core/time/wallTime';
import { formatMeasure } from '@/core/units/formatMeasure';
import { simulatedRoomAt, simulatedSensor } from '@/devices/roomSensor';
import { READING_SOURCE_CHOICES, readingSourceSchema, type ReadingSource } from '@/ui/controls/readingSources';
import { Toggles } from '@/ui/controls/Toggles';
import { useKept } from '@/ui/keptDraft';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import { listenLive } from '../desk/liveStream';
import { wallWords } from '@/ui/alarm/clockWords';
import styles from './BenchStage.module.css';

/** A simulated sensor is heard so often. */
const EVERY_MS = 60_000;

type Latest = Partial<Record<Reading['device'], Reading>>;

async function post(lines: readonly object[]): Promise<string | null> {
  try {
    const response = await fetch('/api/readings', {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-window': 'room' },
      body: JSON.stringify(lines),
    });
    const body = (await response.json()) as { taken?: { trouble: string | null }[]; message?: string };
    return body.taken ? (body.taken.find(({ trouble }) => trouble !== null)?.trouble ?? null) : (body.message ?? null);
  } catch {
    return 'Aguada does not answer.';
  }
}

/** What measures on the bench: the room by hand, simulated or from a sensor; what scale and gauge said last. */
export function Instruments() {
  const { desk } = useDesk();
  const units = useUnits();
  const [source, setSource] = useKept<ReadingSource>('aguada.room', 'by hand', readingSourceSchema);
  const [latest, setLatest] = useState<Latest>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const read = (): void =>
      void fetch('/api/readings')
        .then(async (response) => (response.ok ? ((await response.json()) as { latest: Latest }).latest : null))
        .then((found) => found && setLatest(found))
        .catch(() => undefined);
    return listenLive({
      message: (message) => {
        if (message.type === 'reading') {
          setLatest((known) => ({ ...known, [message.reading.device]: message.reading }));
          setTrouble(message.trouble);
        }
        if (message.type === 'trouble') setTrouble(message.trouble);
      },
      opened: read,
      lost: () => undefined,
    });
  }, []);
  const { now } = desk;
  useEffect(() => {
    if (source !== 'simulated') return;
    const began = performance.now();
    const sensor = simulatedSensor();
    const send = async (): Promise<void> => {
      const room = await simulatedRoomAt(sensor, wallMinutes(now) + (performance.now() - began) / 60_000);
      if (room) setTrouble(await post([{ device: 'room', value: room.temperatureC, humidity: room.humidity }]));
      else setTrouble('The simulated sensor is silent just now: what it said last goes on.');
    };
    void send();
    const timer = setInterval(() => void send(), EVERY_MS);
    return () => clearInterval(timer);
  }, [source, now]);
  const room = latest.room?.device === 'room' ? latest.room : null;
  const { temperatureC } = desk.shelf.settings.data.room;
  return (
    <section aria-label="Instruments">
      <h2 className={styles.heading}>Instruments</h2>
      <div className={styles.instruments}>
        <div>
          <span className="labelled">
            <span>Room</span>
            <Toggles
              label="Where the room is read"
              value={source}
              choices={READING_SOURCE_CHOICES}
              onChoose={setSource}
            />
          </span>
          {source === 'by hand' && (
            <MeasureField
              label="It is now"
              quantity="temperature"
              value={room?.temperatureC ?? temperatureC}
              onCommit={(value) => void post([{ device: 'room', value }]).then(setTrouble)}
            />
          )}
        </div>
        <dl className={styles.heard}>
          <Heard
            name="Room"
            at={room?.at ?? null}
            text={
              room &&
              `${formatMeasure(room.temperatureC, 'temperature', units)}${room.humidity === null ? '' : `, ${Math.round(room.humidity * 100)} %`}`
            }
          />
          <Heard
            name="Scale"
            at={latest.scale?.at ?? null}
            text={latest.scale?.device === 'scale' ? formatMeasure(latest.scale.grams, 'mass', units) : null}
          />
          <Heard
            name="Level gauge"
            at={latest.gauge?.at ?? null}
            text={latest.gauge?.device === 'gauge' ? formatMeasure(latest.gauge.mm, 'length', units, 2) : null}
          />
        </dl>
      </div>
      <p className={styles.soft}>
        The room is written down as it is read: what is curing cures by it. The scale is chosen in a run, under More;
        the gauge on Match, where edges are measured. A real instrument posts a line for each reading to this address,{' '}
        <code>/api/readings</code>: <code>{'{"device":"scale","value":109.4,"unit":"g"}'}</code>.
      </p>
      {trouble && (
        <p role="alert" className={styles.stop}>
          {trouble}{' '}
          <Button variant="text" size="small" onClick={() => setTrouble(null)}>
            Seen
          </Button>
        </p>
      )}
    </section>
  );
}

function Heard({ name, text, at }: { name: string; text: string | null; at: number | null }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>{text ? <b>{text}</b> : 'not heard yet'}</dd>
      {text && at !== null && <dd className={styles.at}>{wallWords(at, at)}</dd>}
    </div>
  );
}
