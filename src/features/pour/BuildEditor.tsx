'use client';

import Button from '@mui/material/Button';
import {
  coatSchema,
  finishSchema,
  MOST_COATS,
  PLAIN_BUILD,
  type Coat,
  type WaterBuild,
} from '@/core/model/waterBuildSchema';
import { stretchesOfRequest, type PlanRequest } from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import { cupColour } from '@/core/tint/waterLook';
import { pourDoses } from '@/core/tint/waterTint';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { CutOpen } from '@/ui/waterline/CutOpen';
import { useDesk, useDeskPlan } from '../desk/DeskContext';
import styles from './BuildEditor.module.css';

const TINTS = [
  { value: 'recipe', label: 'tinted as the recipe' },
  { value: 'clear', label: 'left clear' },
] as const;
/** How far below the surface a coat ends, mm. */
const downTo = (coats: readonly Coat[], at: number): number =>
  coats.slice(0, at + 1).reduce((sum, { thicknessMm }) => sum + thicknessMm, 0);
/** How a stretch is tinted against the recipe. */
const tintWords = ({ strength, own }: { strength: number; own?: object }): string => {
  if (own) return 'a tint of its own';
  return strength === 0 ? 'clear' : strength === 1 ? 'tinted' : `tinted × ${strength.toFixed(2)}`;
};
const NO_FINISH = 'none';
const FIRST_FILM_MM = 0.1;

