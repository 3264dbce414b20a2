import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import Sqlite from 'better-sqlite3';
import { zipSync } from 'fflate';
import Papa from 'papaparse';
import type { SetFile } from '../src/core/formats/setFile';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { makeSetArchive, openArchive } from '../src/server/archive';
import type { Dice } from './dice';
import { sendRaw } from './raw';
import { end, memoryMb, pause, serve, sendEdit, type Served } from './server';
import { plainSet } from './set';

/** What odd files and a flood of readings came to. */
export interface StrangeFileFigures {
  files: number;
  /** Answered with a defect, or taken though they must not be; sets that cannot be opened. */
  wrong: string[];
  /** The longest that one was worked on, ms, and what the server grew to by all of them, MB. */
  slowestMs: number;
  grewMb: number;
  readings: { taken: number; refused: number; grewMb: number };
}

/** Archives that grow, lie or lack; sets with odd ids; a database with things of others in it; a flood of readings. */
export async function strangeFiles(data: string, rounds: number, dice: Dice): Promise<StrangeFileFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const figures: StrangeFileFigures = {
    files: 0,
    wrong: [],
    slowestMs: 0,
    grewMb: 0,
    readings: { taken: 0, refused: 0, grewMb: 0 },
  };
  const served = await serve(data);
  try {
    await sendEdit(served.url, { do: 'sample' }, { view: 'sets' });
    const set = await ownSet(served, data);
    const before = memoryMb(served);
    const send = async (what: string, bytes: Uint8Array, wanted: 'taken' | 'refused'): Promise<string | null> => {
      const start = performance.now();
      const headers = { 'content-type': 'application/octet-stream' };
      const answer = await sendRaw(served, { method: 'POST', path: '/api/backups/file', headers, body: bytes });
      figures.files++;
      figures.slowestMs = Math.max(figures.slowestMs, Math.round(performance.now() - start));
      const taken = answer?.status === 200;
      if (!answer || answer.status >= 500 || taken !== (wanted === 'taken'))
        figures.wrong.push(`${answer?.status} ${what}`);
      return taken ? (/"setId":"([^"]+)"/.exec(answer.body)?.[1] ?? null) : null;
    };
    const zeros = zipSync({ 'aguada.db': new Uint8Array(60_000_000) }, { level: 9 });
    const lying = Buffer.from(zeros);
    lying.writeUInt32LE(100, 22);
    lying.writeUInt32LE(100, lying.indexOf('PK\u0001\u0002', 0, 'latin1') + 24);
    for (let round = 0; round < rounds; round++) {
      await send('zeros', zeros, 'refused');
      await send('a zip that lies of its size', lying, 'refused');
      for (const files of [
        [],
        [{ name: dice.one(['constructor', '__proto__', '../x']), bytes: 1, sha256: 'a'.repeat(64) }],
      ])
        await send('a manifest that lacks', manifested({ files }), 'refused');
      const id = dice.one(['../../x', 'a/b', 'é💩', 'with space', '%2e%2e', '__proto__', 'plain-1']);
      const odd = {
        ...set,
        set: { ...set.set, id },
        batches: set.batches.map((batch) => ({
          ...batch,
          data: { ...batch.data, own: { fillerId: set.designs[0]!.id } },
        })),
      };
      const taken = await send(`a set called ${id}`, await buffer(makeSetArchive(odd, '2026-11-26T10:00')), 'taken');
      if (taken) await lookAtSet(served, data, taken, figures);
    }
    await send('a database with triggers of others', foreignDatabase(data), 'taken');
    if (objectsOfOthers(data) > 0) figures.wrong.push('triggers of others were kept');
    figures.grewMb = Math.round(memoryMb(served) - before);
    await oddInputs(served, figures);
    await flood(served, Math.min(20, 2 + rounds), figures);
  } finally {
    await end(served);
  }
  return figures;
}

async function ownSet({ url }: Served, data: string): Promise<SetFile> {
  const path = `${data}.set.zip`;
  writeFileSync(path, Buffer.from(await (await fetch(`${url}/api/sets/heron-slack/archive`)).arrayBuffer()));
  const opened = await openArchive(path, `${path}.unpacked`);
  rmSync(path);
  rmSync(`${path}.unpacked`, { recursive: true, force: true });
  if (opened.holds !== 'set') throw new Error('This is no archive of a set');
  return opened.file;
}

const manifested = ({ files }: { files: object[] }): Uint8Array =>
  zipSync({
    'manifest.json': Buffer.from(
      JSON.stringify({ format: 'aguada.archive', version: 1, holds: 'everything', madeAt: '2026', files }),
    ),
  });

