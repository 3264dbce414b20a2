'use client';

import Button from '@mui/material/Button';
import Delete from '@mui/icons-material/DeleteOutlined';
import IconButton from '@mui/material/IconButton';
import type { Settings } from '@/core/records/recordSchemas';
import { FIRST_WORKPLACE, workplaceSchema, type Workplace as WorkplaceData } from '@/core/schedule/workplace';
import { complaintAt } from '@/core/records/replaceAt';
import { simulatedSensor, usualOf } from '@/devices/roomSensor';
import { DateField, TimeField } from '@/ui/controls/MomentField';
import { Tick } from '@/ui/controls/Tick';
import { BenchWindows } from '@/ui/measure/BenchWindows';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import styles from './ShelfScreen.module.css';

interface WorkplaceProps {
  settings: Settings;
  today: string;
  /** Changes the settings in one edit. */
  putAll: (make: (data: Settings) => Settings) => void;
}

/** What may be short, as it is asked for; `first` stands there when the maker says that it is. */
const PLACES = [
  { key: 'levelCm2', is: 'Level place is short', label: 'Level place, cm²', first: 4000, step: 100 },
  { key: 'damKits', is: 'Dam kits are short', label: 'Pieces that there are dams for', first: 12, step: 1 },
  { key: 'moulds', is: 'Moulds are short', label: 'Moulds', first: 2, step: 1 },
  { key: 'dryBox', is: 'There is a dry box', label: 'Pieces that it holds', first: 12, step: 1 },
] as const;

const SENSOR_DAYS = 7;
const FIRST_QUIET = { fromMinute: 21 * 60, toMinute: 8 * 60 };

