import { hardeningShare, type HardenedLook } from './hardened';

const look = (softMinutes: number | null, firmMinutes: number | null): HardenedLook => ({
  what: 'firm',
  labelMinutes: 600,
  reckonedMinutes: 800,
  softMinutes,
  firmMinutes,
});

test.each([
  ['between two looks close together: their geometric mean', 720, 980, Math.sqrt(0.9 * 1.225)],
  ['firm before it was reckoned: that moment', null, 600, 0.75],
  ['soft long before, firm before it was reckoned: that moment', 100, 600, 0.75],
  ['just as reckoned', null, 800, 1],
  ['soft after it was reckoned, and nobody looked again: so long at the least', 1000, null, 1.25],
] as const)('%s', (_, soft, firm, share) => expect(hardeningShare(look(soft, firm))).toBeCloseTo(share, 12));

test.each([
  ['firm long after, when nobody had looked', null, 2000],
  ['soft before it was reckoned, and nobody looked again', 500, null],
  ['soft early and firm late: anywhere between', 300, 2000],
] as const)('%s: says nothing', (_, soft, firm) => expect(hardeningShare(look(soft, firm))).toBeNull());
