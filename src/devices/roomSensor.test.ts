import { keyedInSensor, simulatedSensor, usualOf } from './roomSensor';

test('the simulated sensor says the same of a day however it is asked, colder by night, coldest in winter', async () => {
  const sensor = simulatedSensor();
  const january = await sensor.lastDays('2027-01-20', 7);
  const again = await sensor.lastDays('2027-01-18', 3);
  expect(january.map(({ date }) => date)).toEqual(
    ['13', '14', '15', '16', '17', '18', '19'].map((day) => `2027-01-${day}`),
  );
  expect(again).toEqual(january.slice(2, 5));
  const july = usualOf(await sensor.lastDays('2026-07-20', 7))!;
  const cold = usualOf(january)!;
  expect(cold.nightC).toBeLessThan(cold.dayC);
  expect(july.nightC - cold.nightC).toBeGreaterThan(2);
});

test('what is typed is averaged to half a degree; of nothing nothing is said', async () => {
  const typed = keyedInSensor([
    { date: '2026-11-20', dayC: 20, nightC: 15, humidity: 0.5 },
    { date: '2026-11-21', dayC: 21, nightC: 16, humidity: 0.6 },
    { date: '2026-11-30', dayC: 30, nightC: 30, humidity: 0.1 },
  ]);
  expect(usualOf(await typed.lastDays('2026-11-26', 7))).toEqual({ dayC: 20.5, nightC: 15.5, humidity: 0.55 });
  expect(usualOf([])).toBeNull();
});
