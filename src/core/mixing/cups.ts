import { mixForPour, pourFromMix, TYPICAL_LOSSES, type Losses } from './losses';

/** What one piece takes from a layer. */
export interface Pour {
  designId: string;
  /** Which copy of the design, from 1. */
  copy: number;
  /** What its design is called. */
  tag: string;
  grams: number;
}

/** One cup: the pours it serves, and the grams to mix for them, losses included. */
export interface Cup {
  number: number;
  pours: Pour[];
  pouredGrams: number;
  mixGrams: number;
}

export interface CupSplit {
  cups: Cup[];
  /** No split can do with fewer cups than this; equal to the number of cups when the split is proved the fewest. */
  fewestPossible: number;
}

/** A piece that the maker wants in another cup than it was put in. */
export interface CupMove {
  designId: string;
  copy: number;
  /** Its cup: pieces of one number share one, in the order of the numbers. */
  cup: number;
}

/**
 * A split with some pieces moved by hand. The rest stays where it is; a cup that is left empty goes, and the others keep their order.
 * Grams to mix follow from what is then in each cup. Whether a cup is too full by that is for the plan to say.
 */
export function moveBetweenCups(
  cups: readonly Cup[],
  moves: readonly CupMove[],
  losses: Losses = TYPICAL_LOSSES,
): Cup[] {
  if (moves.length === 0) return [...cups];
  const wanted = new Map(moves.map(({ designId, copy, cup }) => [`${designId} ${copy}`, cup]));
  const order = cups.flatMap(({ pours }) => pours);
  const keyOf = ({ designId, copy }: Pour): string => `${designId} ${copy}`;
  // A piece that is larger than a cup stands in several: its portions stay where they are.
  const inSeveral = (pour: Pour): boolean => order.some((other) => other !== pour && keyOf(other) === keyOf(pour));
  const placeOf = new Map<number, Pour[]>();
  for (const { number, pours } of cups)
    for (const pour of pours) {
      const cup = inSeveral(pour) ? number : (wanted.get(keyOf(pour)) ?? number);
      placeOf.set(cup, [...(placeOf.get(cup) ?? []), pour]);
    }
  return [...placeOf]
    .sort(([a], [b]) => a - b)
    .map(([, pours], i) => {
      const own = [...pours].sort((a, b) => order.indexOf(a) - order.indexOf(b));
      const pouredGrams = own.reduce((sum, { grams }) => sum + grams, 0);
      return { number: i + 1, pours: own, pouredGrams, mixGrams: mixForPour(pouredGrams, own.length, losses) };
    });
}

/** Whether so many pieces are filled from a mix of so much before it sets. */
export type InTime = (mixGrams: number, pieces: number) => boolean;
/** Whether a cup takes so many grams, losses of the pieces counted in, for so many pieces. */
type Fits = (grams: number, pieces: number) => boolean;

/** A pour with its place in the batch. */
interface Item {
  pour: Pour;
  index: number;
}

/** Steps of search after which the best split found so far is kept and said to be possibly one too many. */
const MOST_STEPS = 200_000;

/**
 * Shares the pours of a layer among cups of at most `mostMixGrams`, each poured before it sets (`inTime`). A piece is not split between cups unless it
 * alone needs more than one: then into equal portions, or into whole cups and a rest where that takes fewer. Best fit, largest first; when that is above the bound, a search looks for fewer cups:
 * exact for ordinary batches, otherwise `fewestPossible` says how far from the fewest it may be.
 * Where the pieces, taken in their order, fill that many cups without overfilling one, they are shared out that way
 * and as evenly as they go: neighbours share a mix, and no cup is left so small that a drop is too much for it.
 */
export function splitIntoCups(
  pours: readonly Pour[],
  mostMixGrams: number,
  losses: Losses = TYPICAL_LOSSES,
  inTime: InTime = () => true,
): CupSplit {
  const room = pourFromMix(mostMixGrams, 1, losses);
  if (!(room > 0)) throw new RangeError('The cup is too small: losses alone would fill it');
  const wanted = pours.filter((pour) => pour.grams > 0);
  const even = packed(
    wanted.flatMap((pour) => portions(pour, room)),
    mostMixGrams,
    losses,
    inTime,
  );
  if (wanted.every(({ grams }) => grams <= room + 1e-9)) return even;
  const filled = packed(
    wanted.flatMap((pour) => wholeCups(pour, room)),
    mostMixGrams,
    losses,
    inTime,
  );
  const best = filled.cups.length < even.cups.length ? filled : even;
  // How a large piece is parted is free: below this many no parting comes, whichever were tried.
  const all = wanted.reduce(
    (sum, { grams }) => sum + grams + Math.max(1, Math.ceil(grams / room - 1e-9)) * losses.perPieceGrams,
    0,
  );
  const fewestPossible = Math.ceil(all / pourFromMix(mostMixGrams, 0, losses) - 1e-9);
  return { cups: best.cups, fewestPossible: Math.min(fewestPossible, best.cups.length) };
}

