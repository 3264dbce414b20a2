import { schedule } from './solve';
import { scheduleRequestSchema, type ScheduleRequestInput } from './scheduleRequest';
import { EVENINGS, EPOXY, inTurn, requestOf } from './testSchedules';
import { testBatch, testFacts, testWorkshop } from './testWorkshop';
import { usualRoute } from './routes';
import { calendarRequest } from './workplace';

const evenings = [{ name: 'Maker', windows: EVENINGS.slice(0, 2), exceptions: [] }];
const batchOf = (...steps: Parameters<typeof inTurn>): ScheduleRequestInput['batches'] => [
  { id: 'b', name: 'Boards', steps: inTurn(...steps) },
];
const told = (input: Parameters<typeof requestOf>[0]) => schedule(requestOf(input)).problems;

test('a step that no window is long enough for is said with what it needs; what may be paused is not', () => {
  const [problem] = told({ makers: evenings, batches: batchOf({ id: 'pour', handsOnMinutes: 200 }) });
  expect(problem).toMatchObject({ severity: 'stop', code: 'no-bench-window', batchId: 'b', stepId: 'pour' });
  expect(problem!.message).toBe('pour of Boards needs 3.3\u00a0h in one go; the longest time for it is 2.5\u00a0h.');
  expect(problem!.mend!.label).toMatch(/bench window 3\.3\u00a0h long/);
  expect(told({ makers: evenings, batches: batchOf({ id: 'sand', handsOnMinutes: 200, mayPause: true }) })).toEqual([]);
});

test('an outdoor step without an outdoor hour, a step for two without shared hours', () => {
  const [outdoors] = told({
    makers: evenings,
    outdoors: [{ weekday: 2, fromMinute: 600, toMinute: 700 }],
    batches: batchOf({ id: 'spray', handsOnMinutes: 20, outdoors: true }),
  });
  expect(outdoors!.message).toMatch(/there is no outdoor hour in your bench windows for it/);
  const [both] = told({ makers: evenings, batches: batchOf({ id: 'lift', handsOnMinutes: 20, hands: 2 }) });
  expect(both!.message).toMatch(/both makers share no bench time/);
});

test('one batch that cannot be planned does not keep the others from it', () => {
  const plan = schedule(
    requestOf({
      makers: evenings,
      batches: [
        ...batchOf({ id: 'pour', handsOnMinutes: 200 }),
        { id: 'c', name: 'Tiles', steps: inTurn({ id: 'pour', handsOnMinutes: 60 }) },
      ],
    }),
  );
  expect(plan.steps.map(({ batchId }) => batchId)).toEqual(['c']);
  expect(plan.problems.map(({ batchId }) => batchId)).toEqual(['b']);
});

test('more than there is of a place: said with what would do', () => {
  const [problem] = told({
    places: [{ id: 'kit', name: 'dam kits', capacity: 8 }],
    batches: [
      {
        ...batchOf({ id: 'pour', handsOnMinutes: 30 })[0]!,
        holds: [{ place: 'kit', amount: 20, from: 'pour', to: 'pour' }],
      },
    ],
  });
  expect(problem).toMatchObject({ severity: 'stop', code: 'place-too-small' });
  expect(problem!.message).toBe('Boards needs 20 dam kits; there are 8.');
  expect(problem!.mend!.label).toBe('Make 3 batches of it, or have 20 dam kits.');
});

test('lags that contradict in the room as it is: 240 label minutes at 23 °C come to more than 400 in the cold', () => {
  const link = { step: 'one', least: { minutes: 240, curing: EPOXY }, most: { minutes: 400 } };
  const steps = batchOf({ id: 'one', handsOnMinutes: 10 }, { id: 'two', handsOnMinutes: 10, after: [link] });
  expect(told({ batches: steps })).toEqual([]);
  const [problem] = told({ conditions: { usual: { dayC: 12, nightC: 12, humidity: 0.5 } }, batches: steps });
  expect(problem).toMatchObject({ severity: 'stop', code: 'does-not-fit', stepId: 'two' });
  expect(problem!.message).toMatch(/both cannot be/);
});

test('a due date that is past, and one that is missed', () => {
  const of = (due: string) =>
    told({
      batches: [
        {
          ...batchOf(
            { id: 'one', handsOnMinutes: 10 },
            { id: 'two', handsOnMinutes: 10, after: [{ step: 'one', least: { minutes: 5000 } }] },
          )[0]!,
          due,
        },
      ],
    });
  expect(of('2026-11-20')[0]).toMatchObject({
    code: 'due-past',
    message: expect.stringMatching(/was due Fri 20 Nov: that is past/),
  });
  expect(of('2026-11-25')[0]).toMatchObject({
    code: 'late',
    message: expect.stringMatching(/is ready Thu 26 Nov, 23:40/),
  });
  expect(of('2026-11-27')).toEqual([]);
});

