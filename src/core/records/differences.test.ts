import { differences } from './differences';

const tile = {
  tag: 'HS-1',
  copies: 4,
  landMm: 18,
  flowsFrom: undefined,
  recipeId: 'peat',
  outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 },
  features: [
    { kind: 'channel', widthMm: 58, endsInside: false },
    { kind: 'rock', diameterMm: 15 },
  ],
};

describe('where two versions differ', () => {
  test('is said field by field, with units, in the words of the maker', () => {
    const theirs = {
      ...tile,
      copies: 6,
      flowsFrom: 'south',
      recipeId: 'clear',
      features: [{ ...tile.features[0]!, widthMm: 62.5, endsInside: true }, tile.features[1]!],
    };
    expect(differences(tile, theirs)).toEqual([
      { field: 'copies', mine: '4', theirs: '6' },
      { field: 'flows from', mine: 'none', theirs: 'south' },
      { field: 'recipe', mine: 'peat', theirs: 'clear' },
      { field: 'feature 1, width', mine: '58.0\u00a0mm', theirs: '62.5\u00a0mm' },
      { field: 'feature 1, ends inside', mine: 'no', theirs: 'yes' },
    ]);
  });
  test('a list that has grown is told by its length', () => {
    const theirs = { ...tile, features: [...tile.features, { kind: 'post' }] };
    expect(differences(tile, theirs)).toEqual([{ field: 'features', mine: '2 of them', theirs: '3 of them' }]);
  });
  test('is nothing where one does not say what the other says is none', () => {
    expect(differences({ ...tile, measured: null }, tile)).toEqual([]);
    expect(differences(tile, structuredClone(tile))).toEqual([]);
  });
});
