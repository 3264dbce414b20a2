import { CLEAR_TINT } from '@/core/tint/waterTint';
import { testDesign } from '@/core/bed/testShapes';
import { checkDesign } from '@/core/bed/checkDesign';
import { damRuns } from '@/core/bed/dams';
import { outlineProfiles } from '@/core/bed/profile';
import { buildBed } from '@/core/bed/buildBed';
import type { Problem } from '@/core/model/problem';
import { TYPICAL_LOSSES } from '@/core/mixing/losses';
import { makePictureBed } from '@/core/picture/bedPicture';
import { stripPieces } from '@/core/picture/strip';
import { DEFAULT_CALENDAR } from '@/core/records/recordSchemas';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { LEVEL_BENCH, type CupPlan } from '@/core/plan';
import type { DeskView } from '@/core/records/views';
import { METRIC } from '@/core/units/formatMeasure';
import { applyMend } from './desk/applyMend';
import { stageOfProblem } from './desk/stages';
import { copyNames } from '@/core/model/pieceRef';
import { damWords, groupPours } from './desk/summarise';
import { withNewestVersion } from './edits/editQueue';
import { FEATURE_FIELDS, POINT_FIELDS } from './shape/featureFields';
import { featureSchema, portSchema, type FeatureKind } from '@/core/model/designSchema';

const channel = {
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'north', positionMm: 70 },
  widthMm: 170,
  depthMm: 6,
  section: 'trapezoid',
  bankSlope: 1,
} as const;
const desk: DeskView = {
  set: {
    id: 's',
    version: 3,
    data: { name: 'Set', figureScaleMm: 28, levelMm: 15, productId: 'p', recipeId: 'r', benchWindows: null, job: null },
  },
  designs: [{ id: 'd', version: 7, data: testDesign([channel]) }],
  pieces: [],
  batches: [
    {
      id: 'b',
      version: 2,
      poured: null,
      data: { name: 'B', items: [], pourAt: '2026-11-28T10:00', benchWindows: null },
    },
  ],
  shelf: {
    settings: {
      id: 'w',
      version: 1,
      data: {
        units: METRIC,
        room: { temperatureC: 20, humidity: 0.5 },
        cupGrams: 150,
        scaleStepGrams: 0.1,
        pricePerCup: 0,
        tilt: LEVEL_BENCH,
        benchWindows: [],
        benchExceptions: [],
        measureBy: 'weight',
        calendar: DEFAULT_CALENDAR,
        losses: TYPICAL_LOSSES,
      },
    },
    products: [{ id: 'p', version: 1, data: PRODUCT_KINDS[1]! }],
    consumables: [],
    colourants: [],
    recipes: [],
  },
  batchCount: 1,
  opened: null,
  clockChanges: [],
  measuredDays: [],
  unreadable: [],
  history: { undo: null, redo: null },
  now: '2026-11-24T20:00',
};

describe('what a warning offers is carried out', () => {
  test('on the design that it names, at its version', () => {
    const found = checkDesign(desk.designs[0]!.data, 15).find(({ code }) => code === 'wider-than-edge')!;
    const problem = { ...found, piece: { designId: 'd', copy: null } };
    const command = applyMend(desk, problem.mend!, problem);
    expect(command).toMatchObject({
      do: 'put',
      kind: 'design',
      id: 'd',
      version: 7,
      label: 'Narrow it to 130.0\u00a0mm',
      data: { features: [{ widthMm: 130 }] },
    });
  });
  test('for a measured copy, on its design', () => {
    const mend = { label: 'Dam it', target: 'design' as const, path: ['dams', 'south'], value: 'tape' };
    expect(
      applyMend(desk, mend, {
        severity: 'stop',
        code: 'runs-out',
        piece: { designId: 'd', copy: 2 },
        path: [],
        message: '',
      }),
    ).toMatchObject({ id: 'd', data: { dams: { south: 'tape' } } });
  });
  test('on the set and on the batch', () => {
    const problem: Problem = { severity: 'hint', code: 'tilt', path: [], message: '' };
    expect(applyMend(desk, { label: 'Lower', target: 'set', path: ['levelMm'], value: 12 }, problem)).toMatchObject({
      kind: 'set',
      version: 3,
      data: { levelMm: 12 },
    });
    expect(
      applyMend(desk, { label: 'Later', target: 'batch', path: ['pourAt'], value: '2026-11-29T10:00' }, problem, 'b'),
    ).toMatchObject({ kind: 'batch', version: 2, data: { pourAt: '2026-11-29T10:00' } });
  });
  test('not when what it names is gone, nor when it only advises', () => {
    const gone: Problem = {
      severity: 'stop',
      code: 'tilt',
      piece: { designId: 'gone', copy: null },
      path: [],
      message: '',
    };
    expect(applyMend(desk, { label: 'x', target: 'design', path: ['landMm'], value: 1 }, gone)).toBeNull();
    expect(applyMend(desk, { label: 'x', target: 'none', path: [], value: null }, gone)).toBeNull();
  });
});