/** Who works where, when it may be loud, how the room changes: what the calendar counts with. */
export function Workplace({ settings, today, putAll }: WorkplaceProps) {
  const place = settings.workplace ?? FIRST_WORKPLACE;
  const change = (part: Partial<WorkplaceData>): void =>
    putAll((data) => ({ ...data, workplace: { ...(data.workplace ?? FIRST_WORKPLACE), ...part } }));
  const validate =
    (path: (string | number)[]) =>
    (value: unknown): string | null =>
      complaintAt(workplaceSchema, place, path, value);
  const readSensor = async (): Promise<void> => {
    const usual = usualOf(await simulatedSensor().lastDays(today, SENSOR_DAYS));
    if (!usual) return;
    const { dayC, nightC, humidity } = usual;
    putAll((data) => ({
      ...data,
      room: { ...data.room, temperatureC: dayC, humidity },
      workplace: { ...(data.workplace ?? FIRST_WORKPLACE), nightC },
    }));
  };
  return (
    <>
      <fieldset className={styles.group}>
        <legend>Places and people</legend>
        <div className={styles.fields}>
          {PLACES.map(({ key, is, label, first, step }) => {
            const there = place[key];
            return (
              <div key={key}>
                <Tick label={is} checked={there !== null} onChange={(on) => change({ [key]: on ? first : null })} />
                {there !== null && (
                  <MeasureField
                    label={label}
                    quantity="number"
                    step={step}
                    value={there}
                    validate={validate([key])}
                    onCommit={(value) => change({ [key]: value })}
                  />
                )}
              </div>
            );
          })}
        </div>
        <Tick
          label="Somebody helps"
          checked={place.helper !== null}
          onChange={(on) => change({ helper: on ? { name: 'Helper', windows: settings.benchWindows } : null })}
        />
        {place.helper && (
          <>
            <div className={styles.fields}>
              <WordField
                label="Who helps"
                value={place.helper.name}
                validate={validate(['helper', 'name'])}
                onCommit={(name) => change({ helper: { ...place.helper!, name } })}
              />
            </div>
            <BenchWindows
              windows={place.helper.windows}
              onChange={(windows) => change({ helper: { ...place.helper!, windows } })}
              none="No windows: at any hour."
            />
          </>
        )}
        <div className={styles.fields}>
          <ChoiceField
            label="After due dates comes"
            value={place.goal}
            choices={[
              { value: 'soonest', label: 'ready soonest' },
              { value: 'fewest evenings', label: 'fewest evenings' },
            ]}
            onCommit={(goal) => change({ goal })}
          />
        </div>
      </fieldset>
      <fieldset className={styles.group}>
        <legend>Nights, and days that are known</legend>
        <div className={styles.fields}>
          <div>
            <Tick
              label="Nights are colder"
              checked={place.nightC !== null}
              onChange={(on) => change({ nightC: on ? Math.max(5, settings.room.temperatureC - 4) : null })}
            />
            {place.nightC !== null && (
              <MeasureField
                label="The room at night"
                quantity="temperature"
                step={0.5}
                value={place.nightC}
                validate={validate(['nightC'])}
                onCommit={(nightC) => change({ nightC })}
              />
            )}
          </div>
          {place.nightC !== null && (
            <>
              <TimeField
                label="Night from"
                minutes={place.nightFromMinute}
                onCommit={(nightFromMinute) => change({ nightFromMinute })}
              />
              <TimeField
                label="Night to"
                minutes={place.nightToMinute}
                onCommit={(nightToMinute) => change({ nightToMinute })}
              />
            </>
          )}
        </div>
        {place.days.map((day, i) => (
          <div key={i} className={styles.dayRow}>
            <DateField
              label="Day"
              value={day.date}
              onCommit={(date) =>
                date !== '' && change({ days: place.days.map((one, k) => (k === i ? { ...one, date } : one)) })
              }
            />
            {(
              [
                ['dayC', 'By day', 'temperature', 0.5],
                ['nightC', 'The night after', 'temperature', 0.5],
                ['humidity', 'Humidity', 'fraction', 0.05],
              ] as const
            ).map(([key, label, quantity, step]) => (
              <MeasureField
                key={key}
                label={label}
                quantity={quantity}
                step={step}
                value={day[key]}
                validate={validate(['days', i, key])}
                onCommit={(value) =>
                  change({ days: place.days.map((one, k) => (k === i ? { ...one, [key]: value } : one)) })
                }
              />
            ))}
            <IconButton
              aria-label={`Remove the room of ${day.date}`}
              onClick={() => change({ days: place.days.filter((_, k) => k !== i) })}
            >
              <Delete />
            </IconButton>
          </div>
        ))}
        <div className={styles.add}>
          <Button
            size="small"
            onClick={() =>
              change({
                days: [
                  ...place.days,
                  {
                    date: today,
                    dayC: settings.room.temperatureC,
                    nightC: place.nightC ?? settings.room.temperatureC,
                    humidity: settings.room.humidity,
                  },
                ],
              })
            }
          >
            Say how a day is
          </Button>
          <Button size="small" onClick={() => void readSensor()}>
            Read the room sensor
          </Button>
        </div>
        <p className={styles.itemFacts}>
          A simulated sensor stands in: the mean of its last {SENSOR_DAYS} days becomes the room by day and by night.
        </p>
      </fieldset>
      <fieldset className={styles.group}>
        <legend>When it may be loud, and when it may smell</legend>
        <Tick
          label="There are quiet hours"
          checked={place.quiet !== null}
          onChange={(on) => change({ quiet: on ? FIRST_QUIET : null })}
        />
        {place.quiet && (
          <div className={styles.fields}>
            <TimeField
              label="Quiet from"
              minutes={place.quiet.fromMinute}
              onCommit={(fromMinute) => change({ quiet: { ...place.quiet!, fromMinute } })}
            />
            <TimeField
              label="Quiet to"
              minutes={place.quiet.toMinute}
              onCommit={(toMinute) => change({ quiet: { ...place.quiet!, toMinute } })}
            />
          </div>
        )}
        <BenchWindows
          windows={place.outdoors}
          onChange={(outdoors) => change({ outdoors })}
          none="Outdoor steps, such as sprays: whenever you are at the bench."
        />
      </fieldset>
    </>
  );
}
