import type { CureModelName } from '../model/productSchema';

/** What may be found on a piece that is looked over, in the order in which one looks: from the side, onto it, by touch, at its edges. */
export const FINDINGS = [
  'low',
  'high',
  'leaked',
  'cloudy',
  'bubbles',
  'darker side',
  'off colour',
  'detail lost',
  'white line',
  'yellow',
  'tacky',
  'tacky spots',
  'soft beneath',
  'wrinkles',
  'rings',
  'dull side',
  'wall gap',
  'crack',
  'warp',
  'floated',
  'dark flock',
  'eaten',
] as const;
export type FindingKind = (typeof FINDINGS)[number];

interface FindingFacts {
  /** The key that notes it down. */
  key: string;
  words: string;
  /** Under the piece. */
  short: string;
  /** It has a size in mm. */
  sized?: true;
  /** What way of curing shows it until it is dry or cured, and is right again by itself. */
  passes?: Partial<Record<CureModelName, string>>;
}

const MILKY = 'It is white until it is dry: too early to judge.';
const SOFT = 'It is not through yet: too early to judge.';

/** What each finding is called, and where it is to be expected. */
export const FINDING_KINDS: Record<FindingKind, FindingFacts> = {
  low: { key: 'l', words: 'Level low', short: 'low', sized: true },
  high: { key: 'h', words: 'Level high, over the edge', short: 'high', sized: true },
  leaked: { key: 'v', words: 'Leaked, ran out', short: 'leaked' },
  cloudy: {
    key: 'c',
    words: 'Cloudy, milky',
    short: 'cloudy',
    passes: { 'water-borne': MILKY, 'open-air': 'It is milky until it has dried: too early to judge.' },
  },
  bubbles: { key: 'b', words: 'Bubbles', short: 'bubbles' },
  'darker side': { key: 'd', words: 'Darker on one side', short: 'one side dark' },
  'off colour': { key: 'o', words: 'Darker or paler than its set', short: 'off colour' },
  'detail lost': { key: 'n', words: 'Detail lost in it', short: 'detail lost' },
  'white line': { key: 'i', words: 'White line between layers', short: 'white line' },
  yellow: { key: 'y', words: 'Yellowed', short: 'yellow' },
  tacky: {
    key: 't',
    words: 'Tacky or soft all over',
    short: 'tacky',
    passes: { 'two-part': SOFT, 'water-borne': SOFT, 'open-air': SOFT },
  },
  'tacky spots': { key: 's', words: 'Tacky in spots', short: 'tacky spots', passes: { 'two-part': SOFT } },
  'soft beneath': {
    key: 'u',
    words: 'Hard on top, soft beneath',
    short: 'soft beneath',
    passes: { 'two-part': SOFT, 'water-borne': SOFT, 'open-air': SOFT },
  },
  wrinkles: { key: 'w', words: 'Wrinkles, fish eyes', short: 'wrinkles' },
  rings: { key: 'r', words: 'Rings, a lip at the wall', short: 'lip' },
  'dull side': { key: 'g', words: 'Dull, grainy side', short: 'dull side' },
  'wall gap': { key: 'a', words: 'Pulled from the wall', short: 'gap at wall', sized: true },
  crack: { key: 'k', words: 'Crack', short: 'crack' },
  warp: { key: 'q', words: 'Warped', short: 'warped', sized: true },
  floated: { key: 'f', words: 'A thing floated or tilted', short: 'floated' },
  'dark flock': { key: 'm', words: 'Flock dark and wet', short: 'dark flock' },
  eaten: { key: 'e', words: 'Foam eaten, pitted', short: 'eaten' },
};

/** Why it is too early to judge a finding; null when it is not. `cured`: whether what the piece has got is cured by now. */
export const tooEarly = (kind: FindingKind, cureModel: CureModelName, cured: boolean): string | null =>
  cured ? null : (FINDING_KINDS[kind].passes?.[cureModel] ?? null);
