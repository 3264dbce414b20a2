import { z } from 'zod';
import type { CureModelName } from '../model/productSchema';
import { causeOf, CAUSES, type CauseId, type Reach } from './causes';
import { SIGNS, type CopyFacts, type Reading, type SignId, type Speaks } from './facts';
import { FINDING_KINDS, type FindingKind } from './findingKinds';

const countSchema = z
  .object({ looked: z.number().int().min(0).max(10_000), with: z.number().int().min(0) })
  .refine(({ looked, with: having }) => having <= looked, {
    error: 'More have it than were looked over',
    path: ['with'],
  });
/** Copies that were looked over beside this one, and how many of them have the same finding. */
export const neighboursSchema = z.object({ sameCup: countSchema, otherCups: countSchema });
export type Neighbours = z.infer<typeof neighboursSchema>;

const makesLikelier = z.number().min(1, 'At least 1: once as likely').max(1000, 'At most 1000');
const makesUnlikelier = z.number().gt(0, 'Must be more than 0').max(1, 'At most 1: as likely as before');
/** How many times as likely a cause becomes by what speaks for or against it, and by its neighbours. */
export const weightsSchema = z.object({
  strongly: makesLikelier,
  speaks: makesLikelier,
  against: makesUnlikelier,
  neighboursFor: makesLikelier,
  neighboursAgainst: makesUnlikelier,
  /** How often a cause is behind a finding, against the others, where the maker knows better than what is typical; by `oftenKey`. */
  often: z
    .record(z.string().min(1).max(60), z.number().min(0, 'Cannot be negative').max(100, 'At most 100'))
    .optional(),
});
/** By which the maker’s own figure of a cause behind a finding is kept. */
export const oftenKey = (finding: FindingKind, cause: CauseId): string => `${finding}: ${cause}`;
export type Weights = z.infer<typeof weightsSchema>;
/** Typical, open to the maker. */
export const TYPICAL_WEIGHTS: Weights = {
  strongly: 12,
  speaks: 4,
  against: 0.15,
  neighboursFor: 2.5,
  neighboursAgainst: 0.35,
};

/** What speaks for or against a cause, in words. */
export interface Evidence {
  words: string;
  /** For, against, or neither way. */
  way: 'for' | 'against' | 'neither';
  /** By how many times it makes the cause more likely. */
  times: number;
}

/** A cause that fits, how likely it was before anything was known and is by what is on record. */
export interface LikelyCause {
  id: CauseId;
  words: string;
  /** How often it is behind such a finding, against the others. */
  often: number;
  before: number;
  now: number;
  evidence: Evidence[];
  next: string;
}

/** What may be behind a finding. */
export interface Diagnosis {
  finding: FindingKind;
  /** The likeliest first; their shares are 1 together. */
  causes: LikelyCause[];
  /** False: nothing on record speaks for any of them, they stand as they did before. */
  enough: boolean;
  /** What its neighbours say, in one sentence; null when none was looked over. */
  neighbours: string | null;
  /** What is not recorded of the causes that fit, and how to find out. */
  unknown: { words: string; findOut: string }[];
}

const timesOf = (speaks: Speaks, weights: Weights): number =>
  speaks === 2 ? weights.strongly : speaks === 1 ? weights.speaks : speaks === -1 ? weights.against : 1;

const wayOf = (times: number): Evidence['way'] => (times > 1 ? 'for' : times < 1 ? 'against' : 'neither');

const evidenceOf = ({ speaks, words }: Reading, weights: Weights): Evidence => {
  const times = timesOf(speaks, weights);
  return { words, way: wayOf(times), times };
};