test('insisting takes the newest version of the row, wherever in the view it is', () => {
  expect(withNewestVersion({ do: 'remove', kind: 'batch', id: 'b', version: 1 }, desk)).toMatchObject({ version: 2 });
  expect(withNewestVersion({ do: 'remove', kind: 'product', id: 'p', version: 9 }, desk)).toMatchObject({ version: 1 });
  expect(withNewestVersion({ do: 'remove', kind: 'batch', id: 'gone', version: 4 }, desk)).toMatchObject({
    version: 4,
  });
  expect(withNewestVersion({ do: 'undo', scope: 'shelf' }, desk)).toEqual({ do: 'undo', scope: 'shelf' });
});

describe('cups in words', () => {
  const pour = (tag: string, copy: number, grams: number): CupPlan['pours'][number] => ({
    designId: tag.toLowerCase(),
    tag,
    copy,
    grams,
  });
  test('equal pours of one design stand together', () => {
    expect(groupPours([pour('A', 1, 5), pour('A', 2, 5.001), pour('B', 1, 5), pour('A', 3, 2)])).toEqual([
      { designId: 'a', tag: 'A', copies: [1, 2], grams: 5 },
      { designId: 'b', tag: 'B', copies: [1], grams: 5 },
      { designId: 'a', tag: 'A', copies: [3], grams: 2 },
    ]);
  });
  test.each<[number[], string]>([
    [[3], '#3'],
    [[1, 2], '#1, #2'],
    [[4, 1, 3, 2], '#1 to #4'],
    [[1, 2, 4], '#1, #2, #4'],
  ])('copies %j', (copies, words) => expect(copyNames(copies)).toBe(words));
  test('equal dams stand together, open edges are left out', () => {
    const design = testDesign([{ ...channel, widthMm: 58 }]);
    const runs = damRuns(outlineProfiles(buildBed(design), design.outline), 15, { north: 'none' });
    expect(damWords(runs, METRIC)).toBe('south 68\u00a0mm × 18\u00a0mm');
    expect(damWords(damRuns(outlineProfiles(buildBed(design), design.outline), 15), METRIC)).toBe(
      'north and south 68\u00a0mm × 18\u00a0mm',
    );
  });
});

describe('the strip', () => {
  const designs = [{ id: 'd', version: 1, data: testDesign([{ ...channel, widthMm: 58 }]) }];
  test('shows a piece cut where land and water meet, with the dams of that edge only', () => {
    const [piece] = stripPieces(designs, 15, CLEAR_TINT, makePictureBed);
    expect(piece).toMatchObject({ id: 'd', place: 'south', surface: { leftMm: 15, rightMm: 15 } });
    // A channel of 58 mm in the middle of 140 mm; the north edge has its dam too, and is not shown.
    expect(piece!.dams).toMatchObject([{ fromMm: 41, toMm: 99, stripMm: 68, topMm: 18 }]);
  });
  test('the water is as deep in colour as in the cut', () => {
    const [piece] = stripPieces(designs, 15, CLEAR_TINT, makePictureBed);
    expect(piece!.look.stepMm * (piece!.look.colours.length - 1)).toBeCloseTo(6, 1);
  });
});

test.each(Object.keys(FEATURE_FIELDS) as FeatureKind[])(
  'every field of a %s is there to be typed, but its kind, its name and its points',
  (kind) => {
    const option = featureSchema.options.find((candidate) => candidate.shape.kind.value === kind)!;
    const fields = Object.entries(option.shape).flatMap(([key, field]) => {
      if (key === 'kind' || key === 'id' || POINT_FIELDS.has(key)) return [];
      return field === portSchema ? [`${key}.edge`, `${key}.positionMm`] : [key];
    });
    const typed = new Set(FEATURE_FIELDS[kind].map(({ path }) => path.join('.')));
    expect([...typed].sort()).toEqual([...fields].sort());
  },
);

test('each warning leads to the stage that mends it', () => {
  expect(
    ['drops-too-coarse', 'too-many-layers', 'recoat-missed', 'runs-out', 'banks-meet'].map((code) =>
      stageOfProblem(code as Problem['code']),
    ),
  ).toEqual(['tint', 'pour', 'cure', 'shape', 'shape']);
});
