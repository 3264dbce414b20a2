import fc from 'fast-check';
import { checksOf, materialsOf, swapped, type Check, type Checked, type Experience } from './checks';
import { FIGHTS } from './fights';
import { MATERIAL_IDS, MATERIALS, ROLES, type BuiltWith, type OwnMaterial } from './materials';

const checked = (builtWith: BuiltWith, more: Partial<Checked> = {}): Checked => ({
  builtWith,
  own: [],
  experience: [],
  cureModels: ['two-part'],
  route: [],
  ...more,
});
const found = (builtWith: BuiltWith, more: Partial<Checked> = {}): Check[] => checksOf(checked(builtWith, more));
const names = (checks: readonly Check[]): string[] => checks.map(({ fight }) => fight);

/** For each fight what fires it, and nearly the same that does not. */
const CASES: [string, BuiltWith, BuiltWith, Partial<Checked>?][] = [
  [
    'solvent on foam',
    { body: ['extruded foam'], glue: ['superglue'] },
    { body: ['extruded foam'], glue: ['foam superglue'] },
  ],
  [
    'solvent on foam',
    { body: ['extruded foam'], paint: ['spray paint'] },
    { body: ['floor tile'], paint: ['spray paint'] },
  ],
  [
    'solvent on plastic',
    { body: ['printed'], paint: ['solvent paint'] },
    { body: ['printed'], paint: ['brush paint'] },
  ],
  ['very hot on foam', { body: ['craft foam'], glue: ['hotter glue'] }, { body: ['craft foam'], glue: ['hot glue'] }],
  ['never lets go', { dam: ['industrial dam'] }, { dam: ['hot glue dam'] }],
  ['flame on fibres', { plants: ['fur'], heat: ['flame'] }, { plants: ['fur'], heat: ['hot air'] }],
  ['flame on paper', { body: ['card'], heat: ['flame'] }, { body: ['card'], heat: ['pin'] }],
  ['hot air on foam', { body: ['extruded foam'], heat: ['hot air'] }, { body: ['cork'], heat: ['hot air'] }],
  ['hot air on plastic', { body: ['printed'], heat: ['hot air'] }, { body: ['printed'], heat: ['pin'] }],
  ['glue in fibres', { glue: ['pva'], plants: ['fur'] }, { glue: ['pva'], plants: ['leaves'] }],
  [
    'wet on thin wood',
    { body: ['hardboard'], sealer: ['acrylic sealer'] },
    { body: ['hardboard'], sealer: ['epoxy sealer'] },
    { cureModels: ['open-air'], route: [{ kind: 'seal', on: true }] },
  ],
  ['resin on odd foam', { body: ['craft foam'] }, { body: ['extruded foam'] }],
  ['resin warms foam', { body: ['expanded foam'] }, { body: ['extruded foam'] }],
  ['bed drinks', { body: ['plaster'] }, { body: ['cast resin'] }],
  ['bed breathes', { body: ['cork'] }, { body: ['floor tile'] }],
  ['matt over water', { varnish: ['matt varnish'] }, { varnish: ['gloss varnish'] }],
];

// A case without a fourth part must not leave the test waiting for a callback.
test.each(CASES)('%s: %j fires it, %j does not', (...[fight, fires, not, more]) => {
  expect(names(found(fires, more))).toContain(fight);
  expect(names(found(not, more))).not.toContain(fight);
});

test('every fight has its case', () => {
  expect(new Set(CASES.map(([fight]) => fight))).toEqual(new Set(FIGHTS.map(({ id }) => id)));
});

test('of nothing said nothing is said, and what lies there alone fights with nobody', () => {
  expect(found({})).toEqual([]);
  expect(found({ glue: ['superglue'] })).toEqual([]);
  expect(found({ plants: ['fur'] })).toEqual([]);
});

test('other water, other checks: what dries in the air draws no bubbles out of cork', () => {
  expect(names(found({ body: ['cork'] }, { cureModels: ['water-borne'] }))).not.toContain('bed breathes');
  expect(names(found({ body: ['hardboard'] }, { cureModels: ['water-borne'] }))).toContain('wet on thin wood');
});