/** The water build of a set from the bed up: the product that fills it, coats of others over that, plants, and the surface finish. */
export function BuildEditor({ request, deepestMm }: { request: PlanRequest; deepestMm: number }) {
  const { desk, changeSet } = useDesk();
  const { plan } = useDeskPlan();
  const units = useUnits();
  const { build = PLAIN_BUILD, productId, levelMm } = desk.set.data;
  const { products } = desk.shelf;
  const put = (make: (build: WaterBuild) => WaterBuild, label: string): void =>
    changeSet(({ build: before = PLAIN_BUILD, ...set }) => {
      const next = make(before);
      const plain = next.coats.length === 0 && !next.plantsFirst && !next.finish;
      return plain ? set : { ...set, build: next };
    }, label);
  const changeCoat = (at: number, part: Partial<Coat>, label: string): void =>
    put((now) => ({ ...now, coats: now.coats.map((coat, i) => (i === at ? { ...coat, ...part } : coat)) }), label);
  const choices = products.map(({ id, data }) => ({ value: id, label: data.name }));
  const length = (mm: number): string => formatMeasure(mm, 'length', units);
  const layers = plan?.layers ?? [];
  const tinted = request.recipe.doses.some(({ gramsPer100 }) => gramsPer100 > 0);
  return (
    <section aria-label="The set’s build" className={styles.editor}>
      <CutOpen
        title="This set’s water, cut open"
        deepestMm={deepestMm}
        stretches={stretchesOfRequest(request).map((stretch) => ({
          thicknessMm: stretch.thicknessMm,
          fill: cupColour({
            clarity: stretch.product.clarity ?? 'water-clear',
            doses: pourDoses(request.recipe.doses, stretch),
          }),
          words: `${stretch.product.name}${tinted ? `, ${tintWords(stretch)}` : ''}`,
        }))}
      />
      <ol className={styles.rows} reversed aria-label="From the surface down">
        <li>
          <span className={styles.what}>On top</span>
          <ChoiceField
            bare
            label="Surface finish"
            value={build.finish?.productId ?? NO_FINISH}
            choices={[{ value: NO_FINISH, label: 'no finish' }, ...choices]}
            onCommit={(id) =>
              put(
                ({ finish, ...rest }) =>
                  id === NO_FINISH
                    ? rest
                    : { ...rest, finish: { filmMm: FIRST_FILM_MM, coats: 1, ...finish, productId: id } },
                id === NO_FINISH ? 'Leave out the finish' : 'Finish the surface',
              )
            }
          />
          {build.finish && (
            <>
              <MeasureField
                label="Film of a coat, dry"
                quantity="length"
                value={build.finish.filmMm}
                step={0.05}
                validate={(mm) => complaintAt(finishSchema, build.finish!, ['filmMm'], mm)}
                onCommit={(filmMm) =>
                  put((now) => (now.finish ? { ...now, finish: { ...now.finish, filmMm } } : now), 'Change the finish')
                }
              />
              <MeasureField
                label="Coats of it"
                quantity="number"
                value={build.finish.coats}
                validate={(coats) => complaintAt(finishSchema, build.finish!, ['coats'], coats)}
                onCommit={(coats) =>
                  put((now) => (now.finish ? { ...now, finish: { ...now.finish, coats } } : now), 'Change the finish')
                }
              />
              {plan?.finish && (
                <span
                  className={styles.says}
                >{`${formatMeasure(plan.finish.mixGrams, 'mass', units)} for the set`}</span>
              )}
            </>
          )}
        </li>
        {build.coats.map((coat, i) => {
          const name = i === 0 ? 'Top coat' : `Coat ${i + 1} from the top`;
          const [top, bottom] = [levelMm - downTo(build.coats, i - 1), levelMm - downTo(build.coats, i)];
          const own = layers.filter(({ fromMm, toMm }) => toMm <= top + 1e-6 && fromMm >= bottom - 1e-6).length;
          return (
            <li key={i}>
              <span className={styles.what}>{name}</span>
              <ChoiceField
                bare
                label={`${name}: product`}
                value={coat.productId}
                choices={choices}
                onCommit={(id) => changeCoat(i, { productId: id }, 'Change the product of a coat')}
              />
              <MeasureField
                label={`${name}: thickness`}
                quantity="length"
                value={coat.thicknessMm}
                step={0.5}
                validate={(mm) => complaintAt(coatSchema, coat, ['thicknessMm'], mm)}
                onCommit={(thicknessMm) => changeCoat(i, { thicknessMm }, 'Change the thickness of a coat')}
              />
              <MeasureField
                label={`${name}: down to`}
                quantity="length"
                value={bottom}
                step={0.5}
                validate={(level) => complaintAt(coatSchema, coat, ['thicknessMm'], top - level)}
                onCommit={(level) =>
                  changeCoat(i, { thicknessMm: Math.round((top - level) * 100) / 100 }, 'Change the level of a coat')
                }
              />
              <ChoiceField
                bare
                label={`${name}: tint`}
                value={coat.tint}
                choices={TINTS}
                onCommit={(tint) => changeCoat(i, { tint }, 'Change the tint of a coat')}
              />
              <Tick
                label="plants set before it"
                checked={coat.plantsBefore ?? false}
                onChange={(plantsBefore) => changeCoat(i, { plantsBefore }, 'Change when plants are set')}
              />
              <span className={styles.says}>{own > 1 ? `in ${own} layers` : ''}</span>
              <Button
                size="small"
                variant="text"
                aria-label={`Leave out ${name.toLowerCase()}`}
                onClick={() =>
                  put((now) => ({ ...now, coats: now.coats.filter((_, k) => k !== i) }), 'Leave out a coat')
                }
              >
                Leave out
              </Button>
            </li>
          );
        })}
        <li>
          <span className={styles.what}>From the bed up</span>
          <b>{products.find(({ id }) => id === productId)?.data.name}</b>
          <span className={styles.says}>
            {`${length(Math.max(0, deepestMm - downTo(build.coats, build.coats.length - 1)))} at the deepest`}
          </span>
          <Tick
            label="plants set before it"
            checked={build.plantsFirst ?? false}
            onChange={(plantsFirst) =>
              put(
                ({ plantsFirst: _, ...now }) => (plantsFirst ? { ...now, plantsFirst } : now),
                'Change when plants are set',
              )
            }
          />
        </li>
      </ol>
      {build.coats.length < MOST_COATS && (
        <Button
          size="small"
          onClick={() =>
            put(
              (now) => ({ ...now, coats: [{ productId, thicknessMm: 1, tint: 'clear' }, ...now.coats] }),
              'Add a coat on top',
            )
          }
        >
          Add a coat on top
        </Button>
      )}
    </section>
  );
}
