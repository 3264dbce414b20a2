// npm run mutants [room] [how many | all]: would a test notice if the core were wrong?
// Draws changes to a room's code by seed, has the core's tests tried on each and says how many were noticed.
// Without a room it goes through all of them. Words are left alone: a test that repeats a sentence notices nothing.
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { cpus } from 'node:os';
import { join, relative } from 'node:path';
import type { MutantResult } from '@stryker-mutator/api/core';
import { Stryker } from '@stryker-mutator/core';
import { Instrumenter } from '@stryker-mutator/instrumenter';
import { seeded } from '../src/core/chance/random';

const CORE = 'src/core';
const DRAWN = 200;
const SEED = Number(process.env['MUTANTS_SEED'] ?? 20261125);
const LEFT_OUT = ['StringLiteral'];

/** Every change of a room that lies within one line (larger ones are noticed by nearly anything). */
async function changesOf(room: string): Promise<string[]> {
  const names = readdirSync(join(CORE, room), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.includes('.test.') && !/(^|\/)test[A-Z]/.test(name))
    .map((name) => join(CORE, room, name))
    .sort();
  const files = names.map((name) => ({ name, mutate: true, content: readFileSync(name, 'utf8') }));
  const silent = { isDebugEnabled: () => false, debug() {}, info() {}, warn() {} };
  const { mutants } = await new Instrumenter(silent as never).instrument(files, {
    plugins: null,
    ignorers: [],
    excludedMutations: LEFT_OUT,
  });
  const ranges = mutants
    .filter(({ location: { start, end }, status }) => start.line === end.line && status !== 'Ignored')
    .map(
      ({ fileName, location: { start, end } }) =>
        `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`,
    );
  return [...new Set(ranges)];
}

/** As many of them as are wanted, each as likely as any other. */
function draw(from: readonly string[], howMany: number): string[] {
  const random = seeded(SEED);
  return from
    .map((change) => ({ change, at: random() }))
    .sort((a, b) => a.at - b.at)
    .slice(0, howMany)
    .map(({ change }) => change);
}

/**
 * Has the tests of `roots` tried on each change; what became of each. `checked`: what does not compile is left out, for the build notices
 * it. To ask the compiler takes ten times as long as the tests, so that it is only asked of what they let pass.
 */
const tryOut = (changes: readonly string[], roots: readonly string[], checked: boolean) =>
  new Stryker({
    mutate: [...changes],
    mutator: { excludedMutations: LEFT_OUT },
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner', '@stryker-mutator/typescript-checker'],
    checkers: checked ? ['typescript'] : [],
    tsconfigFile: 'scripts/mutants.tsconfig.json',
    jest: {
      configFile: 'scripts/mutants.jest.mjs',
      config: { roots: roots.map((root) => `<rootDir>/${root}`) },
      enableFindRelatedTests: true,
    },
    ignoreStatic: true,
    coverageAnalysis: 'perTest',
    concurrency: cpus().length,
    timeoutMS: 10_000,
    reporters: [],
    tempDirName: '.test-tmp/mutants',
    logLevel: 'error' as never,
  }).runMutationTest();

/** What stands at a place of one line; lines and columns from 1. */
const textAt = (file: string, start: { line: number; column: number }, end: { column: number }) =>
  readFileSync(file, 'utf8')
    .split('\n')
    [start.line - 1]!.slice(start.column - 1, end.column - 1);

/** A comparison that allows for rounding: on which side of it a hair lies, or whether just that counts, nobody can see. */
const isAHair = ({
  fileName,
  location: { start, end },
  replacement,
}: Pick<MutantResult, 'fileName' | 'location' | 'replacement'>) => {
  const was = textAt(fileName, start, end);
  const plain = (text: string) =>
    text
      .replaceAll(/[-+] ?(?=1e-\d+|NOTHING\b)/g, '±')
      .replaceAll(/([<>])=/g, '$1')
      .replaceAll(/\s/g, '');
  return /1e-\d+|NOTHING\b/.test(was) && plain(was) === plain(replacement ?? '');
};

const isAlive = ({ status }: MutantResult) => status === 'Survived' || status === 'NoCoverage';
const rangeOf = ({ fileName, location: { start, end } }: MutantResult) =>
  `${relative('.', fileName)}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`;
const keyOf = (mutant: MutantResult) => `${rangeOf(mutant)} ${mutant.replacement}`;

/** One line for a change that no test noticed: where it is, what stood there and what stands there now. */
function describe({ fileName, location: { start, end }, replacement }: MutantResult): string {
  return `  ${relative(CORE, fileName)}:${start.line}  ${textAt(fileName, start, end)}  →  ${replacement || 'nothing'}`;
}

async function tryRoom(room: string, howMany: number) {
  const all = await changesOf(room);
  const drawn = draw(all, howMany);
  const results = (await tryOut(drawn, [join(CORE, room)], false)).filter(
    (result) => !/Ignored|Error/.test(result.status) && !isAHair(result),
  );
  const missed = results.filter(isAlive);
  // What a room's own tests do not notice may be noticed by those of the rooms that build on it.
  const later = missed.length > 0 ? await tryOut([...new Set(missed.map(rangeOf))], [CORE], true) : [];
  const noticedLater = new Set(later.filter((result) => !isAlive(result)).map(keyOf));
  const alive = missed.filter((mutant) => !noticedLater.has(keyOf(mutant)));
  const text = alive.map(describe).sort();
  for (const line of text) console.log(line);
  const share = 1 - alive.length / results.length;
  const give = all.length > drawn.length ? 1.96 * Math.sqrt((share * (1 - share)) / results.length) : 0;
  const percent = (value: number) => (100 * value).toFixed(0);
  console.log(
    `${room}: ${percent(share)} % ± ${percent(give)} noticed, ${percent(1 - missed.length / results.length)} % by tests of the room itself ` +
      `(${results.length - alive.length} of ${results.length} tried, ${all.length} in the room)`,
  );
}

const [room, howMany = String(DRAWN)] = process.argv.slice(2);
const rooms = readdirSync(CORE, { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => name);
if (room !== undefined && !rooms.includes(room)) {
  console.error(`The core has no room “${room}”. Its rooms: ${rooms.join(', ')}.`);
  process.exit(1);
}
const wanted = howMany === 'all' ? Infinity : Number(howMany);
if (!(wanted >= 1)) {
  console.error(`“${howMany}” is not a number of changes: say, 200, or “all”.`);
  process.exit(1);
}
for (const each of room === undefined ? rooms : [room]) await tryRoom(each, wanted);
rmSync('.test-tmp/mutants', { recursive: true, force: true });
