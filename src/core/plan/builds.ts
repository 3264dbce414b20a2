import { cureTimes } from '../cure/cureLine';
import { layerHandsOnMinutes } from '../pouring/handsOn';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import type { Product } from '../model/productSchema';
import { gradientPours } from '../tint/waterTint';
import { colourByDepth } from '../tint/waterLook';
import type { Amounts } from './plan';
import { tintOfRequest, type PlanRequest } from './request';
import { handsOnMinutes } from './whatIf';

/** A school of making water: which kind of product, how it is tinted, and what is to be known of it before. */
export interface BuildOnOffer {
  key: string;
  name: string;
  /** The kind of product, by the id under which it ships. */
  kindId: string;
  tint: 'recipe' | 'graded' | 'none';
  /** A film over a painted bed, so thick: the depth is painted, not poured. Null: filled to the level. */
  filmMm: number | null;
  look: string;
  risk: string;
}

/** The known schools. Each has its followers; none is the right one for every bed. */
export const WATER_BUILDS: readonly BuildOnOffer[] = [
  {
    key: 'deep',
    name: 'Deep tinted pour',
    kindId: 'slow-casting-epoxy',
    tint: 'recipe',
    filmMm: null,
    look: 'glass-clear depth, one colour through',
    risk: 'two days to wait; finds every pinhole; heat in the cup with large mixes',
  },
  {
    key: 'graded',
    name: 'Graded pours',
    kindId: 'coating-epoxy',
    tint: 'graded',
    filmMm: null,
    look: 'dark in the deep, clear at the shore',
    risk: 'more pours to time; a missed recoat window has to be abraded',
  },
  {
    key: 'even',
    name: 'Tinted pours',
    kindId: 'coating-epoxy',
    tint: 'recipe',
    filmMm: null,
    look: 'one colour, in layers',
    risk: 'a cup a little darker shows as a line at the wall',
  },
  {
    key: 'film',
    name: 'Thin coat over a painted bed',
    kindId: 'coating-epoxy',
    tint: 'none',
    filmMm: 2,
    look: 'all depth from the paint; still and glossy',
    risk: 'the bed has to be built up to just under the level; flat from the side',
  },
  {
    key: 'lamp',
    name: 'Light-cured in thin layers',
    kindId: 'light-cured-resin',
    tint: 'recipe',
    filmMm: null,
    look: 'clear; done in an evening',
    risk: 'tint keeps the lamp out; shrinks at the walls; protect eyes and skin',
  },
  {
    key: 'five',
    name: 'Five-minute glue',
    kindId: 'five-minute-glue',
    tint: 'recipe',
    filmMm: null,
    look: 'clear with some bubbles; yellows in time',
    risk: 'too late to touch after four minutes: small cups, small pieces',
  },
  {
    key: 'pva',
    name: 'Layers of clear-drying glue',
    kindId: 'clear-drying-glue',
    tint: 'recipe',
    filmMm: null,
    look: 'soft, a little uneven; cheap',
    risk: 'more than three layers stay white; undiluted, and test a card first',
  },
  {
    key: 'gel',
    name: 'Water-borne gel in thin layers',
    kindId: 'water-borne-gel',
    tint: 'recipe',
    filmMm: null,
    look: 'ripples hold; slightly milky',
    risk: 'a thick layer skins over and stays white beneath',
  },
  {
    key: 'sealant',
    name: 'Clear sealant',
    kindId: 'clear-sealant',
    tint: 'none',
    filmMm: null,
    look: 'running water, falls and foam',
    risk: 'hard to tint, hard to smooth',
  },
  {
    key: 'painted',
    name: 'Painted, glossed',
    kindId: 'gloss-medium',
    tint: 'none',
    filmMm: 0.5,
    look: 'all paint: reads from above, not from the side',
    risk: 'nothing lies under water; the level has to be modelled',
  },
];

/** What a build comes to for some pieces. */
export interface BuildFigures {
  /** Grams to mix, all layers. */
  grams: number;
  cost: number;
  layers: number;
  cups: number;
  handsOnMinutes: number;
  /** From the first pour to when it may be handled. */
  waitMinutes: number;
  /** What stops it or is to be minded, worst first, in words of the plan. */
  stops: string[];
  /** Colours from the shore to the deepest. */
  colours: string[];
}

