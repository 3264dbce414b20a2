import type { Command } from '@/core/records/command';
import type { History } from '@/core/records/views';
import { createEditQueue, type EditQueue, type Sent, type Trouble } from './editQueue';

interface View {
  history: History;
  version: number;
  name: string;
}
const first: View = { history: { undo: null, redo: null }, version: 1, name: 'a' };
const rename =
  (name: string) =>
  ({ version }: View): Command =>
    ({ do: 'put', kind: 'recipe', id: 'r', version, data: { name, doses: [] } }) as Command;

/** A server that answers when it is told to, as a server that keeps one row would. */
function edits(): {
  queue: EditQueue<View>;
  sent: Command[];
  keys: string[];
  answer: (reply?: 'stale' | 'offline') => Promise<void>;
} {
  const sent: Command[] = [];
  const keys: string[] = [];
  const waiting: ((reply: Sent) => void)[] = [];
  const row = { version: 1, name: 'a' };
  const queue = createEditQueue<View>({
    initial: first,
    send: (command, key) => {
      sent.push(command);
      keys.push(key);
      return new Promise((resolve) => waiting.push(resolve));
    },
    apply: (view, changed) => ({ ...view, ...(changed.changes[0] as unknown as Partial<View>) }),
  });
  const answer = async (reply?: 'stale' | 'offline'): Promise<void> => {
    await Promise.resolve();
    const command = sent.at(-1)!;
    const trouble = {
      kind: reply ?? 'offline',
      message: 'told',
      fields: [],
      command,
      key: keys.at(-1)!,
    } satisfies Trouble;
    if (reply) {
      const changed = reply === 'stale' ? { changes: [{ version: 7, name: 'theirs' }] as never } : null;
      waiting.shift()!({ ok: false, trouble, changed });
    } else {
      row.version++;
      row.name = (command as { data: { name: string } }).data.name;
      const changes = [{ ...row }] as never;
      waiting.shift()!({
        ok: true,
        answer: { id: 'r', note: null, changes, history: first.history, now: '2026-11-24T20:00' },
      });
    }
    await new Promise((resolve) => setTimeout(resolve, 0));
  };
  return { queue, sent, keys, answer };
}

describe('edits one after another', () => {
  test('each is made for the view that the one before left', async () => {
    const { queue, sent, answer } = edits();
    const both = [queue.run(rename('b')), queue.run(rename('c'))];
    await answer();
    await answer();
    expect(await Promise.all(both)).toEqual([
      { ok: true, id: 'r' },
      { ok: true, id: 'r' },
    ]);
    expect(sent.map((command) => (command as { version: number }).version)).toEqual([1, 2]);
    expect(queue.state()).toMatchObject({ view: { name: 'c', version: 3 }, busy: false, trouble: null });
  });
  test('a refused one stays at hand, and what another window wrote is shown', async () => {
    const { queue, answer } = edits();
    const outcome = queue.run(rename('mine'));
    await answer('stale');
    expect(await outcome).toMatchObject({ ok: false, trouble: { kind: 'stale' } });
    expect(queue.state()).toMatchObject({ view: { name: 'theirs', version: 7 }, trouble: { kind: 'stale' } });
    queue.dismiss();
    expect(queue.state().trouble).toBeNull();
  });
  test('one that cannot be made is told and does not hold up those behind it', async () => {
    const { queue, sent, answer } = edits();
    const broken = queue.run(() => {
      throw new TypeError('ours');
    });
    const next = queue.run(rename('b'));
    await new Promise((resolve) => setTimeout(resolve, 0));
    await answer();
    expect(await broken.catch(() => ({ ok: false }))).toMatchObject({ ok: false });
    expect(await next).toMatchObject({ ok: true });
    expect(sent).toHaveLength(1);
  });
  test('what was done is told by the view that it was made for, not by the one when it was pressed', async () => {
    const { queue, answer } = edits();
    void queue.run(rename('b'));
    void queue.run(rename('c'), ({ name }) => `${name} is renamed`);
    await answer();
    await answer();
    expect(queue.state().done).toBe('b is renamed');
  });
  test('one that has nothing to do is no edit', async () => {
    const { queue, sent } = edits();
    await queue.run(() => null);
    await new Promise((resolve) => setTimeout(resolve, 0));
    expect(sent).toEqual([]);
    expect(queue.state().busy).toBe(false);
  });
  test('offline, nothing is lost: the edit is at hand to be tried again', async () => {
    const { queue, answer } = edits();
    const outcome = queue.run(rename('b'));
    await answer('offline');
    await outcome;
    expect(queue.state()).toMatchObject({ view: { name: 'a' }, trouble: { kind: 'offline', command: { id: 'r' } } });
  });
  test('sent again after a lost answer it is the very same edit, so that it is not made twice', async () => {
    const { queue, sent, keys, answer } = edits();
    void queue.run(rename('b'));
    await answer('offline');
    queue.insist();
    await answer();
    expect(sent[1]).toBe(sent[0]);
    expect(keys[1]).toBe(keys[0]);
    void queue.run(rename('c'));
    await answer('stale');
    queue.insist();
    await answer();
    // Written over what another window wrote it is another edit.
    expect(keys[3]).not.toBe(keys[2]);
    expect(sent[3]).toMatchObject({ data: { name: 'c' } });
    expect(new Set(keys).size).toBe(3);
    keys.forEach((key) => expect(key.length).toBeGreaterThanOrEqual(12));
  });
});

test('a large edit tells how much of it has gone, and nothing once it is there', async () => {
  let tell = (_share: number): void => undefined;
  let arrive = (_: Sent): void => undefined;
  const queue = createEditQueue<View>({
    initial: first,
    send: (_command, _key, progress) => {
      tell = progress;
      return new Promise((resolve) => (arrive = resolve));
    },
    apply: (view) => view,
  });
  const outcome = queue.run(rename('b'));
  await Promise.resolve();
  expect(queue.state().sentShare).toBeNull();
  tell(0.4);
  expect(queue.state()).toMatchObject({ sentShare: 0.4, busy: true });
  arrive({ ok: true, answer: { id: 'r', changes: [], history: first.history } as never });
  await outcome;
  expect(queue.state().sentShare).toBeNull();
});
