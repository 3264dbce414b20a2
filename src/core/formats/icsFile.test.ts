import ICAL from 'ical.js';
import { schedule } from '../schedule/solve';
import { inTurn, requestOf } from '../schedule/testSchedules';
import { icsOf } from './icsFile';

test('a calendar library reads the file back: steps at their wall times, paused ones in parts, alarms, windows that close', () => {
  const request = requestOf({
    makers: [
      {
        name: 'Maker',
        windows: [
          { weekday: 1, fromMinute: 19 * 60, toMinute: 20 * 60 },
          { weekday: 2, fromMinute: 19 * 60, toMinute: 20 * 60 },
        ],
        exceptions: [],
      },
    ],
    batches: [
      {
        id: 'b',
        name: 'Creek tiles',
        steps: inTurn(
          { id: 'long', handsOnMinutes: 90, mayPause: true },
          { id: 'look', handsOnMinutes: 5, after: [{ step: 'long', least: { minutes: 10 }, most: { minutes: 20 } }] },
          { id: 'cured', handsOnMinutes: 0 },
        ),
      },
    ],
  });
  const plan = schedule(request);
  const calendar = new ICAL.Component(ICAL.parse(icsOf(request, plan, request.now)) as unknown[]);
  const events = calendar.getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component);
    const alarm = component.getFirstSubcomponent('valarm');
    return {
      summary: event.summary,
      start: event.startDate.toString(),
      end: event.endDate.toString(),
      zone: event.startDate.zone?.tzid,
      alarm: String(alarm?.getFirstPropertyValue('trigger')),
    };
  });
  const bench = { zone: 'floating', alarm: '-PT15M' };
  expect(events).toEqual([
    { ...bench, summary: 'long, Creek tiles', start: '2026-11-24T19:00:00', end: '2026-11-24T20:00:00' },
    { ...bench, summary: 'long, Creek tiles', start: '2026-11-25T19:00:00', end: '2026-11-25T19:30:00' },
    { ...bench, summary: 'look, Creek tiles', start: '2026-11-25T19:40:00', end: '2026-11-25T19:45:00' },
    {
      ...bench,
      alarm: '-PT1H',
      summary: 'Too late after this: look, Creek tiles',
      start: '2026-11-25T19:50:00',
      end: '2026-11-25T19:50:00',
    },
  ]);
  expect(plan.bound.proved).toBe(true);
});
