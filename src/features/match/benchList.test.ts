import { CLEAR_TINT } from '@/core/tint/waterTint';
import { testDesign } from '@/core/bed/testShapes';
import { newFeature } from '@/core/bed/starters';
import type { PieceRecord } from '@/core/records/recordSchemas';
import { matchSet } from '@/core/seams/matchSet';
import { NO_WISH, SEAM_LIMITS } from '@/core/model/seamSchema';
import { LEVEL_BENCH } from '@/core/plan';
import { benchRows } from './benchList';
import type { Stored } from '@/core/model/stored';

const design = testDesign([newFeature('channel', testDesign())], { tag: 'T', copies: 2 });
const designs = [{ id: 't', version: 1, data: design }];
const match = matchSet({
  pieces: [{ tag: 'T', designId: 't', copy: null, copies: 2, design, edges: {} }],
  levelMm: 15,
  limits: SEAM_LIMITS,
  standards: [],
  tilt: LEVEL_BENCH,
  tint: CLEAR_TINT,
  row: NO_WISH,
});
const piece = (copy: number, edges: PieceRecord['edges']): Stored<PieceRecord> => ({
  id: `p${copy}`,
  version: 1,
  data: { designId: 't', copy, measured: { atLevelMm: 15, readings: [], fillMl: null }, edges },
});

describe('the bench list', () => {
  test('has every wet edge of every copy, piece after piece', () => {
    const rows = benchRows(match, { designs, pieces: [] });
    expect(rows.map(({ name, edge }) => `${name} ${edge}`)).toEqual([
      'T #1 north',
      'T #1 south',
      'T #2 north',
      'T #2 south',
    ]);
    expect(rows.every(({ measured, plannedMm }) => measured === null && plannedMm[1] === 15)).toBe(true);
  });
  test('shows what was measured on the copy it was measured on', () => {
    const rows = benchRows(match, { designs, pieces: [piece(2, { south: { bed: [], levels: [14, 14, 14] } })] });
    expect(rows.filter(({ measured }) => measured).map(({ name, edge }) => `${name} ${edge}`)).toEqual(['T #2 south']);
  });
  test('is empty before the first match', () => expect(benchRows(null, { designs, pieces: [] })).toEqual([]));
});
