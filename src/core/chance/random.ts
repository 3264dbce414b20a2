/** A stream of numbers from 0 to 1 that its first state decides (xorshift, 32 bits): the same state, the same stream. */
export function stream(first: number): () => number {
  let state = first >>> 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 4294967296;
  };
}

/** A stream for a small number: neighbours give streams that are nothing alike. */
export const seeded = (seed: number): (() => number) => stream(seed * 2654435761);
