import type { CureModelName } from '../model/productSchema';

/** What whoever gets a piece should know of its water, by how it hardened. */
const CARE: Record<CureModelName, readonly string[]> = {
  'two-part': [
    'Keep it out of full sun and below 40 °C: a car in summer softens the water and turns it yellow.',
    'Wipe it with a damp cloth. No alcohol, no solvent, no window cleaner: they dull it.',
  ],
  lamp: [
    'Keep it out of full sun: the water turns yellow and brittle.',
    'Wipe it with a damp cloth. No alcohol, no solvent, no window cleaner: they dull it.',
  ],
  'water-borne': [
    'Keep it dry: water that stands on it turns it white and soft. Dust it with a soft brush.',
    'Nothing heavy on the water, and nothing for long: it takes marks.',
  ],
  'open-air': ['Dust it with a soft brush. Nothing sharp on the water: the skin can be pierced.'],
};

/** The same for every piece. */
const ALWAYS = [
  'No matt varnish over the water, and no spray near it without covering it.',
  'Stack pieces with paper between, water side up, nothing on reeds and banks.',
] as const;

/** How a piece is kept, for the sheet that goes along with it. */
export const careOf = (models: readonly CureModelName[]): string[] => [
  ...new Set([...models.flatMap((model) => CARE[model]), ...ALWAYS]),
];
