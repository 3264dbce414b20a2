import { WEEKDAYS } from '../time/benchWindows';
import { wallMinutes } from '../time/wallTime';
import { type Product, setsInTheCup } from '../model/productSchema';
import type { Stored } from '../model/stored';
import { productFacts } from './facts';
import { schedule } from './solve';
import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { calendarRequest, type CalendarBatch, type CalendarWorkshop } from './workplace';

/** Something that could be changed, what it is in words, and the request with it. */
export interface WayToBeSooner {
  id: string;
  words: string;
  request: ScheduleRequest;
}

/** What a way brings. */
export interface SoonerBy {
  id: string;
  words: string;
  readyAt: string | null;
  /** Minutes by which all is ready sooner, and by which batches are less late, together. */
  soonerMinutes: number;
  lessLateMinutes: number;
  benchDays: number;
}

/** An evening more, when nothing else is said of when. */
const EVENING = { fromMinute: 19 * 60, toMinute: 21 * 60 + 30 };
const HELPER = 'A second pair of hands';

/** What might bring batches forward: more of each place that is short, an evening more on each free weekday, a helper, no cold nights. */
export function waysToBeSooner(request: ScheduleRequest): WayToBeSooner[] {
  const { places, makers, conditions, batches } = request;
  const used = new Set(batches.flatMap(({ holds }) => holds.map(({ place }) => place)));
  const first = makers[0]!;
  const windows = first.windows;
  const free =
    windows.length === 0 ? [] : [0, 1, 2, 3, 4, 5, 6].filter((day) => !windows.some(({ weekday }) => weekday === day));
  const usual = windows.length > 0 ? (windows.find(({ weekday }) => weekday < 5) ?? EVENING) : EVENING;
  const { fromMinute, toMinute } = usual;
  return [
    ...places
      .filter(({ id }) => used.has(id))
      .map((place): WayToBeSooner => {
        const most = Math.max(
          ...batches.flatMap(({ holds }) => holds.flatMap((hold) => (hold.place === place.id ? [hold.amount] : []))),
        );
        const more = Math.max(place.capacity + most, place.capacity);
        return {
          id: `place ${place.id}`,
          words: `${Math.round(more)}${place.unit && `\u00a0${place.unit}`} ${place.name} in place of ${Math.round(place.capacity)}`,
          request: { ...request, places: places.map((one) => (one === place ? { ...one, capacity: more } : one)) },
        };
      }),
    ...free.map((weekday): WayToBeSooner => ({
      id: `evening ${weekday}`,
      words: `The bench on ${WEEKDAYS[weekday]}s too`,
      request: {
        ...request,
        makers: [{ ...first, windows: [...windows, { weekday, fromMinute, toMinute }] }, ...makers.slice(1)],
      },
    })),
    ...(makers.length === 1
      ? [
          {
            id: 'helper',
            words: `${HELPER} at all your hours`,
            request: { ...request, makers: [first, { ...first, name: HELPER }] },
          },
        ]
      : []),
    ...(conditions.usual.nightC < conditions.usual.dayC
      ? [
          {
            id: 'warm nights',
            words: `Nights as warm as days, ${Math.round(conditions.usual.dayC)}\u00a0°C`,
            request: {
              ...request,
              conditions: {
                ...conditions,
                usual: { ...conditions.usual, nightC: conditions.usual.dayC },
                days: conditions.days.map((day) => ({ ...day, nightC: Math.max(day.nightC, day.dayC) })),
              },
            },
          },
        ]
      : []),
  ];
}

/**
 * Quicker products of the shelf in place of the one that each batch is poured from, in the same layers where those are allowed; layers
 * that are poured stay as they are. Pot life and cups would have to be planned anew: here only the waits are.
 */
export function quickerProducts(
  batches: readonly CalendarBatch[],
  workshop: CalendarWorkshop,
  products: readonly Pick<Stored<Product>, 'id' | 'data'>[],
): WayToBeSooner[] {
  const names = new Set(batches.flatMap(({ facts }) => facts.layers.map(({ product }) => product.name)));
  return products.flatMap(({ id, data }): WayToBeSooner[] => {
    if (names.has(data.name) || !setsInTheCup(data.cureModel)) return [];
    const slower = new Set<string>();
    const changed = batches.map((batch) => ({
      ...batch,
      facts: {
        ...batch.facts,
        layers: batch.facts.layers.map((layer) => {
          const { product } = layer;
          const fits = product.curing.cureModel === 'two-part' && product.curing.wetMm <= data.greatestLayerMm;
          if (layer.pouredAt !== null || !fits || data.demouldMinutes >= product.demouldMinutes) return layer;
          slower.add(product.name);
          return { ...layer, product: productFacts(data, product.curing.wetMm) };
        }),
      },
    }));
    const request = slower.size > 0 ? calendarRequest(changed, workshop) : null;
    const words = `${data.name} in place of ${[...slower].join(' and ')}, in the same layers`;
    return request ? [{ id: `product ${id}`, words, request }] : [];
  });
}

/** Looks that each way gets: enough for the same quality as the plan that it is held against. */
const EFFORT_PER_WAY = 1500;

/**
 * Plans anew with each way, and says what it brings against the plan without; those that bring nothing too. Tells
 * each as it is known.
 */
export function* triedWays(
  plan: SchedulePlan,
  ways: readonly WayToBeSooner[],
  effort = EFFORT_PER_WAY,
): Generator<SoonerBy, void> {
  const late = (of: SchedulePlan): number => of.batches.reduce((sum, { lateMinutes }) => sum + lateMinutes, 0);
  for (const { id, words, request } of ways) {
    const tried = schedule({ ...request, effort });
    const sooner =
      plan.readyAt !== null && tried.readyAt !== null ? wallMinutes(plan.readyAt) - wallMinutes(tried.readyAt) : 0;
    yield {
      id,
      words,
      readyAt: tried.readyAt,
      benchDays: tried.benchDays,
      // A plan that came out worse was not looked for long enough: more cannot cost time.
      soonerMinutes: Math.max(0, sooner),
      lessLateMinutes: Math.max(0, late(plan) - late(tried)),
    };
  }
}
