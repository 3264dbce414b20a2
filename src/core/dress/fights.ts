import type { StepKind } from '../schedule/stepKinds';
import type { MaterialId, Role, Trait } from './materials';

/** How sure it is: seen again and again, often said, or only a test piece tells. */
export const SURE = { seen: 'seen again and again', said: 'often said', try: 'not sure: a test piece first' } as const;
export type Sure = keyof typeof SURE;

/** Two traits that do not go together, and what to do about it. */
export interface Fight {
  id: string;
  /** What does it, and to what. */
  does: Trait;
  to: Trait;
  what: string;
  sure: Sure;
  instead: string;
  /** What takes the place of the doer, by its role; or of what suffers. */
  swap?: Partial<Record<Role, MaterialId>>;
  /** Or a step that is put into the route. */
  step?: StepKind;
  /** It holds while that step is left out. */
  without?: StepKind;
}

const WATER_BASED = {
  sealer: 'acrylic sealer',
  paint: 'brush paint',
  varnish: 'gloss varnish',
  glue: 'foam superglue',
} as const;

/** What fights with what. */
export const FIGHTS: readonly Fight[] = [
  {
    id: 'solvent on foam',
    does: 'solvent',
    to: 'foam',
    what: 'eats the foam, at once',
    sure: 'seen',
    instead: 'Water-based, or foam-safe; solvent only over a primer and a coat of glue that have no hole.',
    swap: WATER_BASED,
  },
  {
    id: 'solvent on plastic',
    does: 'solvent',
    to: 'plastic',
    what: 'softens plastic sheet and prints where it stands',
    sure: 'said',
    instead: 'Water-based, or thin coats that dry between.',
    swap: { sealer: 'acrylic sealer', paint: 'brush paint', varnish: 'gloss varnish' },
  },
  {
    id: 'very hot on foam',
    does: 'very hot',
    to: 'foam',
    what: 'melts its way into the foam',
    sure: 'seen',
    instead: 'The low-temperature kind.',
    swap: { glue: 'hot glue', dam: 'hot glue dam' },
  },
  {
    id: 'never lets go',
    does: 'never lets go',
    to: 'resin',
    what: 'does not come off again without the water’s edge',
    sure: 'seen',
    instead: 'Low-temperature glue, taken off when the water is firm and not yet hard.',
    swap: { dam: 'hot glue dam' },
  },
  {
    id: 'flame on fibres',
    does: 'flame',
    to: 'fibres',
    what: 'lights flock, fur and grass',
    sure: 'seen',
    instead: 'A pin, or breath where there are no fumes; flame only where nothing near burns.',
    swap: { heat: 'pin' },
  },
  {
    id: 'flame on paper',
    does: 'flame',
    to: 'paper',
    what: 'lights paper rims and leaves',
    sure: 'seen',
    instead: 'A pin.',
    swap: { heat: 'pin' },
  },
  {
    id: 'hot air on foam',
    does: 'hot air',
    to: 'foam',
    what: 'shrinks edges of foam, and fumes',
    sure: 'said',
    instead: 'A pin near the edges; hot air over the middle alone, and briefly.',
    swap: { heat: 'pin' },
  },
  {
    id: 'hot air on plastic',
    does: 'hot air',
    to: 'plastic',
    what: 'bends thin prints and sheet',
    sure: 'seen',
    instead: 'A pin.',
    swap: { heat: 'pin' },
  },
  {
    id: 'glue in fibres',
    does: 'shrinks',
    to: 'fibres',
    what: 'clumps fibres: it climbs their hairs',
    sure: 'seen',
    instead: 'Foam-safe superglue gel, in dots.',
    swap: { glue: 'foam superglue' },
  },
  {
    id: 'wet on thin wood',
    does: 'wet',
    to: 'thin wood',
    what: 'warps thin wood that is coated on one side',
    sure: 'seen',
    instead: 'Coat both sides, the same day.',
  },
  {
    id: 'resin on odd foam',
    does: 'resin',
    to: 'odd foam',
    what: 'may react with this foam: it pits or stays soft',
    sure: 'try',
    instead: 'A piece of the foam with a spoon of the mix first, or extruded foam.',
    swap: { body: 'extruded foam' },
  },
  {
    id: 'resin warms foam',
    does: 'resin',
    to: 'bead foam',
    what: 'warms as it sets: beads soften under a thick pour',
    sure: 'try',
    instead: 'A test piece, thinner layers, a sealed bed.',
    step: 'seal',
    without: 'seal',
  },
  {
    id: 'bed drinks',
    does: 'resin',
    to: 'drinks',
    what: 'is drunk by an unsealed bed: the level falls, edges go dark',
    sure: 'seen',
    instead: 'Seal it, edges twice.',
    step: 'seal',
    without: 'seal',
  },
  {
    id: 'bed breathes',
    does: 'resin',
    to: 'holds air',
    what: 'draws bubbles out of an unsealed bed for hours',
    sure: 'seen',
    instead: 'Seal it first.',
    step: 'seal',
    without: 'seal',
  },
  {
    id: 'matt over water',
    does: 'matt',
    to: 'resin',
    what: 'makes water dull for good where it falls on it',
    sure: 'seen',
    instead: 'Gloss over water; matt on the land alone, the water covered.',
    swap: { varnish: 'gloss varnish' },
  },
];
