import { HARDENED, hardeningShare, type Hardened } from '../cure/hardened';
import { PER_PIECE_MINUTES, potLifeMinutes, stirMinutesOf } from '../mixing/potLife';
import { setsInTheCup, type Product } from '../model/productSchema';
import type { Stored } from '../model/stored';
import type { WallTime } from '../time/wallTime';
import { learnMean } from './estimate';
import { byMean, LEARNT_KIND_FACTS, to, type FigurePlan, type Seen } from './learntFigure';
import type { RecordedCup, RecordedHardening, RecordedLevel, RecordedPack } from './recordedWork';

/** How quickly a product is poured. */
export function pace(cups: readonly RecordedCup[], { id, data }: Stored<Product>): FigurePlan[] {
  // Quicker than reaching for a piece is read as a tenth of what it took.
  const perGram = ({ grams, minutes }: { grams: number; minutes: number }): number =>
    Math.max(minutes - PER_PIECE_MINUTES, minutes / 10) / grams;
  // Twenty-eight thousand pieces in two thousand runs: a plain loop takes a third of the time.
  const seen: Seen[] = [];
  let grams = 0;
  for (const { key, at, batchId, pours } of cups)
    for (let i = 0; i < pours.length; i++) {
      const pour = pours[i]!;
      if (pour.grams <= 0 || pour.minutes <= 0) continue;
      grams += pour.grams;
      seen.push({ key: `${key}.${i + 1}`, at, batchId, value: 1 / perGram(pour), weight: pour.grams });
    }
  for (const one of seen) one.weight *= seen.length / grams;
  const { n0, spread } = LEARNT_KIND_FACTS.pace;
  return [
    {
      id: `pace ${id}`,
      kind: 'pace',
      of: id,
      name: `Pouring pace, ${data.name}`,
      unit: 'g/min',
      fields: [{ name: 'pace', unit: 'g/min', was: data.pourGramsPerMinute }],
      seen,
      lineOf: ([gramsPerMinute]) => gramsPerMinute!,
      learn: ([before], counted) => {
        const slow = learnMean(
          { value: 1 / before!, n0, spread: spread / before! },
          counted.map(({ value, weight }) => ({ value: 1 / value, weight })),
        );
        const value = 1 / slow.value;
        return { figures: [value], line: { value, plusMinus: slow.plusMinus * value ** 2 } };
      },
      round: ([value]) => [value! < 20 ? to(value!, 0.5) : to(value!, 1)],
    },
  ];
}

/** How long a mix of a product may be poured, by the label’s cup and temperature. */
export function potLife(cups: readonly RecordedCup[], { id, data }: Stored<Product>): FigurePlan[] {
  if (!setsInTheCup(data.cureModel)) return [];
  const timed = cups.filter((cup) => cup.thickMinutes !== null && cup.thickMinutes > 0);
  const lineOf = ([minutes]: readonly number[]): number => minutes!;
  return [
    {
      id: `pot life ${id}`,
      kind: 'pot life',
      of: id,
      name: `Pot life, ${data.name}`,
      unit: 'min',
      fields: [{ name: 'pot life', unit: 'min', was: data.potLifeMinutes }],
      seen: timed.map((cup) => ({
        ...cup,
        value:
          (cup.thickMinutes! * data.potLifeMinutes) / potLifeMinutes(data, cup.temperatureC, Math.max(1, cup.mixGrams)),
        weight: 1,
      })),
      lineOf,
      learn: byMean('pot life', (_, line) => [line], lineOf),
      round: ([value]) => [to(value!, value! < 10 ? 0.5 : 1)],
    },
  ];
}

/** What counts as stirred: so much of the usual time. */
const STIRRED_SHARE = 0.8;

/** How long a mix is stirred until it is clear. */
export function stirring(cups: readonly RecordedCup[], { id, data }: Stored<Product>): FigurePlan[] {
  const { stirMinutes: _, ...bare } = data;
  const usual = stirMinutesOf(bare);
  if (usual === 0) return [];
  const lineOf = ([minutes]: readonly number[]): number => minutes!;
  return [
    {
      id: `stirring ${id}`,
      kind: 'stirring',
      of: id,
      name: `Stirring until clear, ${data.name}`,
      unit: 'min',
      fields: [{ name: 'stirring', unit: 'min', was: stirMinutesOf(data) }],
      seen: cups.flatMap(({ key, at, batchId, stirMinutes, clearMinutes }) =>
        stirMinutes === null || clearMinutes === null || stirMinutes < STIRRED_SHARE * usual
          ? []
          : [{ key, at, batchId, value: stirMinutes + clearMinutes, weight: 1 }],
      ),
      lineOf,
      learn: byMean('stirring', (_before, line) => [line], lineOf),
      round: ([value]) => [Math.min(60, Math.max(usual, to(value!, 0.5)))],
    },
  ];
}

