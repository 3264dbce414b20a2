'use client';

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useId, useState } from 'react';
import {
  checksOf,
  materialsOf,
  swapped,
  type Check,
  type CheckMend,
  type CheckSure,
  type Experience,
} from '@/core/dress/checks';
import { SURE } from '@/core/dress/fights';
import { materialOf, ROLES, type Role } from '@/core/dress/materials';
import type { Settings } from '@/core/records/recordSchemas';
import { type Route } from '@/core/schedule/routes';
import { factsOfStep } from '@/core/schedule/stepKinds';
import { newKey } from '@/ui/newKey';
import { useDesk } from '../../desk/DeskContext';
import styles from './BuiltWith.module.css';

const ROLE_WORDS: Record<Role, string> = {
  body: 'Body',
  sealer: 'Sealed with',
  glue: 'Glued with',
  paint: 'Painted with',
  dam: 'Dammed with',
  varnish: 'Varnished with',
  plants: 'Grown with',
  heat: 'Against bubbles',
};

const SURE_WORDS: Record<CheckSure, string> = {
  ...SURE,
  'did not work': 'it did not work for you',
  worked: 'it worked for you',
  both: 'it worked for you, and it did not: a test piece',
};

/** Checks of what a set is built with, along its route. */
export function useChecks(route: Route): Check[] {
  const { desk } = useDesk();
  const { productId, build, builtWith = {} } = desk.set.data;
  const { materials = [], experience = [] } = desk.shelf.settings.data;
  const used = new Set([productId, ...(build?.coats ?? []).map((coat) => coat.productId)]);
  const cureModels = desk.shelf.products.flatMap(({ id, data }) => (used.has(id) ? [data.cureModel] : []));
  return checksOf({ builtWith, own: materials, experience, cureModels, route });
}

/** What a set is built with, and what of that fights with each other: said before it is done, with its mend as a press. */
export function BuiltWith({ checks, usual }: { checks: readonly Check[]; usual: Route }) {
  const { desk, edits, changeSet } = useDesk();
  const { builtWith = {} } = desk.set.data;
  const own = desk.shelf.settings.data.materials ?? [];
  const putSettings = (change: (settings: Settings) => Settings, label: string): void =>
    void edits.run(({ shelf: { settings } }) => {
      const { id, version, data } = settings;
      return { do: 'put', kind: 'settings', id, version, data: change(data), label };
    }, label);
  const choose = (role: Role, ids: string[]): void =>
    changeSet(
      ({ builtWith: before = {}, ...set }) => {
        const { [role]: _, ...others } = before;
        return { ...set, builtWith: { ...others, ...(ids.length > 0 && { [role]: ids }) } };
      },
      `${ROLE_WORDS[role]} ${ids.map((id) => materialOf(id, own)?.name ?? id).join(', ') || 'nothing said'}`.slice(
        0,
        80,
      ),
    );
  const mend = (wanted: NonNullable<CheckMend>): void => {
    if (wanted.kind === 'swap')
      return changeSet((set) => ({ ...set, builtWith: swapped(set.builtWith ?? {}, wanted) }), mendWords(wanted));
    return changeSet((set) => {
      const route = set.route ?? usual;
      return { ...set, route: route.map((step) => (step.kind === wanted.step ? { ...step, on: true } : step)) };
    }, mendWords(wanted));
  };
  const tried = ({ fight, material }: Check, worked: boolean | null): void =>
    putSettings(
      ({ experience = [], ...settings }) => {
        const others = worked === null ? experience.filter((one) => !isOf(one, { fight, material })) : experience;
        const next = worked === null ? others : [...others, { fight, material, worked }].slice(-200);
        return { ...settings, ...(next.length > 0 && { experience: next }) };
      },
      worked === null ? 'Forget what was tried' : worked ? 'It worked' : 'It did not work',
    );
  const addOwn = (role: Role, name: string): void => {
    const id = newKey();
    putSettings(
      ({ materials = [], ...settings }) => ({ ...settings, materials: [...materials, { id, role, name }] }),
      `Another material: ${name}`.slice(0, 80),
    );
    choose(role, [...(builtWith[role] ?? []), id]);
  };
  return (
    <section aria-label="Built with" className={styles.built}>
      <h2>Built with</h2>
      <div className={styles.roles}>
        {ROLES.map((role) => (
          <MaterialField
            key={role}
            role={role}
            chosen={builtWith[role] ?? []}
            materials={materialsOf(role, own)}
            onChoose={(ids) => choose(role, ids)}
            onAnother={(name) => addOwn(role, name)}
          />
        ))}
      </div>
      {checks.length > 0 ? (
        <ul className={styles.checks} aria-label="What fights">
          {checks.map((check) => (
            <li key={`${check.fight} ${check.material}`} data-sure={check.sure}>
              <p>
                <b>{check.words}</b> <span>{SURE_WORDS[check.sure]}</span>
              </p>
              <p>{check.instead}</p>
              <div className={styles.presses}>
                {check.mend && (
                  <Button size="small" variant="outlined" onClick={() => mend(check.mend!)}>
                    {mendWords(check.mend)}
                  </Button>
                )}
                <Button size="small" variant="text" onClick={() => tried(check, true)}>
                  It worked for me
                </Button>
                <Button size="small" variant="text" onClick={() => tried(check, false)}>
                  It did not
                </Button>
                {check.sure in SURE || (
                  <Button size="small" variant="text" onClick={() => tried(check, null)}>
                    Forget that
                  </Button>
                )}
              </div>
            </li>
          ))}
        </ul>
      ) : (
        Object.keys(builtWith).length > 0 && (
          <p className={styles.quiet}>
            Nothing of that is known to fight. The label, the safety data sheet and a test piece come first.
          </p>
        )
      )}
    </section>
  );
}

