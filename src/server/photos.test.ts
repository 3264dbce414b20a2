import { createHash } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import Sqlite from 'better-sqlite3';
import { unzipSync } from 'fflate';
import { writeFileSync } from 'node:fs';
import { testJpeg } from '@/core/formats/testJpeg';
import { commandSchema, setScope } from '@/core/records/command';
import { photosOf } from '@/core/records/photos';
import type { Photo } from '@/core/records/recordSchemas';
import { logAskSchema } from '@/core/records/workshopLog';
import { getBatch } from '@/db/batches';
import { hasPhoto, letGoOfPhotos, photoBytes } from '@/db/photos';
import { listBatches } from '@/db/batches';
import { setFileOf } from '@/db/setFile';
import { temporaryFolder } from '@/db/testDataFile';
import { logPage } from '@/db/workshopLog';
import { makeSetArchive } from './archive';
import { setArchive, takeIn, wholeArchive } from './backups';
import { closeData, withData } from './data';
import { photoAnswer, takePhoto } from './photos';
import { answer } from './respond';
import { runCommand } from './runCommand';
import { closePool } from './threads/pool';
import { shelfView } from './views';

const folder = temporaryFolder();
process.env['AGUADA_DATA'] = join(folder, 'photos.db');
const SET = 'heron-slack';
const BATCH = 'hs-batch-1';
const PIECE = { designId: 'hs-1', copy: 1 };
const run = (command: unknown) => runCommand(commandSchema.parse(command), setScope(SET));
const sumOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

async function send(body: Uint8Array, headers: Record<string, string> = { 'content-type': 'image/jpeg' }) {
  const request = new Request('http://127.0.0.1/api/photos', { method: 'POST', headers, body: new Uint8Array(body) });
  const response = await answer(() => takePhoto(request));
  return { status: response.status, body: (await response.json()) as Photo & { message: string } };
}
const put = (photo: Photo, wanted = true, copy = PIECE) =>
  run({ do: 'photo', setId: SET, copies: [{ ...copy, batchId: BATCH }], photo, wanted });
const kept = (id: string): Buffer | null => withData((db) => photoBytes(db, id));
const ofPiece = () => withData((db) => photosOf(getBatch(db, BATCH)!.data, PIECE));

beforeAll(async () => {
  shelfView();
  await runCommand(commandSchema.parse({ do: 'sample' }), 'sets');
  const { designs } = withData((db) => setFileOf(db, SET));
  PIECE.designId = designs.find(({ data }) => data.tag === 'HS-1')!.id;
}, 60_000);
afterAll(async () => {
  closeData();
  await closePool();
});

test('a photo is cleaned of its place on the way in, known by the sum of what is kept, and given out as that', async () => {
  const { status, body } = await send(testJpeg({ beside: true }));
  expect(status).toBe(200);
  expect(body).toMatchObject({ width: 640, height: 480, photo: sumOf(testJpeg()) });
  const given = photoAnswer(body.photo);
  expect(given.headers.get('content-type')).toBe('image/jpeg');
  expect(Buffer.from(await given.arrayBuffer())).toEqual(Buffer.from(testJpeg()));
  expect(() => photoAnswer('0'.repeat(64))).toThrow('This photo is not in the data file.');
});

test.each([
  ['no photo', Buffer.from('hello'), {}, 415, 'This is no photo.'],
  ['one cut short', testJpeg().subarray(0, 120), {}, 415, 'This photo was cut short.'],
  ['one that was not made small', testJpeg({ width: 4000, height: 3000 }), {}, 413, 'This photo was not made small.'],
  ['another kind', testJpeg(), { 'content-type': 'image/png' }, 415, 'Send a JPEG.'],
  ['one from another site', testJpeg(), { 'sec-fetch-site': 'cross-site' }, 403, 'not taken'],
  ['one without end', new Uint8Array(3_000_001), {}, 413, 'That is too large.'],
])('%s is refused in words', async (_, bytes, headers, status, words) => {
  const answered = await send(bytes, { 'content-type': 'image/jpeg', ...headers });
  expect(answered.status).toBe(status);
  expect(answered.body.message).toContain(words);
});

