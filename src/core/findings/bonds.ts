import type { CureModelName } from '../model/productSchema';
import type { FindingKind } from './findingKinds';

/** Whether one product holds on another that is cured: it does, or nobody has told. */
export interface Bond {
  sure: boolean;
  words: string;
}

const ABRADED: Bond = { sure: true, words: 'on what is cured, dry and abraded' };
const UNTOLD: Bond = { sure: false, words: 'not known to hold there: a test piece first' };

/** What holds on what: the product that goes on top by what lies beneath. */
const ON: Record<CureModelName, Partial<Record<CureModelName, Bond>>> = {
  'two-part': { 'two-part': ABRADED, 'water-borne': ABRADED, lamp: ABRADED, 'open-air': ABRADED },
  'water-borne': {
    'two-part': { sure: true, words: 'abraded, in thin coats' },
    'water-borne': { sure: true, words: 'on what is dry and clear, in thin coats' },
  },
  lamp: { 'two-part': { sure: true, words: 'wiped clean, in thin layers' }, lamp: ABRADED },
  'open-air': {},
};

/** How a product that goes on top of another holds there. */
export const bondOf = (top: CureModelName, beneath: CureModelName): Bond => ON[top][beneath] ?? UNTOLD;

const SOFT: ReadonlySet<FindingKind> = new Set(['tacky', 'tacky spots', 'soft beneath']);
/** Why nothing goes over a finding; null where something may. */
export const nothingOver = (finding: FindingKind): string | null =>
  SOFT.has(finding) ? 'Nothing holds on what is tacky: wait, or wash it off, first.' : null;
