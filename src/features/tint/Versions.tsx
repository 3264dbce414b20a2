'use client';

import Button from '@mui/material/Button';
import type { RecipeVersion } from '@/core/records/views';
import type { Stored } from '@/core/model/stored';
import type { Recipe } from '@/core/model/recipeSchema';
import { Fold } from '@/ui/controls/Fold';
import { useDesk } from '../desk/DeskContext';
import styles from './TintStage.module.css';

interface VersionsProps {
  recipe: Stored<Recipe>;
  versions: readonly (RecipeVersion & { name: string })[];
  /** Shows one of them beside the recipe, by its place. */
  onBeside: (index: number) => void;
}

/** What the recipe has been. Batches that were poured keep the version that they were mixed from. */
export function Versions({ recipe, versions, onBeside }: VersionsProps) {
  const { desk, tintRecipe } = useDesk();
  if (versions.length === 0) return null;
  const words = ({ doses }: Recipe): string =>
    doses
      .map(({ colourantId, gramsPer100 }) => {
        const name =
          desk.shelf.colourants.find(({ id }) => id === colourantId)?.data.name ?? 'a colourant that is gone';
        return `${gramsPer100.toFixed(3)} g ${name.toLowerCase()}`;
      })
      .join(', ') || 'clear';
  return (
    <Fold summary={`Earlier versions, ${versions.length}`}>
      <ol className={styles.versions}>
        {versions.map((version, i) => (
          <li key={i}>
            <b>{version.name}</b>
            <span>{words(version.recipe)}</span>
            <Button variant="text" size="small" aria-label={`Show beside: ${version.name}`} onClick={() => onBeside(i)}>
              Beside
            </Button>
            <Button
              variant="text"
              size="small"
              aria-label={`Take back: ${version.name}`}
              onClick={() =>
                tintRecipe(
                  recipe.id,
                  ({ name }) => ({ ...version.recipe, name }),
                  `Take ${recipe.data.name} back to what it was`,
                )
              }
            >
              Take it back
            </Button>
          </li>
        ))}
      </ol>
    </Fold>
  );
}
