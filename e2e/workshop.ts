import { once } from 'node:events';
import { mkdirSync, rmSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';
import { expect, test as guarded } from './guarded';
import { ended, serve } from './server';

/** A server of a test's own, with the sample in its data file. */
export interface Workshop {
  url: string;
  /** Ends the server as a power cut would. */
  killed(): Promise<void>;
  /** Starts it again at the same address, on the same file. */
  started(): Promise<void>;
}

/** What a worker keeps from test to test: starting a server takes longer than putting its file back. */
class Bench implements Workshop {
  readonly #data: string;
  #server: ChildProcess | null = null;
  #asItWas = '';
  url = '';

  constructor(folder: string) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    this.#data = `${folder}/data.db`;
  }

  async killed(): Promise<void> {
    const gone = once(this.#server!, 'exit');
    this.#server!.kill('SIGKILL');
    await gone;
  }

  async started(demo = ''): Promise<void> {
    const port = this.url && new URL(this.url).port;
    const { url, server } = await serve(this.#data, { AGUADA_DEMO: demo, ...(port && { PORT: port }) });
    [this.url, this.#server] = [url, server];
  }

  async #ask(body: object): Promise<{ copies: { name: string }[] }> {
    const answer = await fetch(`${this.url}/api/backups`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    expect(answer.status).toBe(200);
    return (await answer.json()) as { copies: { name: string }[] };
  }

  /** As the first test found it. */
  async anew(): Promise<void> {
    if (this.#asItWas) return void (await this.#ask({ do: 'put back', name: this.#asItWas }));
    await this.started('1');
    const { copies } = await this.#ask({ do: 'save' });
    this.#asItWas = copies.find(({ name }) => name.startsWith('saved'))!.name;
  }

  async end(): Promise<void> {
    if (this.#server) await ended(this.#server);
  }
}

export const test = guarded.extend<{ workshop: Workshop }, { bench: Bench }>({
  bench: [
    async ({ browser: _ }, provide, { workerIndex }) => {
      const bench = new Bench(`.test-tmp/workshop-${workerIndex}`);
      await provide(bench);
      await bench.end();
    },
    { scope: 'worker' },
  ],
  // After the windows of a test are closed its file may go.
  workshop: async ({ bench, context }, provide) => {
    await bench.anew();
    await provide(bench);
    await context.close();
  },
});
export { expect };
