import type { Reading } from '@/core/model/readingSchema';

/** What an instrument says: a reading, or in words why there is none. */
export type Heard<R extends Reading = Reading> =
  { reading: R; trouble: string | null } | { reading: null; trouble: string };

/** Whatever measures on the bench. One interface, three sources each: keyed in, simulated, lines of the open protocol. */
export interface Instrument<R extends Reading> {
  name: string;
  /** Hears readings until the function that is given back is called. */
  listen: (take: (heard: Heard<R>) => void) => () => void;
}

/** An instrument that is read by eye: what is typed is what it says. */
export class KeyedIn<R extends Reading> implements Instrument<R> {
  readonly name: string;
  #listeners = new Set<(heard: Heard<R>) => void>();

  constructor(name: string) {
    this.name = name;
  }

  listen(take: (heard: Heard<R>) => void): () => void {
    this.#listeners.add(take);
    return () => void this.#listeners.delete(take);
  }

  enter(reading: R): void {
    for (const take of this.#listeners) take({ reading, trouble: null });
  }
}

/** An instrument that sends lines, wherever they come from: a route, a stream, a file. */
export const lineInstrument = <K extends Reading['device']>(
  device: K,
  name: string,
  subscribe: (take: (heard: Heard) => void) => () => void,
): Instrument<Extract<Reading, { device: K }>> => ({
  name,
  listen: (take) =>
    subscribe((heard) => {
      if (heard.reading === null || heard.reading.device === device)
        take(heard as Heard<Extract<Reading, { device: K }>>);
    }),
});