const isOf = (one: Experience, { fight, material }: Pick<Experience, 'fight' | 'material'>): boolean =>
  one.fight === fight && one.material === material;

const mendWords = (mend: NonNullable<CheckMend>): string =>
  mend.kind === 'swap' ? `Take ${materialOf(mend.to, [])!.name.toLowerCase()}` : `${factsOfStep(mend.step).name} first`;

const ANOTHER = '+';

/** One role: what of it a set is built with, and a way to name what is not there. */
function MaterialField({
  role,
  chosen,
  materials,
  onChoose,
  onAnother,
}: {
  role: Role;
  chosen: readonly string[];
  materials: readonly { id: string; name: string }[];
  onChoose: (ids: string[]) => void;
  onAnother: (name: string) => void;
}) {
  const id = useId();
  const [naming, setNaming] = useState<string | null>(null);
  if (naming !== null)
    return (
      <form
        className={styles.naming}
        onSubmit={(event) => {
          event.preventDefault();
          if (naming.trim()) onAnother(naming.trim().slice(0, 60));
          setNaming(null);
        }}
      >
        <TextField
          label={`${ROLE_WORDS[role]}, in your words`}
          value={naming}
          autoFocus
          onChange={(event) => setNaming(event.target.value)}
        />
        <Button size="small" type="submit">
          Take it
        </Button>
      </form>
    );
  return (
    <TextField
      select
      id={id}
      label={ROLE_WORDS[role]}
      fullWidth
      value={chosen.filter((one) => materials.some((material) => material.id === one))}
      slotProps={{
        inputLabel: { shrink: true },
        select: {
          multiple: true,
          displayEmpty: true,
          renderValue: (ids) =>
            materials
              .filter((one) => (ids as string[]).includes(one.id))
              .map(({ name }) => name)
              .join('; ') || 'not said',
        },
      }}
      onChange={(event) => {
        const ids = event.target.value as unknown as string[];
        if (ids.includes(ANOTHER)) setNaming('');
        else onChoose(ids);
      }}
    >
      {materials.map((one) => (
        <MenuItem key={one.id} value={one.id}>
          {one.name}
        </MenuItem>
      ))}
      <MenuItem value={ANOTHER}>Something else</MenuItem>
    </TextField>
  );
}
