import { NOT_MEASURED, wasMeasured, withLevel } from './measuredEdge';
import { measuredEdgeSchema, type MeasuredEdge } from '../model/seamSchema';

const after = (...typed: [k: number, value: number][]): MeasuredEdge =>
  typed.reduce((edge, [k, value]) => withLevel(edge, k, value), NOT_MEASURED);

describe('levels as they are typed, one after another', () => {
  test('the first stands for the whole edge, and only it was measured', () => {
    const edge = after([0, 14.2]);
    expect(edge.levels).toEqual([14.2, 14.2, 14.2]);
    expect([0, 1, 2].map((k) => wasMeasured(edge, k))).toEqual([true, false, false]);
  });
  test('with the far end typed next, the middle lies between', () => {
    const edge = after([0, 14.2], [2, 14.8]);
    expect(edge.levels![1]).toBeCloseTo(14.5, 12);
    expect(edge.takenOver).toEqual([1]);
  });
  test('a middle that was measured stays, and then nothing is taken over', () => {
    const edge = after([0, 14.2], [1, 14.9], [2, 14.8]);
    expect(edge).toEqual({ bed: [], levels: [14.2, 14.9, 14.8] });
  });
  test('an end that was not measured is as the middle', () =>
    expect(after([0, 14], [1, 15])).toMatchObject({ levels: [14, 15, 15], takenOver: [2] }));
  test('any of them can be put right', () =>
    expect(after([0, 14.2], [1, 14.9], [2, 14.8], [0, 14]).levels).toEqual([14, 14.9, 14.8]));
  test('an edge from before this was kept counts as measured throughout', () =>
    expect([0, 1, 2].every((k) => wasMeasured({ bed: [], levels: [1, 2, 3] }, k))).toBe(true));
  test('what comes out is kept as it is', () =>
    expect(measuredEdgeSchema.parse(after([2, 9]))).toEqual({ bed: [], levels: [9, 9, 9], takenOver: [0, 1] }));
});