/** The split of pours none of which is larger than a cup. */
function packed(pours: readonly Pour[], mostMixGrams: number, losses: Losses, inTime: InTime): CupSplit {
  const items = pours
    .map((pour, index) => ({ pour, index }))
    .sort((a, b) => b.pour.grams - a.pour.grams || a.index - b.index);
  // What a pour takes from a cup, its own loss included, against what a cup can give.
  const takes = items.map(({ pour }) => pour.grams + losses.perPieceGrams);
  const gives = pourFromMix(mostMixGrams, 0, losses) + 1e-9;
  const fits: Fits = (grams, count) =>
    grams <= gives && inTime((grams + losses.perCupGrams) / (1 - losses.share), count);
  const fewestPossible = Math.max(
    Math.ceil(takes.reduce((sum, take) => sum + take, 0) / gives - 1e-9),
    Math.ceil(takes.length / mostInACup(takes, fits) - 1e-9),
  );
  let places = bestFit(takes, fits);
  let proved = fewestPossible;
  for (let count = fewestPossible; count < cupsUsed(places); count++) {
    const found = packInto(takes, fits, count);
    if (found === 'none') proved = count + 1;
    else if (found !== 'gave up') places = found;
    if (found !== 'none') break;
  }
  const even = evenRuns(items, takes, cupsUsed(places), { gives, fits });
  return { cups: numberedCups(items, even ?? places, losses), fewestPossible: items.length === 0 ? 0 : proved };
}

const cupsUsed = (places: readonly number[]): number => (places.length === 0 ? 0 : Math.max(...places) + 1);

/** Runs of pieces in their order, one to a cup, with the fullest cup as light as can be; null when some cup would be overfull. */
function evenRuns(
  items: readonly Item[],
  takes: readonly number[],
  count: number,
  { gives, fits }: { gives: number; fits: Fits },
): number[] | null {
  const order = items
    .map((item, i) => ({ at: i, index: item.index, take: takes[i]! }))
    .sort((a, b) => a.index - b.index);
  const fill = (most: number): number[] | null => {
    const places = new Array<number>(items.length).fill(0);
    let [cup, load, held] = [0, 0, 0];
    for (const { at, take } of order) {
      if (load + take > most || !fits(load + take, held + 1)) [cup, load, held] = [cup + 1, 0, 0];
      load += take;
      held++;
      places[at] = cup;
    }
    return cup < count ? places : null;
  };
  if (order.length === 0 || !fill(gives)) return null;
  let [low, high] = [Math.max(...takes), gives];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (fill(middle)) high = middle;
    else low = middle;
  }
  return fill(high);
}

/** The most pieces that any cup takes: those that take least. At least one. */
function mostInACup(takes: readonly number[], fits: Fits): number {
  let [grams, count] = [0, 0];
  for (const take of [...takes].sort((a, b) => a - b)) {
    if (!fits(grams + take, count + 1)) break;
    grams += take;
    count++;
  }
  return Math.max(1, count);
}

/** For each item, largest first, the cup it goes to: the fullest that still takes it. */
function bestFit(takes: readonly number[], fits: Fits): number[] {
  const loads: { grams: number; count: number }[] = [];
  return takes.map((take) => {
    let best = -1;
    loads.forEach(({ grams, count }, cup) => {
      if ((best < 0 || grams > loads[best]!.grams) && fits(grams + take, count + 1)) best = cup;
    });
    if (best < 0) best = loads.push({ grams: 0, count: 0 }) - 1;
    loads[best]!.grams += take;
    loads[best]!.count++;
    return best;
  });
}

/** Depth-first search for a packing into `count` cups; equal cups are tried once. */
function packInto(takes: readonly number[], fits: Fits, count: number): number[] | 'none' | 'gave up' {
  const loads = Array.from({ length: count }, () => ({ grams: 0, count: 0 }));
  const places = new Array<number>(takes.length).fill(0);
  let steps = 0;
  const place = (item: number): boolean => {
    if (item === takes.length) return true;
    const take = takes[item]!;
    const tried = new Set<string>();
    for (let cup = 0; cup < count && steps < MOST_STEPS; cup++) {
      const before = loads[cup]!;
      const same = `${before.grams} ${before.count}`;
      if (tried.has(same) || !fits(before.grams + take, before.count + 1)) continue;
      tried.add(same);
      steps++;
      loads[cup] = { grams: before.grams + take, count: before.count + 1 };
      places[item] = cup;
      if (place(item + 1)) return true;
      loads[cup] = before;
    }
    return false;
  };
  if (place(0)) return places;
  return steps < MOST_STEPS ? 'none' : 'gave up';
}

function numberedCups(items: readonly Item[], places: readonly number[], losses: Losses): Cup[] {
  const contents = Array.from({ length: cupsUsed(places) }, (): Item[] => []);
  items.forEach((item, i) => contents[places[i]!]!.push(item));
  return contents
    .filter((cup) => cup.length > 0)
    .map((cup) => cup.sort((a, b) => a.index - b.index))
    .sort((a, b) => a[0]!.index - b[0]!.index)
    .map((cup, index) => {
      const pouredGrams = cup.reduce((sum, { pour }) => sum + pour.grams, 0);
      return {
        number: index + 1,
        pours: cup.map(({ pour }) => pour),
        pouredGrams,
        mixGrams: mixForPour(pouredGrams, cup.length, losses),
      };
    });
}

/** A pour bigger than a cup becomes as many whole cups as it fills, and what is left. */
function wholeCups(pour: Pour, room: number): Pour[] {
  const count = Math.max(1, Math.ceil(pour.grams / room - 1e-9));
  return Array.from({ length: count }, (_, i) => ({
    ...pour,
    grams: i < count - 1 ? room : pour.grams - (count - 1) * room,
  }));
}

/** A pour bigger than a cup becomes equal portions. */
function portions(pour: Pour, room: number): Pour[] {
  const count = Math.max(1, Math.ceil(pour.grams / room - 1e-9));
  return Array.from({ length: count }, () => ({ ...pour, grams: pour.grams / count }));
}
