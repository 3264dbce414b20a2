'use client';

import Button from '@mui/material/Button';
import { useRef } from 'react';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/model/stored';
import { recipeSchema, type Recipe } from '@/core/model/recipeSchema';
import { MenuButton } from '@/ui/controls/MenuButton';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import { useDesk } from '../desk/DeskContext';
import { DoseSlider } from './DoseSlider';
import styles from './TintStage.module.css';

/** What goes into 100 g of product. */
export function Doses({ recipe }: { recipe: Stored<Recipe> }) {
  const { desk, tintRecipe } = useDesk();
  const box = useRef<HTMLElement>(null);
  const { data } = recipe;
  const change = (make: (data: Recipe) => Recipe, label: string, done = true): void =>
    tintRecipe(recipe.id, make, label, done);
  const add = (colourantId: string): void => {
    change(
      (newest) => ({ ...newest, doses: [...newest.doses, { colourantId, gramsPer100: 0.05 }] }),
      `Add a colourant to ${data.name}`,
    );
    focusSoon(() => controlIn(box.current?.querySelector(`[data-dose="${colourantId}"]`)));
  };
  const unused = desk.shelf.colourants.filter(({ id }) => !data.doses.some(({ colourantId }) => colourantId === id));
  return (
    <section aria-label="Doses" ref={box}>
      <h2 className={styles.heading}>Colourants in 100 g of product</h2>
      <div className={styles.fields}>
        <WordField
          label="Name of the recipe"
          value={data.name}
          onCommit={(name) => change((newest) => ({ ...newest, name }), 'Rename the recipe')}
          validate={(name) => complaintAt(recipeSchema, data, ['name'], name)}
        />
        {data.doses.map(({ colourantId, gramsPer100 }, i) => {
          const colourant = desk.shelf.colourants.find(({ id }) => id === colourantId)?.data;
          const name = colourant?.name ?? 'A colourant that is gone';
          const dose = (grams: number, done = true): void =>
            change(
              (newest) => ({
                ...newest,
                doses: newest.doses.map((one) =>
                  one.colourantId === colourantId ? { ...one, gramsPer100: grams } : one,
                ),
              }),
              `Change ${name.toLowerCase()} in ${data.name}`,
              done,
            );
          return (
            <div key={colourantId} data-dose={colourantId} className={styles.dose}>
              <MeasureField
                label={name}
                quantity="mass"
                value={gramsPer100}
                step={0.01}
                decimals={3}
                hint={
                  colourant ? `${(gramsPer100 / colourant.dropGrams).toFixed(1)} drops, ${colourant.kind}` : undefined
                }
                validate={(value) => complaintAt(recipeSchema, data, ['doses', i, 'gramsPer100'], value)}
                onCommit={(grams) => dose(grams)}
              />
              <Button
                variant="text"
                size="small"
                aria-label={`Leave out ${name.toLowerCase()}`}
                onClick={() => {
                  change((newest) => withoutColourant(newest, colourantId), `Leave out ${name.toLowerCase()}`);
                  focusSoon(() => controlIn(box.current, 'last'));
                }}
              >
                Leave out
              </Button>
              {colourant && <DoseSlider colourant={colourant} gramsPer100={gramsPer100} onDose={dose} />}
            </div>
          );
        })}
        {data.doses.length === 0 && (
          <p className={styles.small}>Clear: nothing is added. The painted bed alone makes the depth.</p>
        )}
        {unused.length > 0 && data.doses.length < 5 && (
          <MenuButton
            label="Add a colourant"
            choices={unused.map(({ id, data: colourant }) => ({
              key: id,
              label: colourant.name,
              onPick: () => add(id),
            }))}
          />
        )}
      </div>
    </section>
  );
}

/** A recipe without a colourant, in none of its pours either. */
const withoutColourant = ({ pours, ...recipe }: Recipe, colourantId: string): Recipe => ({
  ...recipe,
  doses: recipe.doses.filter((dose) => dose.colourantId !== colourantId),
  ...(pours && {
    pours: pours.map(({ own, ...pour }) => ({
      ...pour,
      ...(own && { own: Object.fromEntries(Object.entries(own).filter(([id]) => id !== colourantId)) }),
    })),
  }),
});
