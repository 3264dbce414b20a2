'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { resolveRecipe } from '@/core/records/buildRequest';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/records/schema';
import type { Explanation } from '@/core/plan';
import { isWaterBased, recipeSchema, type Recipe } from '@/core/tint/schema';
import {
  colourantShares,
  DROP_TOLERANCE,
  MOST_COLOURANT_SHARE,
  MOST_WATER_BASED_SHARE,
  smallestDropMixGrams,
} from '@/core/tint/doses';
import { lookAt, waterLook } from '@/core/tint/waterLook';
import { measureText } from '@/core/units/formatMeasure';
import { Problems } from '@/ui/mark/Problems';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import { stageOfProblem } from '../desk/stages';
import { BedThumb } from './BedThumb';
import { DepthLadder } from './DepthLadder';
import styles from './TintStage.module.css';

/** Tint: the recipe, what it looks like at every depth, and from which cup on its drops come out right. */
export function TintStage() {
  const { desk, mend } = useDesk();
  const { designs } = useLiveDesk();
  const { plan } = useDeskPlan();
  const recipe = desk.shelf.recipes.find(({ id }) => id === desk.set.data.recipeId);
  const [bedId, setBedId] = useState<string | null>(null);
  if (!recipe)
    return <p className={styles.teach}>This set’s recipe is no longer on the shelf. Choose another in the set.</p>;
  const resolved = resolveRecipe(recipe.data, desk.shelf).doses;
  const bed = designs.find(({ id }) => id === bedId) ?? designs[0];
  const deepestMm = Math.max(1, ...(plan?.pieces.map(({ water }) => water.greatestDepthMm) ?? [6]));
  return (
    <div className={styles.stage}>
      <RecipeList current={recipe.id} deepestMm={deepestMm} bedColour={bed?.data.bedColour ?? '#b9a883'} />
      <section aria-label="Colour by depth" className={styles.picture}>
        <h2 className={styles.heading}>{recipe.data.name}, over the bed from above and cut open</h2>
        <DepthLadder
          bedColour={bed?.data.bedColour ?? '#b9a883'}
          recipe={resolved}
          deepestMm={deepestMm}
          marks={plan?.pieces.map(({ tag, water }) => ({ tag, depthMm: water.greatestDepthMm })) ?? []}
        />
        {designs.length > 1 && (
          <label className={styles.bedChoice}>
            Over the bed of{' '}
            <select value={bed?.id} onChange={(event) => setBedId(event.target.value)}>
              {designs.map(({ id, data }) => (
                <option key={id} value={id}>
                  {data.tag} {data.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <div className={styles.thumbs}>
          {designs.map(({ id, data }) => (
            <figure key={id}>
              <BedThumb design={data} levelMm={desk.set.data.levelMm} recipe={resolved} />
              <figcaption>{data.tag}</figcaption>
            </figure>
          ))}
        </div>
        <p className={styles.small}>
          A first estimate: it knows how much light the tint swallows, not how cloudy it is. Pour a test swatch before a
          batch.
        </p>
      </section>
      <Doses recipe={recipe} />
      <section aria-label="Numbers" className={styles.numbers}>
        <h2 className={styles.heading}>What follows</h2>
        <RecipeReadings recipe={recipe.data} doses={resolved} />
        <Problems problems={plan?.problems.filter(({ code }) => stageOfProblem(code) === 'tint') ?? []} onMend={mend} />
      </section>
    </div>
  );
}

function RecipeList({ current, deepestMm, bedColour }: { current: string; deepestMm: number; bedColour: string }) {
  const { desk, door } = useDesk();
  const choose = (recipeId: string): void =>
    void door.run(
      ({ set }) => ({
        do: 'put',
        kind: 'set',
        id: set.id,
        version: set.version,
        data: { ...set.data, recipeId },
        label: 'Choose the recipe',
      }),
      'Recipe chosen',
    );
  const add = async (): Promise<void> => {
    const outcome = await door.run(() => ({
      do: 'add',
      kind: 'recipe',
      data: { name: 'New recipe', doses: [] },
      label: 'Add a recipe',
    }));
    if (outcome.ok && outcome.id) choose(outcome.id);
  };
  return (
    <section aria-label="Recipes" className={styles.recipes}>
      <h2 className={styles.heading}>Recipes</h2>
      <ul>
        {desk.shelf.recipes.map(({ id, data }) => {
          const look = waterLook({ bedColour }, resolveRecipe(data, desk.shelf).doses, deepestMm);
          return (
            <li key={id}>
              <button type="button" aria-pressed={id === current} className={styles.recipe} onClick={() => choose(id)}>
                <span
                  className={styles.swatch}
                  style={{
                    background: `linear-gradient(90deg, ${lookAt(look, 0)}, ${lookAt(look, deepestMm / 2)}, ${lookAt(look, deepestMm)})`,
                  }}
                />
                <span>{data.name}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <Button onClick={() => void add()}>Add a recipe</Button>
    </section>
  );
}

function Doses({ recipe }: { recipe: Stored<Recipe> }) {
  const { desk, door } = useDesk();
  const { data } = recipe;
  const change = (make: (data: Recipe) => Recipe, label: string): void => {
    void door.run(({ shelf }) => {
      const stored = shelf.recipes.find(({ id }) => id === recipe.id);
      return stored
        ? { do: 'put', kind: 'recipe', id: recipe.id, version: stored.version, data: make(stored.data), label }
        : null;
    }, label);
  };
  const unused = desk.shelf.colourants.filter(({ id }) => !data.doses.some(({ colourantId }) => colourantId === id));
  return (
    <section aria-label="Doses" className={styles.doses}>
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
          return (
            <div key={colourantId} className={styles.dose}>
              <MeasureField
                label={name}
                quantity="mass"
                value={gramsPer100}
                step={0.01}
                hint={
                  colourant ? `${(gramsPer100 / colourant.dropGrams).toFixed(1)} drops, ${colourant.kind}` : undefined
                }
                validate={(value) => complaintAt(recipeSchema, data, ['doses', i, 'gramsPer100'], value)}
                onCommit={(grams) =>
                  change(
                    (newest) => ({
                      ...newest,
                      doses: newest.doses.map((dose) =>
                        dose.colourantId === colourantId ? { ...dose, gramsPer100: grams } : dose,
                      ),
                    }),
                    `Change ${name.toLowerCase()} in ${data.name}`,
                  )
                }
              />
              <Button
                variant="text"
                size="small"
                aria-label={`Leave out ${name.toLowerCase()}`}
                onClick={() =>
                  change(
                    (newest) => ({ ...newest, doses: newest.doses.filter((dose) => dose.colourantId !== colourantId) }),
                    `Leave out ${name.toLowerCase()}`,
                  )
                }
              >
                Leave out
              </Button>
            </div>
          );
        })}
        {data.doses.length === 0 && (
          <p className={styles.small}>Clear: nothing is added. The painted bed alone makes the depth.</p>
        )}
        {unused.length > 0 && data.doses.length < 5 && (
          <label className={styles.addDose}>
            Add{' '}
            <select
              value=""
              onChange={({ target: { value } }) =>
                change(
                  (newest) => ({ ...newest, doses: [...newest.doses, { colourantId: value, gramsPer100: 0.05 }] }),
                  `Add a colourant to ${data.name}`,
                )
              }
            >
              <option value="" disabled>
                a colourant…
              </option>
              {unused.map(({ id, data: colourant }) => (
                <option key={id} value={id}>
                  {colourant.name}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
    </section>
  );
}

function explainShare(
  title: string,
  doses: ReturnType<typeof resolveRecipe>['doses'],
  counts: (kind: (typeof doses)[number]['colourant']['kind']) => boolean,
): Explanation {
  return {
    title,
    formula: 'Grams of colourant in 100 g of product, added up.',
    inputs: doses
      .filter(({ colourant }) => counts(colourant.kind))
      .map(({ colourant, gramsPer100 }) => ({
        label: `${colourant.name}, ${colourant.kind}`,
        value: `${gramsPer100.toFixed(3)} g`,
      })),
    assumptions: ['The limits are common ones; the label of the product comes first.'],
    estimate: false,
  };
}

function RecipeReadings({ recipe, doses }: { recipe: Recipe; doses: ReturnType<typeof resolveRecipe>['doses'] }) {
  const units = useUnits();
  const { total, waterBased } = colourantShares(doses);
  const smallest = smallestDropMixGrams(doses);
  const percent = (share: number): string => (share * 100).toFixed(2);
  const cup = smallest === null ? { digits: 'any', unit: '' } : measureText(smallest, 'mass', units);
  return (
    <Readings>
      <Reading
        label="Smallest cup for drops"
        {...cup}
        strong
        explain={() => ({
          title: 'Smallest cup for drops',
          formula: `The smallest mix in which whole drops of every colourant are within ${DROP_TOLERANCE * 100} % of the recipe. One drop is a large dose in a small cup.`,
          inputs: doses.map(({ colourant, gramsPer100 }) => ({
            label: colourant.name,
            value:
              gramsPer100 > 0
                ? `one drop for every ${((colourant.dropGrams / gramsPer100) * 100).toFixed(1)} g`
                : 'none',
          })),
          assumptions: [
            'Drop masses are those on the shelf; weigh twenty of your own.',
            'Some larger cups fall between two drops again; each cup on the Pour stage says by how much.',
          ],
          estimate: true,
        })}
      />
      <Reading
        label="Colourant in all"
        digits={percent(total)}
        unit="%"
        note={`at most ${MOST_COLOURANT_SHARE * 100} %`}
        explain={() => explainShare('Colourant in all', doses, () => true)}
      />
      <Reading
        label="Water-based"
        digits={percent(waterBased)}
        unit="%"
        note={`at most ${MOST_WATER_BASED_SHARE * 100} %`}
        explain={() => explainShare('Water-based', doses, isWaterBased)}
      />
      <Reading label="Colourants" digits={String(recipe.doses.length)} />
    </Readings>
  );
}
