import type { CalendarBatch } from '@/core/schedule/workplace';

const channels = (hex: string): number[] => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16));
const hexOf = (values: readonly number[]): string =>
  `#${values.map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`;
const mixed = (hex: string, towards: number, share: number): string =>
  hexOf(channels(hex).map((value) => value + (towards - value) * share));
const apart = (a: string, b: string): number => Math.hypot(...channels(a).map((value, i) => value - channels(b)[i]!));

/** Shades by which batches in the same water are told apart: lighter and darker in turn. */
const SHADES = [
  [255, 0],
  [255, 0.42],
  [0, 0.45],
  [255, 0.64],
  [255, 0.22],
  [0, 0.22],
] as const;
const TOLD_APART = 40;

/** The colour of each batch's water, made lighter or darker where another has much the same. */
export function batchColours(batches: readonly Pick<CalendarBatch, 'id' | 'facts'>[]): Map<string, string> {
  const given = new Map<string, string>();
  for (const { id, facts } of batches) {
    const shades = SHADES.map(([towards, share]) => mixed(facts.colour, towards, share));
    const free = shades.find((shade) => [...given.values()].every((other) => apart(shade, other) > TOLD_APART));
    given.set(id, free ?? shades[given.size % shades.length]!);
  }
  return given;
}
