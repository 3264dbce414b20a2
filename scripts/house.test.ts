import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const WRONG = [
  ['src/core/bed/new.ts', 'react'],
  ['src/core/bed/new.ts', '../../db/records'],
  ['src/core/bed/new.ts', 'better-sqlite3'],
  ['src/core/bed/new.ts', 'node:fs'],
  ['src/core/bed/new.ts', '../plan'],
  ['src/core/tint/new.ts', '../bed/grid'],
  ['src/core/model/new.ts', '../records/views'],
  ['src/ui/plan/new.tsx', '@/features/desk/DeskContext'],
  ['src/features/shape/new.tsx', '@/db/records'],
  ['src/features/shape/new.tsx', '../../server/views'],
  ['src/server/new.ts', '@/ui/useWidth'],
  ['src/workers/new.ts', '../server/views'],
  ['src/app/new.tsx', '@/db/records'],
  ['src/features/pour/new.tsx', '../cure/CureStage'],
  ['src/features/tint/new.tsx', '@/server/views'],
] as const;
/** Files are the last room of the core: a room that is missing from the order would be let at them. */
const CORE = readdirSync('src/core')
  .filter((room) => room !== 'formats')
  .map((room) => [`src/core/${room}/new.ts`, '../formats/csv'] as const);
const REFUSED = [...WRONG, ...CORE];
const importOf = (module: string): string => `import { it } from '${module}';\nexport const that = it;\n`;
const SOURCES = [
  ...REFUSED.map(([file, module]) => ({ file, source: importOf(module) })),
  { file: 'src/core/bed/new.ts', source: 'export const now = Date.now() + Math.random();\n' },
  { file: 'src/features/shape/new.tsx', source: importOf('@/ui/useWidth') },
];

/** What the linter says about each source: one process for all, outside the test sandbox. */
function lintAll(): string[] {
  const script = `
    import { ESLint } from 'eslint';
    const eslint = new ESLint();
    const said = [];
    for (const { file, source } of ${JSON.stringify(SOURCES)}) {
      const [result] = await eslint.lintText(source, { filePath: file });
      said.push(result.messages.map(({ ruleId }) => ruleId).join(' '));
    }
    console.log(JSON.stringify(said));`;
  const { stdout, stderr } = spawnSync('node', ['--input-type=module', '-e', script], { encoding: 'utf8' });
  if (!stdout) throw new Error(stderr);
  return JSON.parse(stdout) as string[];
}

describe('the one-way arrows of the house are held by the linter', () => {
  const said = lintAll();
  test.each(REFUSED.map(([file, module], i) => [file, module, i] as const))('%s may not import %s', (_, __, i) =>
    expect(said[i]).toBe('no-restricted-imports'),
  );
  test('the core has neither clock nor dice', () =>
    expect(said.at(-2)).toBe('no-restricted-properties no-restricted-properties'));
  test('what points the right way passes', () => expect(said.at(-1)).toBe(''));
});

/** Every source file with what it imports from the house, followed to files. */
function importsOf(): Map<string, string[]> {
  const files = (readdirSync('src', { recursive: true }) as string[])
    .map((path) => join('src', path))
    .filter((path) => /\.(ts|tsx)$/.test(path) && !path.includes('.test.'));
  const there = new Set(files);
  const followed = (from: string, module: string): string[] => {
    const path = module.startsWith('@/') ? join('src', module.slice(2)) : join(dirname(from), module);
    return [path, `${path}.ts`, `${path}.tsx`, join(path, 'index.ts')].filter((candidate) => there.has(candidate));
  };
  return new Map(
    files.map((file) => {
      const found = [...readFileSync(file, 'utf8').matchAll(/^(?:import|export) [^;]*? from '([.@][^']*)';/gms)];
      return [file, found.flatMap(([, module]) => followed(file, module!))];
    }),
  );
}

test('no file imports itself by way of others', () => {
  const imports = importsOf();
  expect(imports.size).toBeGreaterThan(200);
  const done = new Set<string>();
  const circles: string[] = [];
  const walk = (file: string, path: readonly string[]): void => {
    if (path.includes(file)) return void circles.push([...path.slice(path.indexOf(file)), file].join(' → '));
    if (done.has(file)) return;
    for (const next of imports.get(file) ?? []) walk(next, [...path, file]);
    done.add(file);
  };
  for (const file of imports.keys()) walk(file, []);
  expect(circles).toEqual([]);
});