test('a photo is put with a piece, found in the log, taken away and brought back by undo', async () => {
  const { body } = await send(testJpeg({ seed: 1 }));
  await put(body);
  expect(ofPiece().map(({ photo }) => photo)).toEqual([body.photo]);
  const asked = logAskSchema.parse({ kinds: ['photo'], words: 'HS-1' });
  const [day] = withData((db) => logPage(db, asked)).days;
  expect(day!.entries).toMatchObject([
    { title: 'Creek tiles: 1 photo', facts: ['HS-1 #1'], photos: [{ of: 'HS-1 #1', photo: body.photo, width: 640 }] },
  ]);
  await put(body, false);
  expect(ofPiece()).toEqual([]);
  await run({ do: 'undo', scope: setScope(SET) });
  expect(ofPiece()).toHaveLength(1);
});

test('a photo that never arrived is not put with a piece', async () => {
  const ghost: Photo = { photo: 'f'.repeat(64), at: '2026-12-02T10:00', width: 4, height: 3 };
  await expect(put(ghost)).rejects.toThrow('did not arrive');
  // What is not there can always be let go.
  await expect(put(ghost, false)).resolves.toBeDefined();
});

test('photos come out of an archive byte for byte, of a set and of everything', async () => {
  const { photo } = ofPiece()[0]!;
  const bytes = Buffer.from(kept(photo)!);
  const archive = await buffer(setArchive(SET).stream);
  expect(Buffer.from(unzipSync(archive)[`photos/${photo}.jpg`]!)).toEqual(bytes);
  const whole = unzipSync(await buffer((await wholeArchive()).stream));
  const at = join(folder, 'whole.db');
  writeFileSync(at, whole['aguada.db']!);
  const opened = new Sqlite(at, { readonly: true });
  expect(opened.prepare('select bytes from photos where id = ?').pluck().get(photo)).toEqual(bytes);
  opened.close();
  // Into a workshop that has never seen it.
  withData((db) => db.$client.prepare('delete from photos').run());
  expect(kept(photo)).toBeNull();
  const { setId } = await upload(archive);
  expect(kept(photo)).toEqual(bytes);
  const taken = withData((db) => listBatches(db, setId!, 10)).flatMap(({ data }) => data.photos ?? []);
  expect(taken.map((one) => one.photo)).toEqual([photo]);
  expect(readdirSync(folder).filter((name) => name.includes('upload'))).toEqual([]);
});

const upload = (bytes: Uint8Array) =>
  takeIn(new Request('http://127.0.0.1:3000/api/backups/file', { method: 'POST', body: new Uint8Array(bytes) }));

test('of a foreign archive only pictures are kept: not what says where it was taken, nor what goes by another name', async () => {
  const file = withData((db) => setFileOf(db, SET));
  const spy = testJpeg({ beside: true, seed: 2 });
  const other = testJpeg({ seed: 3 });
  const good = testJpeg({ seed: 4 });
  const ids = [sumOf(spy), 'a'.repeat(64), sumOf(good)];
  const photos = ids.map((photo) => ({ ...PIECE, photo, at: '2026-12-02T10:00', width: 4, height: 3 }));
  const batches = file.batches.map((batch) =>
    batch.id === BATCH ? { ...batch, data: { ...batch.data, photos } } : batch,
  );
  const made = [spy, other, good].map((bytes, i) => [ids[i]!, () => bytes] as const);
  await upload(await buffer(makeSetArchive({ ...file, batches }, '2026-12-02T10:00', made)));
  expect(ids.map((id) => withData((db) => hasPhoto(db, id)))).toEqual([false, false, true]);
});

test('photos that nothing names go in time; those that an edit could bring back stay', async () => {
  const [held, undone, loose] = await Promise.all([5, 6, 7].map(async (seed) => (await send(testJpeg({ seed }))).body));
  await put(held!);
  await put(undone!);
  await put(undone!, false);
  const there = () => [held, undone, loose].map((one) => withData((db) => hasPhoto(db, one!.photo)));
  withData((db) => letGoOfPhotos(db, '2020-01-01'));
  expect(there()).toEqual([true, true, true]);
  withData((db) => letGoOfPhotos(db, '2100-01-01'));
  expect(there()).toEqual([true, true, false]);
  withData((db) => db.$client.prepare('delete from edits').run());
  withData((db) => letGoOfPhotos(db, '2100-01-01'));
  expect(there()).toEqual([true, false, false]);
  expect(existsSync(process.env['AGUADA_DATA']!)).toBe(true);
});