/** A set that was taken in can be opened, and names nothing of the one beside it. */
async function lookAtSet(served: Served, data: string, setId: string, figures: StrangeFileFigures): Promise<void> {
  const page = await sendRaw(served, { method: 'GET', path: `/sets/${setId}/shape`, headers: {}, body: null });
  if (page?.status !== 200) figures.wrong.push(`${page?.status} ${setId} cannot be opened`);
  const file = new Sqlite(data, { readonly: true });
  const fillers = file
    .prepare(
      `select count(*) from batches b where b.set_id = ? and not exists
         (select 1 from designs d where d.set_id = b.set_id and d.id = json_extract(b.own, '$.fillerId'))`,
    )
    .pluck()
    .get(setId) as number;
  file.close();
  if (fillers > 0) figures.wrong.push(`${fillers} fillers of ${setId} are elsewhere`);
}

function foreignDatabase(data: string): Uint8Array {
  const path = `${data}.foreign`;
  const own = new Sqlite(data, { readonly: true });
  own.exec(`vacuum into '${path}'`);
  own.close();
  const foreign = new Sqlite(path);
  foreign.exec(`create table theirs (a); create view their_view as select 1;
    create trigger their_trigger after insert on edits begin update sets set data = '{}'; end;`);
  foreign.close();
  const bytes = readFileSync(path);
  rmSync(path);
  return bytes;
}

function objectsOfOthers(data: string): number {
  const file = new Sqlite(data, { readonly: true });
  const count = file.prepare("select count(*) from sqlite_master where name like 'their%'").pluck().get() as number;
  file.close();
  return count;
}

/** Names that are formulas, a key that is used twice, a room of 300 °F, a colourant that the recipe does not hold. */
async function oddInputs(served: Served, figures: StrangeFileFigures): Promise<void> {
  const { url } = served;
  const expectStatus = (what: string, status: number | undefined, wanted: number): void => {
    figures.files++;
    if (status !== wanted) figures.wrong.push(`${status} in place of ${wanted}: ${what}`);
  };
  const absorption = { red: 1, green: 0.4, blue: 0.7 };
  const ink = { name: '=1+1', kind: 'ink', absorption, dropGrams: 0.035, bottleGrams: 30, bottlePrice: 6 };
  const key = 'torture-key-of-one-edit';
  const shelf = { view: 'shelf' };
  const added = await sendEdit(url, { do: 'add', kind: 'colourant', data: ink }, shelf, key);
  expectStatus('a colourant', added?.status, 200);
  const other = await sendEdit(url, { do: 'add', kind: 'colourant', data: { ...ink, name: 'Other' } }, shelf, key);
  expectStatus('another edit under its key', other?.status, 409);
  const doses = [{ colourantId: added!.body.id!, gramsPer100: 0.2 }];
  const recipe = await sendEdit(url, { do: 'add', kind: 'recipe', data: { name: '@R', doses } }, shelf);
  const pours = [{ thicknessMm: null, strength: 1, own: { unheard: 0.3 } }];
  const strange = await sendEdit(url, { do: 'add', kind: 'recipe', data: { name: 'R', doses, pours } }, shelf);
  expectStatus('a dose of what the recipe does not hold', strange?.status, 422);
  const set = { ...plainSet, name: '=Set', recipeId: recipe!.body.id! };
  const made = await sendEdit(url, { do: 'add', kind: 'set', data: set }, { view: 'sets' });
  const desk = { view: 'desk', setId: made!.body.id! };
  const design = { ...HERON_SLACK_DESIGNS[0]!, tag: '+T', edgeStandards: undefined };
  await sendEdit(url, { do: 'add', kind: 'design', setId: desk.setId, data: design }, desk);
  const batch = await sendEdit(url, { do: 'plan', setId: desk.setId }, desk);
  const csv = await (await fetch(`${url}/export/${desk.setId}/${batch!.body.id!}/pour-card.csv`)).text();
  const cells = Papa.parse<string[]>(csv.trim()).data.flat();
  expectStatus('names in a CSV', cells.some((cell) => cell.includes('=1+1')) ? 200 : 404, 200);
  for (const cell of cells)
    if (/^[=+\-@]/.test(cell) && Number.isNaN(Number(cell))) figures.wrong.push(`the cell ${cell} is a formula`);
  const hot = {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"device":"room","value":300,"unit":"°F"}',
  };
  const { taken } = (await (await fetch(`${url}/api/readings`, hot)).json()) as { taken: { ok: boolean }[] };
  expectStatus('a room of 300 °F', taken[0]!.ok ? 200 : 422, 422);
}

/** A thousand readings a second from ten windows at once. */
async function flood(served: Served, seconds: number, figures: StrangeFileFigures): Promise<void> {
  const before = memoryMb(served);
  const body = Array.from({ length: 10 }, () => '{"device":"scale","value":109.4}').join('\n');
  const headers = { 'content-type': 'application/json' };
  for (const until = performance.now() + seconds * 1000; performance.now() < until; await pause(100))
    await Promise.all(
      Array.from({ length: 10 }, async () => {
        const answer = await sendRaw(served, { method: 'POST', path: '/api/readings', headers, body });
        if (answer?.status === 200) figures.readings.taken += 10;
        else if (answer?.status === 429) figures.readings.refused += 10;
        else figures.wrong.push(`${answer?.status} readings`);
      }),
    );
  figures.readings.grewMb = Math.round(memoryMb(served) - before);
}