/** What the neighbours say of causes that reach so far: 1 for them, -1 against; null where they say nothing. */
function neighboursSay(reach: Reach, { sameCup, otherCups }: Neighbours): { speaks: 1 | -1; words: string } | null {
  const all = ({ looked, with: having }: Neighbours['sameCup']): boolean => looked > 0 && having === looked;
  const none = ({ looked, with: having }: Neighbours['sameCup']): boolean => looked > 0 && having === 0;
  const some = ({ with: having }: Neighbours['sameCup']): boolean => having > 0;
  switch (reach) {
    case 'cup':
      if (none(sameCup)) return { speaks: -1, words: 'others of its cup are well' };
      if (all(sameCup) && !some(otherCups)) return { speaks: 1, words: 'all of its cup have it, other cups do not' };
      if (all(otherCups) && otherCups.looked > 1) return { speaks: -1, words: 'other cups have it too' };
      return null;
    case 'batch':
      if (all(otherCups) && (all(sameCup) || sameCup.looked === 0))
        return { speaks: 1, words: 'all that were looked over have it' };
      if (none(otherCups) || (otherCups.looked === 0 && none(sameCup)))
        return { speaks: -1, words: 'others of its batch are well' };
      return null;
    case 'piece':
      if (none(sameCup) || (sameCup.looked === 0 && none(otherCups)))
        return { speaks: 1, words: 'its neighbours are well' };
      if (all(sameCup) && sameCup.looked > 1) return { speaks: -1, words: 'its neighbours have it too' };
      return null;
  }
}

/** What is said of the neighbours, whatever the cause. */
function neighbourWords(kind: FindingKind, { sameCup, otherCups }: Neighbours): string | null {
  const counts = [
    { ...sameCup, where: 'others of its cup' },
    { ...otherCups, where: 'of other cups' },
  ].filter(({ looked }) => looked > 0);
  if (counts.length === 0) return null;
  const said = counts.map(({ looked, with: having, where }) => `${having} of ${looked} ${where}`);
  return `${FINDING_KINDS[kind].words} too: ${said.join(', ')}.`;
}

/** A cause has to become so many times likelier by one fact for the record to speak for it. */
const SPEAKS_FOR = 1.5;

/**
 * Which causes fit a finding, by Bayes: how often each is behind it before anything was known, times the likelihood ratio of each fact on record and of
 * the neighbours, made to add up to 1. Facts are taken to speak by themselves (naive Bayes). Causes that a product cannot have are left out.
 */
export function diagnose(
  finding: FindingKind,
  cureModel: CureModelName,
  facts: CopyFacts,
  neighbours: Neighbours,
  weights: Weights = TYPICAL_WEIGHTS,
): Diagnosis {
  const fitting = (Object.keys(CAUSES) as CauseId[])
    .map((id) => ({ id, ...causeOf(id) }))
    .filter(({ fits, only }) => fits[finding] !== undefined && (only === undefined || only.includes(cureModel)));
  const oftenOf = ({ id, fits }: (typeof fitting)[number]): number =>
    weights.often?.[oftenKey(finding, id)] ?? fits[finding]!;
  const all = fitting.reduce((sum, cause) => sum + oftenOf(cause), 0);
  const weighed = fitting.map((cause) => {
    const { id, words, reach, signs, next } = cause;
    const often = oftenOf(cause);
    const read = signs.flatMap((one) => SIGNS[one].read(facts) ?? []);
    // What nobody thought of may reach anything.
    const beside = id === 'other' ? null : neighboursSay(reach, neighbours);
    const evidence: Evidence[] = [
      ...read.map((one) => evidenceOf(one, weights)),
      ...(beside
        ? [
            {
              words: beside.words,
              way: beside.speaks === 1 ? ('for' as const) : ('against' as const),
              times: beside.speaks === 1 ? weights.neighboursFor : weights.neighboursAgainst,
            },
          ]
        : []),
    ];
    // Where the maker has said of all of them that they never are, none is likelier than another.
    const before = all > 0 ? often / all : 1 / fitting.length;
    return {
      id,
      words,
      often,
      before,
      evidence,
      next,
      odds: evidence.reduce((odds, { times }) => odds * times, before),
    };
  });
  const sum = weighed.reduce((total, { odds }) => total + odds, 0);
  const causes = weighed
    .map(({ odds, ...cause }): LikelyCause => ({ ...cause, now: sum > 0 ? odds / sum : cause.before }))
    .sort((a, b) => b.now - a.now || b.before - a.before);
  const asked = new Map<string, string>();
  for (const { signs } of fitting)
    for (const one of signs as readonly SignId[])
      if (SIGNS[one].read(facts) === null) asked.set(SIGNS[one].missing, SIGNS[one].findOut);
  return {
    finding,
    causes,
    enough: causes[0]?.evidence.some(({ times }) => times >= SPEAKS_FOR) ?? false,
    neighbours: neighbourWords(finding, neighbours),
    unknown: [...asked].map(([words, findOut]) => ({ words, findOut })),
  };
}
