'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/model/stored';
import { recipeSchema, type Recipe } from '@/core/model/recipeSchema';
import { pourDoses } from '@/core/tint/waterTint';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useTint } from '../useTint';
import { pourName, usePours } from './usePours';
import styles from './PoursView.module.css';
import { EVEN_POUR, MOST_POURS, type TintPour } from '@/core/model/tintSchema';

/** The pours of a recipe as they are, from the surface down: how thick, how strong, and colourants of their own. */
export function PourTable({ recipe }: { recipe: Stored<Recipe> }) {
  const { doses, deepestMm } = useTint();
  const { pours, put, change } = usePours(recipe);
  if (pours.length === 0)
    return (
      <div>
        <p className={styles.small}>
          {recipe.data.name} is poured the same all through. Dark at the bottom and clear on top hides the painted line
          and keeps the shore clear.
        </p>
        <Button
          size="small"
          variant="text"
          onClick={() =>
            put(
              () => [{ thicknessMm: Math.max(0.5, Math.round(deepestMm * 5) / 10), strength: 1 }, EVEN_POUR],
              `Pour ${recipe.data.name} in two`,
            )
          }
        >
          Part it in two by hand
        </Button>
      </div>
    );
  const last = pours.length - 1;
  return (
    <div>
      <Table size="small" aria-label="Pours, from the surface down">
        <TableHead>
          <TableRow>
            <TableCell>Pour</TableCell>
            <TableCell>Thick</TableCell>
            <TableCell>Strength</TableCell>
            {doses.map(({ colourant: { id, name } }) => (
              <TableCell key={id}>{`${name}, g in 100 g`}</TableCell>
            ))}
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {pours.map((pour, i) => {
            const name = pourName(i, pours.length);
            return (
              <TableRow key={i}>
                <TableCell component="th" scope="row">
                  {name}
                </TableCell>
                <TableCell>
                  {pour.thicknessMm === null || i === last ? (
                    'down to the bed'
                  ) : (
                    <MeasureField
                      bare
                      label={`Thickness of ${name}`}
                      quantity="length"
                      value={pour.thicknessMm}
                      step={0.5}
                      validate={(mm) => complaintAt(recipeSchema, recipe.data, ['pours', i, 'thicknessMm'], mm)}
                      onCommit={(mm) => change(i, () => ({ thicknessMm: mm }), 'thickness')}
                    />
                  )}
                </TableCell>
                <TableCell>
                  {pour.own ? (
                    'its own'
                  ) : (
                    <MeasureField
                      bare
                      label={`Strength of ${name}`}
                      quantity="fraction"
                      value={pour.strength}
                      step={0.1}
                      validate={(value) => complaintAt(recipeSchema, recipe.data, ['pours', i, 'strength'], value)}
                      onCommit={(value) => change(i, () => ({ strength: value }), 'strength')}
                    />
                  )}
                </TableCell>
                {pourDoses(doses, pour).map(({ colourant, gramsPer100 }) => (
                  <TableCell key={colourant.id}>
                    <MeasureField
                      bare
                      label={`${colourant.name} in ${name}`}
                      quantity="mass"
                      value={gramsPer100}
                      step={0.01}
                      decimals={3}
                      validate={(value) =>
                        complaintAt(recipeSchema, recipe.data, ['pours', i, 'own', colourant.id], value)
                      }
                      onCommit={(grams) =>
                        change(
                          i,
                          (newest) => ({ own: { ...ownOf(doses, newest), [colourant.id]: grams } }),
                          `${colourant.name.toLowerCase()}`,
                        )
                      }
                    />
                  </TableCell>
                ))}
                <TableCell>
                  <span className={styles.acts}>
                    {pour.own && (
                      <Button
                        size="small"
                        variant="text"
                        aria-label={`${name} like the recipe`}
                        onClick={() => change(i, () => ({ own: undefined }), 'tint')}
                      >
                        Like the recipe
                      </Button>
                    )}
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Leave out ${name}`}
                      onClick={() => put((now) => without(now, i), `Leave out ${name}`)}
                    >
                      Leave out
                    </Button>
                  </span>
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      <div className={styles.choices}>
        {pours.length < MOST_POURS && (
          <Button
            size="small"
            variant="text"
            onClick={() =>
              put(
                (now) => [{ thicknessMm: 1, strength: now[0]?.strength ?? 1 }, ...now],
                `Add a pour to ${recipe.data.name}`,
              )
            }
          >
            Add a pour on top
          </Button>
        )}
        <Button
          size="small"
          variant="text"
          onClick={() => put(() => [], `Pour ${recipe.data.name} the same all through`)}
        >
          The same all through
        </Button>
      </div>
    </div>
  );
}

/** All that a pour has of each colourant, as doses of its own. */
const ownOf = (doses: Parameters<typeof pourDoses>[0], pour: TintPour): NonNullable<TintPour['own']> =>
  Object.fromEntries(pourDoses(doses, pour).map(({ colourant, gramsPer100 }) => [colourant.id, gramsPer100]));

/** The pours without one of them: what is the lowest then goes on to the bed; one alone is the recipe itself. */
function without(pours: readonly TintPour[], at: number): TintPour[] {
  const left = pours.filter((_, i) => i !== at);
  if (left.length < 2 && !left[0]?.own) return [];
  return left.map((pour, i) => (i === left.length - 1 ? { ...pour, thicknessMm: null } : pour));
}