/** The product of a build: the maker's own of that kind where it stands on the shelf, else the typical one. */
export function productOfBuild(
  { kindId }: BuildOnOffer,
  shelf: readonly { id: string; data: Product }[],
): (Product & { id: string; own: boolean }) | null {
  const own = shelf.find(({ id }) => id === kindId);
  if (own) return { ...own.data, id: own.id, own: true };
  const kind = PRODUCT_KINDS.find(({ id }) => id === kindId);
  return kind ? { ...kind, own: false } : null;
}

/** The request as it would be in a build: its product, and the recipe poured the way of the school. */
export function requestOfBuild(
  request: PlanRequest,
  build: BuildOnOffer,
  { own: _, ...product }: Product & { id: string; own?: boolean },
  deepestMm: number,
): PlanRequest {
  const { pours: _pours, ...even } = request.recipe;
  const recipe =
    build.tint === 'none'
      ? { ...even, doses: [] }
      : build.tint === 'graded'
        ? { ...even, pours: gradientPours(Math.max(1, deepestMm), 2) }
        : even;
  const { moves: _moves, build: _build, ...rest } = request;
  return { ...rest, product, recipe, poured: [] };
}

const STEPS = 8;

/**
 * The figures of a build from its plan. A film is the wetted surface times its thickness, made up for shrinkage, with the same losses a
 * cup and a piece; its colours are those of that film over a bed painted as deep as the real one would look. An estimate.
 */
export function buildFigures(build: BuildOnOffer, request: PlanRequest, amounts: Amounts): BuildFigures {
  const { product, room, losses } = request;
  const deepestMm = Math.max(...amounts.pieces.map(({ water }) => water.greatestDepthMm), 0.1);
  const bed = request.pieces[0]?.bedColour ?? '#b9a883';
  const colourAt = colourByDepth(bed, tintOfRequest(request));
  const depthOf = (i: number): number => ((build.filmMm ?? deepestMm) * i) / (STEPS - 1);
  const colours = Array.from({ length: STEPS }, (_, i) => colourAt(depthOf(i)));
  const stops = amounts.problems
    .filter(({ severity, code }) => severity === 'stop' || BUILD_CODES.has(code))
    .map(({ message }) => message);
  if (build.filmMm === null) {
    const waits = amounts.layers.map(({ wetMm }) => cureTimes(product, room, wetMm));
    const waitMinutes = waits.reduce(
      (sum, times, i) => sum + (i === waits.length - 1 ? times.demould : times.recoatOpens),
      0,
    );
    return {
      grams: amounts.totals.mixGrams,
      cost: amounts.cost.total,
      layers: amounts.layers.length,
      cups: amounts.totals.cups,
      handsOnMinutes: handsOnMinutes(amounts, request),
      waitMinutes,
      stops,
      colours,
    };
  }
  const wetMm = Math.min(build.filmMm / (1 - product.shrinkage), product.greatestLayerMm);
  const poured = (amounts.totals.surfaceCm2 * 100 * wetMm * amounts.product.pouredDensity) / 1000;
  const room1 = amounts.mix.mostGrams * (1 - losses.share) - losses.perCupGrams;
  const need = poured + amounts.totals.pieces * losses.perPieceGrams;
  const cups = Math.max(1, Math.ceil(need / Math.max(1, room1)));
  const grams = (need + cups * losses.perCupGrams) / (1 - losses.share);
  return {
    grams,
    layers: 1,
    cups,
    stops: [],
    colours,
    cost: (grams * product.packPrice) / product.packGrams + cups * request.bench.pricePerCup,
    handsOnMinutes: layerHandsOnMinutes({
      cups,
      pours: amounts.totals.pieces,
      mixGrams: grams,
      pourGramsPerMinute: product.pourGramsPerMinute,
      stirMinutes: product.stirMinutes,
      hands: request.hands,
    }),
    waitMinutes: cureTimes(product, room, wetMm).demould,
  };
}

/** Warnings that speak of the build and not of the pieces. */
const BUILD_CODES: ReadonlySet<string> = new Set([
  'lamp-too-dark',
  'too-many-layers',
  'too-much-water',
  'thin-product',
  'swells',
  'heats-up',
  'cold-room',
]);