test('a bed that drinks is mended by sealing it, and silent once that is in the route', () => {
  const [check] = found({ body: ['plaster'] }).filter(({ fight }) => fight === 'bed drinks');
  expect(check).toMatchObject({ at: 'pour', mend: { kind: 'step', step: 'seal' } });
  expect(check!.words).toBe(
    'The water with plaster, filler: is drunk by an unsealed bed: the level falls, edges go dark.',
  );
  expect(names(found({ body: ['plaster'] }, { route: [{ kind: 'seal', on: false }] }))).toContain('bed drinks');
  expect(names(found({ body: ['plaster'] }, { route: [{ kind: 'seal', on: true }] }))).not.toContain('bed drinks');
});

test('a mend by another material is silent afterwards, and brings nothing that would have to be exchanged in its turn', () => {
  const ids = fc.constantFrom(...MATERIAL_IDS);
  fc.assert(
    fc.property(fc.array(ids, { maxLength: 7 }), (picked) => {
      const builtWith: BuiltWith = {};
      for (const id of picked) {
        const { role } = MATERIALS[id];
        builtWith[role] = [...new Set([...(builtWith[role] ?? []), id])];
      }
      for (const { fight, material, mend } of found(builtWith)) {
        if (mend?.kind !== 'swap') continue;
        const before = names(found(builtWith));
        const after = found(swapped(builtWith, mend));
        // Exchanged is what does it, or, of the water, what suffers.
        expect(
          after.filter((one) => one.fight === fight && one.material === material && mend.from === material),
        ).toEqual([]);
        // What only wants care, as coating both sides, may come with it.
        const exchanged = after.filter((one) => one.mend?.kind === 'swap');
        expect(names(exchanged).filter((one) => !before.includes(one))).toEqual([]);
      }
    }),
  );
});

describe('own experience', () => {
  const builtWith: BuiltWith = { body: ['extruded foam'], glue: ['superglue'] };
  const said = (...worked: boolean[]): string => {
    const experience = worked.map((one): Experience => ({
      fight: 'solvent on foam',
      material: 'superglue',
      worked: one,
    }));
    return found(builtWith, { experience }).find(({ fight }) => fight === 'solvent on foam')!.sure;
  };

  test('outweighs the table, and is said as such; contradictory it wants a test piece', () => {
    expect([said(), said(true), said(false), said(true, false)]).toEqual(['seen', 'worked', 'did not work', 'both']);
  });

  test('of another material says nothing of this one', () => {
    const experience: Experience[] = [{ fight: 'solvent on foam', material: 'spray paint', worked: true }];
    expect(found(builtWith, { experience })[0]!.sure).toBe('seen');
  });

  test('what did not work comes first, what worked last', () => {
    const experience: Experience[] = [
      { fight: 'solvent on foam', material: 'superglue', worked: true },
      { fight: 'hot air on foam', material: 'hot air', worked: false },
    ];
    const all = found({ ...builtWith, heat: ['hot air'], varnish: ['matt varnish'] }, { experience });
    expect(all[0]!.fight).toBe('hot air on foam');
    expect(all.at(-1)!.fight).toBe('solvent on foam');
  });
});

test('a material that nobody told of wants a test piece until it was tried; one that is gone is not there', () => {
  const own: OwnMaterial[] = [{ id: 'mine', role: 'body', name: 'Grey slab' }];
  const [check, ...others] = found({ body: ['mine', 'gone'] }, { own });
  expect(others).toEqual([]);
  expect(check).toMatchObject({ fight: 'untold', sure: 'try', mend: null });
  expect(check!.words).toContain('Grey slab');
  const tried = [{ fight: 'untold', material: 'mine', worked: true }];
  expect(found({ body: ['mine'] }, { own, experience: tried })[0]!.sure).toBe('worked');
});

test('materials stand under their role, the maker’s own last', () => {
  const own: OwnMaterial[] = [{ id: 'mine', role: 'glue', name: 'Fish glue' }];
  expect(materialsOf('glue', own).at(-1)).toMatchObject({ id: 'mine' });
  expect(ROLES.flatMap((role) => materialsOf(role, []))).toHaveLength(MATERIAL_IDS.length);
});