test('a room colder than the product sets in, and one warmer than its cups were sized for', () => {
  const codes = (change: { nightC?: number; roomC?: number; temperatureC?: number }) => {
    const shop = testWorkshop({ nightC: change.nightC ?? 20 });
    const room = { ...shop.room, temperatureC: change.temperatureC ?? 20 };
    const facts = testFacts({ roomC: change.roomC ?? 20 }, 'coating-epoxy', 1);
    return schedule(calendarRequest([testBatch('b', { facts })], { ...shop, room }, 200)!).problems;
  };
  expect(codes({})).toEqual([]);
  const [cold] = codes({ nightC: 12 });
  expect(cold).toMatchObject({ code: 'cold-room', stepId: 'pour 1' });
  expect(cold!.message).toMatch(/falls to 12 °C, below the 15 °C/);
  const [warm] = codes({ temperatureC: 26, nightC: 26, roomC: 20 });
  expect(warm).toMatchObject({ code: 'pot-life-shorter' });
  // 22 minutes at 20 °C, Arrhenius with 55 kJ/mol to 26 °C: ×0.636.
  expect(warm!.message).toMatch(/is 14\u00a0min then, not 22\u00a0min/);
});

test('an order that the work does not allow is refused with its reason', () => {
  const facts = testFacts();
  const usual = usualRoute(facts);
  const moved = (id: string, to: number) => {
    const step = usual.find((one) => one.id === id)!;
    const rest = usual.filter((one) => one !== step);
    return [...rest.slice(0, to), { ...step, on: true }, ...rest.slice(to)];
  };
  const problems = (route: typeof usual) =>
    schedule(calendarRequest([testBatch('b', { route })], testWorkshop(), 100)!).problems;
  const pourAt = usual.findIndex(({ id }) => id === 'pour');
  expect(problems(moved('seal', pourAt + 1))[0]).toMatchObject({ code: 'order-broken', severity: 'stop' });
  expect(problems(moved('seal', pourAt + 1)).some(({ message }) => /unsealed pinhole leaks/.test(message))).toBe(true);
  expect(problems(moved('dam', pourAt)).some(({ message }) => /dams shift the pieces/.test(message))).toBe(true);
  expect(problems(moved('plants after', 0)).some(({ message }) => /wick/.test(message))).toBe(true);
  expect(problems(usual).filter(({ severity }) => severity === 'stop')).toEqual([]);
});

test('a request that cannot be is refused at its field', () => {
  const complaints = (batches: ScheduleRequestInput['batches'], places: ScheduleRequestInput['places'] = []) => {
    const parsed = scheduleRequestSchema.safeParse({
      format: 'aguada.schedule-request',
      version: 1,
      now: '2026-11-23T12:00',
      makers: [{ name: 'Maker', windows: [] }],
      conditions: { usual: { dayC: 20, nightC: 20, humidity: 0.5 } },
      places,
      batches,
    });
    return parsed.success ? [] : parsed.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`);
  };
  const circle = batchOf(
    { id: 'a', handsOnMinutes: 1, after: [{ step: 'c' }] },
    { id: 'b', handsOnMinutes: 1 },
    { id: 'c', handsOnMinutes: 1 },
  );
  expect(complaints(circle)).toEqual([
    'batches.0.steps.0.after: a waits for c waits for b waits for itself. Take one of these lags out.',
  ]);
  expect(
    complaints(
      batchOf(
        { id: 'a', handsOnMinutes: 1 },
        { id: 'b', handsOnMinutes: 1, after: [{ step: 'a', least: { minutes: 60 }, most: { minutes: 30 } }] },
      ),
    )[0],
  ).toMatch(
    /^batches\.0\.steps\.1\.after\.0\.most: b: at least 60 min after a and at most 30 min after it cannot both be/,
  );
  expect(complaints(batchOf({ id: 'a', handsOnMinutes: 1, after: [{ step: 'x' }] }))[0]).toMatch(/There is no step x/);
  expect(
    complaints([
      { ...batchOf({ id: 'a', handsOnMinutes: 1 })[0]!, holds: [{ place: 'kit', amount: 1, from: 'a', to: 'z' }] },
    ]),
  ).toEqual([
    'batches.0.holds.0.place: There is no place kit',
    'batches.0.holds.0.to: There is no step z in this batch',
  ]);
  expect(complaints([...batchOf({ id: 'a', handsOnMinutes: 1 }), ...batchOf({ id: 'a', handsOnMinutes: -1 })])).toEqual(
    expect.arrayContaining([expect.stringMatching(/steps\.0\.handsOnMinutes: Cannot be negative/)]),
  );
  expect(
    complaints([...batchOf({ id: 'a', handsOnMinutes: 1 }), ...batchOf({ id: 'a', handsOnMinutes: 1 })])[0],
  ).toMatch(/Two batches are called b/);
});
