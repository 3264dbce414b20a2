'use client';

import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { resolveRecipe } from '@/core/records/buildRequest';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/records/schema';
import { explainRecipe } from '@/core/plan';
import { recipeSchema, type Recipe } from '@/core/tint/schema';
import {
  colourantShares,
  MOST_COLOURANT_SHARE,
  MOST_WATER_BASED_SHARE,
  smallestDropMixGrams,
  type RecipeDose,
} from '@/core/tint/doses';
import { lookAt, waterLook } from '@/core/tint/waterLook';
import { measureText } from '@/core/units/formatMeasure';
import { MenuButton } from '@/ui/controls/MenuButton';
import { PickList } from '@/ui/controls/PickList';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { Problems } from '@/ui/mark/Problems';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useAwake } from '@/ui/useAwake';
import { BedThumb } from '../desk/BedThumb';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import { stageOfProblem } from '../desk/stages';
import { DepthLadder } from './DepthLadder';
import styles from './TintStage.module.css';

/** Tint: the recipe, what it looks like at every depth, and from which cup on its drops come out right. */
export function TintStage() {
  const { desk, mend } = useDesk();
  const { designs } = useLiveDesk();
  const { plan } = useDeskPlan();
  const awake = useAwake();
  const recipe = desk.shelf.recipes.find(({ id }) => id === desk.set.data.recipeId);
  const [bedId, setBedId] = useState<string | null>(null);
  if (!recipe)
    return <p className={styles.teach}>This set’s recipe is no longer on the shelf. Choose another in the set.</p>;
  const resolved = resolveRecipe(recipe, desk.shelf).doses;
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
          <div className={`labelled ${styles.bedChoice}`}>
            <span>Over the bed of</span>
            <ChoiceField
              bare
              label="Over the bed of"
              value={bed?.id ?? ''}
              choices={designs.map(({ id, data }) => ({ value: id, label: `${data.tag} ${data.name}` }))}
              onCommit={setBedId}
            />
          </div>
        )}
        <div className={styles.thumbs}>
          {designs.map(({ id, data }) => (
            <figure key={id}>
              {awake && <BedThumb design={data} levelMm={desk.set.data.levelMm} doses={resolved} />}
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
  const { desk, door, changeSet } = useDesk();
  const choose = (recipeId: string): void => changeSet((set) => ({ ...set, recipeId }), 'Choose the recipe');
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
      <PickList
        label="Recipes"
        chosenId={current}
        onChoose={choose}
        items={desk.shelf.recipes.map((recipe) => {
          const look = waterLook({ bedColour }, resolveRecipe(recipe, desk.shelf).doses, deepestMm);
          const stops = [0, deepestMm / 2, deepestMm].map((depthMm) => lookAt(look, depthMm)).join(', ');
          return {
            id: recipe.id,
            content: (
              <span className={styles.recipe}>
                <span className={styles.swatch} style={{ background: `linear-gradient(90deg, ${stops})` }} />
                <span>{recipe.data.name}</span>
              </span>
            ),
          };
        })}
      />
      <Button onClick={() => void add()}>Add a recipe</Button>
    </section>
  );
}

function Doses({ recipe }: { recipe: Stored<Recipe> }) {
  const { desk, door } = useDesk();
  const box = useRef<HTMLElement>(null);
  const { data } = recipe;
  const change = (make: (data: Recipe) => Recipe, label: string): void => {
    void door.run(({ shelf }) => {
      const stored = shelf.recipes.find(({ id }) => id === recipe.id);
      return stored
        ? { do: 'put', kind: 'recipe', id: recipe.id, version: stored.version, data: make(stored.data), label }
        : null;
    }, label);
  };
  const add = (colourantId: string): void => {
    change(
      (newest) => ({ ...newest, doses: [...newest.doses, { colourantId, gramsPer100: 0.05 }] }),
      `Add a colourant to ${data.name}`,
    );
    focusSoon(() => controlIn(box.current?.querySelector(`[data-dose="${colourantId}"]`)));
  };
  const unused = desk.shelf.colourants.filter(({ id }) => !data.doses.some(({ colourantId }) => colourantId === id));
  return (
    <section aria-label="Doses" className={styles.doses} ref={box}>
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
            <div key={colourantId} data-dose={colourantId} className={styles.dose}>
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
                onClick={() => {
                  change(
                    (newest) => ({ ...newest, doses: newest.doses.filter((dose) => dose.colourantId !== colourantId) }),
                    `Leave out ${name.toLowerCase()}`,
                  );
                  focusSoon(() => controlIn(box.current, 'last'));
                }}
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

function RecipeReadings({ recipe, doses }: { recipe: Recipe; doses: readonly RecipeDose[] }) {
  const units = useUnits();
  const { total, waterBased } = colourantShares(doses);
  const smallest = smallestDropMixGrams(doses);
  const percent = (share: number): string => (share * 100).toFixed(2);
  const cup = smallest === null ? { digits: 'any', unit: '' } : measureText(smallest, 'mass', units);
  return (
    <Readings>
      <Reading label="Smallest cup for drops" {...cup} strong explain={() => explainRecipe('smallestCup', doses)} />
      <Reading
        label="Colourant in all"
        digits={percent(total)}
        unit="%"
        note={`at most ${MOST_COLOURANT_SHARE * 100} %`}
        explain={() => explainRecipe('colourant', doses)}
      />
      <Reading
        label="Water-based"
        digits={percent(waterBased)}
        unit="%"
        note={`at most ${MOST_WATER_BASED_SHARE * 100} %`}
        explain={() => explainRecipe('waterBased', doses)}
      />
      <Reading label="Colourants" digits={String(recipe.doses.length)} />
    </Readings>
  );
}
