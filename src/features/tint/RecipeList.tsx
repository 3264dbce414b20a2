'use client';

import Button from '@mui/material/Button';
import { lookAt, waterLook } from '@/core/tint/waterLook';
import { PickList } from '@/ui/controls/PickList';
import { useDesk } from '../desk/DeskContext';
import { useTint } from './useTint';
import styles from './TintStage.module.css';

/** The recipes of the shelf; the chosen one is the set's. */
export function RecipeList({ current, bedColour }: { current: string; bedColour: string }) {
  const { deepestMm, tintOf } = useTint();
  const { desk, edits, changeSet } = useDesk();
  const choose = (recipeId: string): void => changeSet((set) => ({ ...set, recipeId }), 'Choose the recipe');
  const add = async (): Promise<void> => {
    const outcome = await edits.run(() => ({
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
          const look = waterLook({ bedColour }, tintOf(recipe), deepestMm);
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
