import { latestWins } from './latestWins';

/** A run whose jobs end when they are told to. */
function heldRun(): {
  run: (job: string) => Promise<string>;
  started: string[];
  end: (job: string, fail?: boolean) => Promise<void>;
} {
  const started: string[] = [];
  const ends = new Map<string, (fail: boolean) => void>();
  const run = (job: string): Promise<string> =>
    new Promise((resolve, reject) => {
      started.push(job);
      ends.set(job, (fail) => (fail ? reject(new Error(job)) : resolve(`${job} done`)));
    });
  const end = async (job: string, fail = false): Promise<void> => {
    ends.get(job)!(fail);
    await new Promise((resolve) => setImmediate(resolve));
  };
  return { run, started, end };
}

const [one, other] = [Symbol('one'), Symbol('other')];

test('of the jobs that wait in one lane only the newest is run', async () => {
  const { run, started, end } = heldRun();
  const ask = latestWins(run);
  const answers = [ask(one, 'a'), ask(one, 'b'), ask(one, 'c')];
  await expect(answers[1]).resolves.toBeNull();
  await end('a');
  await end('c');
  await expect(Promise.all(answers)).resolves.toEqual(['a done', null, 'c done']);
  expect(started).toEqual(['a', 'c']);
});

test('a lane is never overtaken by another', async () => {
  const { run, end } = heldRun();
  const ask = latestWins(run);
  const answers = [ask(one, 'a'), ask(one, 'b'), ask(other, 'x'), ask(other, 'y')];
  await end('a');
  await end('b');
  await end('y');
  await expect(Promise.all(answers)).resolves.toEqual(['a done', 'b done', null, 'y done']);
});

test('a job that fails lets the next one run', async () => {
  const { run, end } = heldRun();
  const ask = latestWins(run);
  const [failed, after] = [ask(one, 'a'), ask(one, 'b')];
  const seen = expect(failed).rejects.toThrow('a');
  await end('a', true);
  await seen;
  await end('b');
  await expect(after).resolves.toBe('b done');
});

test('the job that runs is told when its own lane overtakes it, and only then', async () => {
  const { run, end } = heldRun();
  let told = 0;
  const ask = latestWins(run, () => told++);
  void ask(one, 'a');
  void ask(other, 'x');
  expect(told).toBe(0);
  void ask(one, 'b');
  expect(told).toBe(1);
  await end('a');
  void ask(one, 'c');
  expect(told).toBe(1);
});
