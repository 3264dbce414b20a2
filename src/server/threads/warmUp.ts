import { firstSchedule } from '@/core/schedule/solve';
import { scheduleRequestSchema } from '@/core/schedule/scheduleRequest';

/** A few batches with their waits: enough for a thread to have gone through all of the search once. */
const request = scheduleRequestSchema.parse({
  format: 'aguada.schedule-request',
  version: 1,
  now: '2026-01-01T12:00',
  effort: 400,
  makers: [
    {
      name: 'Maker',
      windows: [0, 2, 4].map((weekday) => ({ weekday, fromMinute: 1140, toMinute: 1290 })),
      exceptions: [],
    },
  ],
  places: [{ id: 'kits', name: 'dam kits', capacity: 12 }],
  conditions: { usual: { dayC: 20, nightC: 16, humidity: 0.5 }, days: [] },
  batches: ['a', 'b', 'c'].map((id) => ({
    id,
    name: id,
    pieces: 6,
    due: '2026-02-01',
    steps: [
      { id: 'dam', kind: 'dam', name: 'Dams on', handsOnMinutes: 30, mayPause: true },
      { id: 'pour', kind: 'pour', name: 'Pour', handsOnMinutes: 40, after: [{ step: 'dam' }] },
      {
        id: 'second',
        kind: 'pour',
        name: 'Second layer',
        handsOnMinutes: 40,
        after: [{ step: 'pour', least: { minutes: 240 }, most: { minutes: 960 }, abradeMinutes: 25 }],
      },
      {
        id: 'off',
        kind: 'demould',
        name: 'Dams off',
        handsOnMinutes: 20,
        after: [{ step: 'second', least: { minutes: 1440 } }],
      },
    ],
    holds: [{ place: 'kits', amount: 6, from: 'dam', to: 'off' }],
  })),
});

/** Goes through the search of the calendar a few times: the first time a thread does anything it is several times as slow. */
export function warmUp(): void {
  for (let seed = 1; seed <= 4; seed++) firstSchedule({ ...request, seed });
}
