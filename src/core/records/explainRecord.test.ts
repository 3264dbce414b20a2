import { explainHours, explainMoney, JAR_FIGURES } from './explainJob';
import { explainMonths, explainOverTime, explainTide } from './explainOverTime';
import { jobFigures, type JobPart } from './job';
import { overTime, type BatchOverTime } from './overTime';

const part = (more: Partial<JobPart>): JobPart => ({
  stage: 'pour',
  batchId: 'b',
  batch: 'Creek',
  what: 'Pour',
  minutes: 0,
  money: { low: 0, likely: 0, high: 0 },
  done: false,
  timed: false,
  mayGo: false,
  ...more,
});
const figures = jobFigures(
  [
    part({ minutes: 90, done: true, timed: true }),
    part({ minutes: 30, done: true }),
    part({ minutes: 240 }),
    part({ money: { low: 6.5, likely: 6.5, high: 6.5 }, done: true }),
    part({ money: { low: 12, likely: 15, high: 21 } }),
  ],
  {
    ratePerHour: 10,
    margin: 0,
    spread: { low: 0.9, likely: 1.15, high: 1.4, batches: 14 },
    limits: { hours: null, money: null },
  },
);
/** What stands behind a label, as a number. */
const read = (inputs: readonly { label: string; value: string }[], label: string): number =>
  Number(/-?\d+(\.\d+)?/.exec(inputs.find((one) => one.label === label)!.value)![0]);

test('hours of a job: what is told leads to the figure', () => {
  for (const which of JAR_FIGURES) {
    const { inputs } = explainHours(figures, which);
    const sum =
      which === 'spent'
        ? read(inputs, 'Hours spent')
        : read(inputs, 'Hours spent') + read(inputs, 'Hours to come, as reckoned') * read(inputs, 'How hours turn out');
    expect(sum).toBeCloseTo(figures.hours[which], 6);
  }
  const { inputs, estimate } = explainHours(figures, 'likely');
  expect(inputs.map(({ value }) => value)).toEqual(['2.0 h', '1.5 h', '4.0 h', '× 1.15, as 14 batches turned out']);
  expect(estimate).toBe(true);
  // Half an hour of it was reckoned, not timed.
  expect(explainHours(figures, 'spent').estimate).toBe(true);
  expect(explainHours({ ...figures, timedHours: 2 }, 'spent').estimate).toBe(false);
});

test('money of a job: what is told leads to the figure', () => {
  for (const which of JAR_FIGURES) {
    const { inputs } = explainMoney(figures, which, 10, (amount) => amount.toFixed(2));
    const material =
      which === 'spent' ? read(inputs, 'Material') : read(inputs, 'Material spent') + read(inputs, 'Material to come');
    expect(material + read(inputs, 'Hours') * read(inputs, 'An hour counts')).toBeCloseTo(figures.money[which], 6);
  }
  const { inputs } = explainMoney(figures, 'high', 10, (amount) => amount.toFixed(2));
  expect(read(inputs, 'Material to come')).toBeCloseTo(21, 6);
});

test('a chart tells the batches of its last mean, and the mean before', () => {
  const batches = Array.from({ length: 7 }, (_, i): BatchOverTime => ({
    batchId: `b${i}`,
    name: `Batch ${i}`,
    setId: 's',
    set: 'Creek',
    at: `2026-0${1 + i}-10T10:00`,
    mixedGrams: 100,
    lostGrams: 0,
    money: null,
    pieces: 6,
    looked: 6,
    passed: 6,
    offMm: null,
    colourApart: i,
    timesReckoned: null,
    stepMm: null,
    curedShare: null,
  }));
  const chart = overTime('colour', batches)!;
  const { inputs, estimate } = explainOverTime(chart, 'Colour', (value) => value.toFixed(1));
  expect(inputs.map(({ label, value }) => `${label}: ${value}`)).toEqual([
    'Batch 2: 2.0',
    'Batch 3: 3.0',
    'Batch 4: 4.0',
    'Batch 5: 5.0',
    'Batch 6: 6.0',
    'Mean of the 2 before: 0.5',
  ]);
  expect(chart.lately).toBe(4);
  expect(estimate).toBe(true);
  expect(explainOverTime(overTime('colour', batches.slice(0, 2))!, 'Colour', String).inputs).toHaveLength(2);
});

test('the tide tells its weeks and sums', () => {
  const week = (monday: string, mixedGrams: number) => ({ monday, mixedGrams, lostGrams: mixedGrams / 10, money: 2 });
  const { inputs } = explainTide(
    [week('2026-11-02', 0), week('2026-11-09', 100), week('2026-11-16', 300)],
    (value) => `${value} g`,
    (value) => `${value} €`,
  );
  expect(inputs.map(({ value }) => value)).toEqual(['2 of 3', '400 g', '40 g', '6 €']);
});

test('the months tell what was mixed and lost in each, the newest first', () => {
  const months = [
    { month: '2026-10', inPieces: 90, lost: 10 },
    { month: '2026-11', inPieces: 45, lost: 5 },
  ];
  expect(explainMonths(months, (value) => `${value} g`).inputs).toEqual([
    { label: '2026-11', value: '50 g, 5 g of it lost' },
    { label: '2026-10', value: '100 g, 10 g of it lost' },
  ]);
});
