import { featureSchema, outlineSchema } from '../src/core/model/designSchema';
import { readdirSync, readFileSync } from 'node:fs';
import { planCommand } from '@/core/formats/planFile';
import { ReadingLines } from '@/core/model/readingSchema';
import { runCommand } from '@/core/formats/runFile';
import { planRequestSchema, type PlanRequest } from '@/core/plan';

describe('the example in the documentation', () => {
  const text = readFileSync('docs/formats.md', 'utf8');
  const example = /```json\n([\s\S]*?)```/.exec(text)![1]!;
  test('is a whole request, and can be poured', () => {
    const { errors, exitCode } = planCommand(example);
    expect({ errors, exitCode }).toEqual({ errors: '', exitCode: 0 });
    expect(planRequestSchema.parse(JSON.parse(example))).toMatchObject(JSON.parse(example) as PlanRequest);
  });
  test('fails the way the documentation says', () => {
    const broken = example.replace('"temperatureC": 20', '"temperatureC": -40');
    expect(text).toContain(planCommand(broken).errors.trim());
    expect(text).toContain(
      planCommand(example.replace('"widthMm": 56', '"widthMm": 170'))
        .errors.split('\n')
        .find((line) => line.includes('widthMm'))!
        .replace(/\u00a0/g, ' '),
    );
  });
});

test.each([...featureSchema.options, ...outlineSchema.options])(
  'the formats tell every field of each outline and feature',
  (option) => {
    const text = readFileSync('docs/formats.md', 'utf8');
    const kind = option.shape.kind.value;
    const row = text.split('\n').find((line) => line.startsWith(`| \`${kind}\` |`)) ?? '';
    const told = Object.keys(option.shape).filter(
      (field) => field !== 'kind' && field !== 'id' && !row.includes(`\`${field}\``),
    );
    expect([kind, told]).toEqual([kind, []]);
  },
);

test('the readings in the documentation are taken, and its run is played', () => {
  const text = readFileSync('docs/formats.md', 'utf8');
  const section = text.slice(text.indexOf('## Runs'));
  const example = JSON.parse(/```json\n([\s\S]*?)```/.exec(section)![1]!) as Record<string, unknown>;
  const request = JSON.parse(/```json\n([\s\S]*?)```/.exec(text)![1]!) as unknown;
  const { errors, exitCode, output } = runCommand(JSON.stringify({ ...example, request }));
  expect({ errors, exitCode }).toEqual({ errors: '', exitCode: 0 });
  expect((JSON.parse(output) as { said: unknown[] }).said.length).toBeGreaterThan(5);
  const reader = new ReadingLines();
  for (const device of ['scale', 'room', 'gauge'])
    expect(reader.read({ device, value: 12 }, 0)).toMatchObject({ trouble: null, reading: { device } });
});

test('every file that the documentation names is there', () => {
  const files = ['src', 'e2e', 'scripts', 'benchmarks', 'torture'].flatMap((room) =>
    readdirSync(room, { recursive: true, encoding: 'utf8' }).map((file) => `${room}/${file}`),
  );
  const texts = ['README.md', ...readdirSync('docs').flatMap((name) => (name.endsWith('.md') ? [`docs/${name}`] : []))];
  const gone = texts.flatMap((text) =>
    [...readFileSync(text, 'utf8').matchAll(/`([\w/.[\]-]+\.(?:ts|tsx|mjs))`/g)].flatMap(([, name]) =>
      files.some((file) => `/${file}`.endsWith(`/${name}`)) || readdirSync('.').includes(name!)
        ? []
        : [`${text}: ${name}`],
    ),
  );
  expect(gone).toEqual([]);
});
