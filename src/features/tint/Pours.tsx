'use client';

import Button from '@mui/material/Button';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/records/schema';
import { recipeSchema, type Recipe } from '@/core/tint/schema';
import { gradientPours, type TintPour } from '@/core/tint/waterTint';
import { MenuButton } from '@/ui/controls/MenuButton';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from '../desk/DeskContext';
import { useTint } from './useTint';
import styles from './TintStage.module.css';

/** How many pours, and how much darker the lowest: fully from nothing to twice, or half of that. */
const GRADES = [
  { count: 2, gradient: 1, label: 'in 2 pours' },
  { count: 3, gradient: 1, label: 'in 3 pours' },
  { count: 4, gradient: 1, label: 'in 4 pours' },
  { count: 2, gradient: 0.5, label: 'in 2 pours, gently' },
  { count: 3, gradient: 0.5, label: 'in 3 pours, gently' },
];

/** The recipe pour by pour: the same all through, or lighter towards the top. */
export function Pours({ recipe }: { recipe: Stored<Recipe> }) {
  const { tintRecipe } = useDesk();
  const { deepestMm } = useTint();
  const pours = recipe.data.pours ?? [];
  const put = (make: (pours: readonly TintPour[]) => TintPour[], label: string): void => {
    tintRecipe(
      recipe.id,
      ({ pours: before = [], ...data }) => {
        const next = make(before);
        return next.length > 0 ? { ...data, pours: next } : data;
      },
      label,
    );
  };
  const change = (at: number, part: Partial<TintPour>, words: string): void =>
    put((now) => now.map((pour, i) => (i === at ? { ...pour, ...part } : pour)), `Change the ${words} of a pour`);
  return (
    <section aria-label="Pours" className={styles.pours}>
      <h2 className={styles.heading}>Pour by pour</h2>
      {pours.length === 0 ? (
        <p className={styles.small}>
          The same all through. Dark at the bottom and clear on top hides the painted line and keeps the shore clear.
        </p>
      ) : (
        <ol className={styles.pourRows}>
          {pours.map(({ thicknessMm, strength }, i) => (
            <li key={i}>
              {thicknessMm === null ? (
                <span className={styles.rest}>down to the bed</span>
              ) : (
                <MeasureField
                  label={i === 0 ? 'Top pour' : `Pour ${i + 1} from the top`}
                  quantity="length"
                  value={thicknessMm}
                  step={0.5}
                  validate={(mm) => complaintAt(recipeSchema, recipe.data, ['pours', i, 'thicknessMm'], mm)}
                  onCommit={(mm) => change(i, { thicknessMm: mm }, 'thickness')}
                />
              )}
              <MeasureField
                label={`Strength of ${thicknessMm === null ? 'the lowest' : `pour ${i + 1}`}`}
                quantity="fraction"
                value={strength}
                step={0.1}
                validate={(value) => complaintAt(recipeSchema, recipe.data, ['pours', i, 'strength'], value)}
                onCommit={(value) => change(i, { strength: value }, 'strength')}
              />
            </li>
          ))}
        </ol>
      )}
      <div className={styles.choices}>
        <MenuButton
          label={pours.length === 0 ? 'Clear on top, dark below' : 'Begin again'}
          choices={GRADES.map(({ count, gradient, label }) => ({
            key: label,
            label,
            onPick: () =>
              put(
                () =>
                  gradientPours(Math.round(deepestMm * 10) / 10, count, gradient).map(({ thicknessMm, strength }) => ({
                    thicknessMm: thicknessMm === null ? null : Math.round(thicknessMm * 10) / 10,
                    strength: Math.round(strength * 100) / 100,
                  })),
                `Pour ${recipe.data.name} in ${count}`,
              ),
          }))}
        />
        {pours.length > 0 && (
          <Button
            variant="text"
            size="small"
            onClick={() => put(() => [], `Pour ${recipe.data.name} the same all through`)}
          >
            The same all through
          </Button>
        )}
      </div>
      {pours.length > 0 && (
        <p className={styles.small}>
          Counted from the surface; the layers of a batch are split there. At the deepest it holds as much colourant as
          the even recipe.
        </p>
      )}
    </section>
  );
}
