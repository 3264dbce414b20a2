import { findIn, type Findable } from './findable';

const thing = (id: string, name: string, change: Partial<Findable> = {}): Findable => ({
  id,
  kind: 'piece',
  name,
  under: 'Heron Slack',
  words: '',
  href: `/${id}`,
  ...change,
});
const find = findIn([
  thing('1', 'SH-A Shore board', { words: 'board boards shore' }),
  thing('2', 'HS-1 Creek straight', { words: 'tile tiles channel' }),
  thing('3', 'Tiles for Ada', { kind: 'batch', under: 'Heron Slack · 28 November 2026', words: '2026-11-28' }),
  thing('4', 'Bubbles at the shore', { kind: 'note', under: 'Winter shore boards · 3 December 2026' }),
  thing('5', 'Pond', { under: 'Creek straight' }),
]);
const found = (line: string): string[] => find.of(line).map(({ id }) => id);

test.each([
  ['shore boards', ['1', '4']],
  ['november', ['3']],
  ['nov 28', ['3']],
  ['heron tile', ['3', '2']],
  ['hs-1', ['2']],
  ['bubles', ['4']],
  ['creek shore', []],
  ['', []],
])('“%s” finds %j', (line, ids) => expect(found(line)).toEqual(ids));
test('a name comes before what stands beneath it', () => expect(found('straight')).toEqual(['2', '5']));
