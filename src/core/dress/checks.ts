import { z } from 'zod';
import type { CureModelName } from '../model/productSchema';
import type { Route } from '../schedule/routes';
import type { StepKind } from '../schedule/stepKinds';
import { FIGHTS, type Fight, type Sure } from './fights';
import {
  MATERIALS,
  materialOf,
  ROLES,
  type BuiltWith,
  type MaterialId,
  type OwnMaterial,
  type Role,
  type Trait,
} from './materials';

/** What a maker has tried of two that are said to fight, or of one that nobody told of. */
export const experienceSchema = z.object({
  /** The fight and what did it, or `untold` and the material. */
  fight: z.string().min(1).max(40),
  material: z.string().min(1).max(40),
  worked: z.boolean(),
});
export type Experience = z.infer<typeof experienceSchema>;
export const MOST_EXPERIENCES = 200;

/** How sure a check is, the maker’s own experience above the table. */
export type CheckSure = Sure | 'did not work' | 'worked' | 'both';

/** What is put right by one press. */
export type CheckMend =
  { kind: 'swap'; role: Role; from: string; to: MaterialId } | { kind: 'step'; step: StepKind } | null;

/** Something that is said about what a set is built with. */
export interface Check {
  fight: string;
  /** What does it. */
  material: string;
  /** At which step of the route it is said. */
  at: StepKind;
  words: string;
  sure: CheckSure;
  instead: string;
  mend: CheckMend;
}

/** At which step each role is in hand. */
const STEP_OF: Record<Role, StepKind> = {
  body: 'pour',
  sealer: 'seal',
  glue: 'rocks',
  paint: 'paint',
  dam: 'dam',
  varnish: 'varnish',
  plants: 'plants after',
  heat: 'bubbles',
};

/** What the water itself brings along. */
const WATER_TRAITS: Record<CureModelName, readonly Trait[]> = {
  'two-part': ['resin'],
  lamp: ['resin'],
  'water-borne': ['wet'],
  'open-air': [],
};
/** Where the water is what does it. */
const WATER = 'the water';

/** What checks are made of. */
export interface Checked {
  builtWith: BuiltWith;
  /** The maker’s own materials, and what was tried. */
  own: readonly OwnMaterial[];
  experience: readonly Experience[];
  /** The water’s products. */
  cureModels: readonly CureModelName[];
  route: Pick<Route[number], 'kind' | 'on'>[];
}

interface InHand {
  id: string;
  role: Role;
  name: string;
  traits: readonly Trait[];
  told: boolean;
}

/** By the maker’s own word, where there is one; contradictory words leave it to a test piece. */
function sureOf(sure: Sure, tried: readonly Experience[]): CheckSure {
  const [worked, failed] = [tried.some((one) => one.worked), tried.some((one) => !one.worked)];
  if (worked && failed) return 'both';
  return worked ? 'worked' : failed ? 'did not work' : sure;
}

const isOn = ({ route }: Checked, step: StepKind): boolean => route.some(({ kind, on }) => on && kind === step);

/** How the mend of a fight is carried out: the doer is exchanged, or what suffers from the water, or a step is put in. */
function mendOf(fight: Fight, doer: InHand | null, sufferer: InHand): CheckMend {
  if (fight.step) return { kind: 'step', step: fight.step };
  for (const one of doer ? [doer] : [sufferer]) {
    const to = fight.swap?.[one.role];
    if (to && to !== one.id) return { kind: 'swap', role: one.role, from: one.id, to };
  }
  return null;
}

/**
 * What is said about how a set is built: each fight of two materials that are in hand, or of the water with one of them, once for each
 * that does it; and each material of which nothing is known. What is surest comes first; what worked for the maker last.
 */
export function checksOf(checked: Checked): Check[] {
  const inHand = ROLES.flatMap((role) =>
    (checked.builtWith[role] ?? []).flatMap((id): InHand[] => {
      const found = materialOf(id, checked.own);
      return found ? [{ id, ...found }] : [];
    }),
  );
  const water = new Set(checked.cureModels.flatMap((model) => WATER_TRAITS[model]));
  const triedOf = (fight: string, material: string): Experience[] =>
    checked.experience.filter((one) => one.fight === fight && one.material === material);
  const fights = FIGHTS.flatMap((fight): Check[] => {
    if (fight.without && isOn(checked, fight.without)) return [];
    const suffers = inHand.filter(({ traits }) => traits.includes(fight.to));
    const onWater = water.has(fight.to);
    const doers: (InHand | null)[] = [
      ...inHand.filter(({ traits }) => traits.includes(fight.does)),
      ...(water.has(fight.does) ? [null] : []),
    ];
    return doers.flatMap((doer): Check[] => {
      const sufferer = suffers.find((one) => one !== doer);
      if (!sufferer && !(onWater && doer)) return [];
      const { id, name, role } = doer ?? { id: WATER, name: 'The water', role: sufferer!.role };
      // Of the water it is what suffers that was tried.
      const material = doer ? id : sufferer!.id;
      return [
        {
          fight: fight.id,
          material,
          at: doer ? STEP_OF[role] : 'pour',
          words: `${name}${sufferer ? ` with ${sufferer.name.charAt(0).toLowerCase()}${sufferer.name.slice(1)}` : ''}: ${fight.what}.`,
          sure: sureOf(fight.sure, triedOf(fight.id, material)),
          instead: fight.instead,
          mend: mendOf(fight, doer, sufferer ?? doer!),
        },
      ];
    });
  });
  const untold = inHand.flatMap(({ id, name, role, told }): Check[] =>
    told
      ? []
      : [
          {
            fight: 'untold',
            material: id,
            at: STEP_OF[role],
            words: `${name}: nobody has told what it does with the rest.`,
            sure: sureOf('try', triedOf('untold', id)),
            instead: 'A test piece of it with body, paint and water, a night long.',
            mend: null,
          },
        ],
  );
  return [...fights, ...untold].toSorted((a, b) => RANK[a.sure] - RANK[b.sure]);
}

const RANK: Record<CheckSure, number> = { 'did not work': 0, seen: 1, said: 2, both: 3, try: 4, worked: 5 };

/** What a set is built with once a check is mended by another material. */
export function swapped(builtWith: BuiltWith, { role, from, to }: Extract<CheckMend, { kind: 'swap' }>): BuiltWith {
  const own = builtWith[role] ?? [];
  return { ...builtWith, [role]: [...new Set(own.map((id) => (id === from ? to : id)))] };
}

/** Materials of a role, the table’s first. */
export const materialsOf = (role: Role, own: readonly OwnMaterial[]): { id: string; name: string }[] => [
  ...Object.entries(MATERIALS).flatMap(([id, one]) => (one.role === role ? [{ id, name: one.name }] : [])),
  ...own.filter((one) => one.role === role),
];