const HARDENING_NAMES: Record<Hardened, string> = {
  recoat: 'Ready for the next layer',
  firm: 'Firm enough to open up',
  cured: 'Cured through',
};

/** A time that nobody needs to the minute: five up to three hours, a quarter of an hour up to a day, then whole hours. */
const asTold = (minutes: number): number => to(minutes, minutes < 180 ? 5 : minutes < 1440 ? 15 : 60);

/** The label’s times of a product as they were found by touch. */
export function hardening(looks: readonly RecordedHardening[], { id, data }: Stored<Product>): FigurePlan[] {
  const lineOf = ([minutes]: readonly number[]): number => minutes!;
  // A product says them in their order.
  const bounds: Record<Hardened, readonly [number, number]> = {
    recoat: [1, (data.recoatClosesMinutes ?? Infinity) - 1],
    firm: [1, data.fullCureMinutes],
    cured: [data.demouldMinutes, Infinity],
  };
  return (Object.keys(HARDENED) as Hardened[]).map((what) => ({
    id: `${what} ${id}`,
    kind: what,
    of: id,
    name: `${HARDENING_NAMES[what]}, ${data.name}`,
    unit: 'min',
    fields: [{ name: 'label', unit: 'min', was: data[HARDENED[what]] }],
    seen: looks.flatMap((look): Seen[] => {
      const share = look.what === what ? hardeningShare(look) : null;
      const { key, at, batchId, labelMinutes } = look;
      return share === null ? [] : [{ key, at, batchId, value: share * labelMinutes, weight: 1 }];
    }),
    lineOf,
    learn: byMean(what, (_, line) => [line], lineOf),
    round: ([value]) => [Math.min(bounds[what][1], Math.max(bounds[what][0], asTold(value!)))],
  }));
}

/** How much of a product’s volume goes as it cures. */
export function shrinkage(levels: readonly RecordedLevel[], { id, data }: Stored<Product>): FigurePlan[] {
  const lineOf = ([share]: readonly number[]): number => share!;
  return [
    {
      id: `shrinkage ${id}`,
      kind: 'shrinkage',
      of: id,
      name: `Shrinkage, ${data.name}`,
      unit: '%',
      fields: [{ name: 'shrinkage', unit: '%', was: data.shrinkage }],
      seen: levels.map(({ key, at, batchId, shrinkage: planned, lowMm, depthMm, of }) => ({
        key,
        at,
        batchId,
        value: 1 - (1 - planned) * (1 - lowMm / depthMm),
        weight: 1 / of,
      })),
      lineOf,
      learn: byMean('shrinkage', (_, line) => [Math.max(0, line)], lineOf),
      round: ([value]) => [Math.min(0.8, to(value!, 0.001))],
    },
  ];
}

const HALF_YEAR_DAYS = 182;
const DAY_MS = 86_400_000;
const dayNumber = (at: WallTime): number => Date.parse(`${at.slice(0, 10)}T00:00:00Z`) / DAY_MS;

/** What a pack of a product costs by now. */
export function price(bought: readonly RecordedPack[], { id, data }: Stored<Product>): FigurePlan[] {
  const last = Math.max(...bought.map(({ at }) => dayNumber(at)));
  const lineOf = ([money]: readonly number[]): number => money!;
  return [
    {
      id: `price ${id}`,
      kind: 'price',
      of: id,
      name: `Price of a pack, ${data.name}`,
      unit: 'money',
      fields: [{ name: 'a pack', unit: 'money', was: data.packPrice }],
      seen: bought.map((pack) => ({
        ...pack,
        value: (pack.price * data.packGrams) / pack.grams,
        weight: 0.5 ** ((last - dayNumber(pack.at)) / HALF_YEAR_DAYS),
      })),
      lineOf,
      learn: byMean('price', (_, line) => [line], lineOf),
      round: ([value]) => [to(value!, value! < 10 ? 0.01 : 0.1)],
    },
  ];
}
