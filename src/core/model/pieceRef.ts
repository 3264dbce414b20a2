import { reference } from './reference';
import { z } from 'zod';

/**
 * Which piece is meant: its design by id, and the number of the copy; null for the copies of a design that nothing tells
 * apart. Tags are for people: they are shown, never looked up.
 */
export interface PieceRef {
  designId: string;
  copy: number | null;
}

/** Files may name a piece by its tag, `HS-2` or `HS-2 #3`: there a design's id is its tag unless it says otherwise. */
function named(value: unknown): unknown {
  if (typeof value !== 'string') return value;
  const found = /^(.*?)(?:\s*#(\d+))?$/.exec(value.trim());
  return { designId: found?.[1] ?? value, copy: found?.[2] === undefined ? null : Number(found[2]) };
}

export const pieceRefSchema = z.preprocess(
  named,
  z.object({ designId: reference('design'), copy: z.number().int().min(1).max(500).nullable() }),
);

export const samePiece = (a: PieceRef, b: PieceRef): boolean => a.designId === b.designId && a.copy === b.copy;

/** A key for maps. */
export const pieceKey = ({ designId, copy }: PieceRef): string => `${copy ?? 0}:${designId}`;

/** What a piece is called: `HS-2`, or `HS-2 #3` for one of its copies. */
export const copyName = (tag: string, copy: number | null): string => (copy === null ? tag : `${tag} #${copy}`);

/** The numbers of some copies, for people: `#1`, `#1 to #4`, `#1, #3`. */
export function copyNames(copies: readonly number[]): string {
  const sorted = [...copies].sort((a, b) => a - b);
  const [first, last] = [sorted[0]!, sorted.at(-1)!];
  if (sorted.length > 2 && last - first === sorted.length - 1) return `#${first} to #${last}`;
  return sorted.map((copy) => `#${copy}`).join(', ');
}
