'use client';

import Link from 'next/link';
import { useState } from 'react';
import { linearFromHex } from '@/core/tint/colour';
import { cupSizes } from '@/core/tint/cupSizes';
import { colourPortionsOf, portionWords, readerOf } from '@/core/pouring/portionWords';
import { cupPortions, fromStock } from '@/core/pouring/portions';
import { stockPart, stockTint, tintings } from '@/core/pouring/stockTint';
import { cupDoses, DROP_TOLERANCE, type RecipeDose } from '@/core/tint/doses';
import { dropsDeltaE } from '@/core/tint/rescue';
import { parseMassList } from '@/core/units/parseMassList';
import { formatMeasure, formatOnScale } from '@/core/units/formatMeasure';
import type { Product } from '@/core/model/productSchema';
import type { Stored } from '@/core/model/stored';
import type { DeskView } from '@/core/records/views';
import type { Recipe } from '@/core/model/recipeSchema';
import { pourDoses } from '@/core/tint/waterTint';
import { Toggles } from '@/ui/controls/Toggles';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk, useLiveDesk } from '../desk/DeskContext';
import { CupRuler } from './CupRuler';
import { RescuePanel } from './RescuePanel';
import { useTint } from './useTint';
import styles from './CupsView.module.css';

const TOLERANCES = [0.05, DROP_TOLERANCE, 0.2].map((share) => ({
  value: String(share),
  label: `within ${share * 100} %`,
}));
const FIRST_CUP_GRAMS = 60;
const EXAMPLE_CUPS = '60, 60, 45';

/** The recipe in drops and grams: which cups come out right, a stock for those that do not, and a cup that went wrong. */
export function CupsView({ recipe }: { recipe: Stored<Recipe> }) {
  const { doses: even } = useTint();
  const pours = recipe.data.pours ?? [];
  const [pour, setPour] = useState(0);
  const doses = pours.length > 0 ? pourDoses(even, pours[Math.min(pour, pours.length - 1)]!) : even;
  const whichPour = pours.length > 1 && (
    <div className={styles.pour}>
      <Toggles
        label="Cups of"
        shown
        value={String(Math.min(pour, pours.length - 1))}
        choices={pours.map((_, i) => ({
          value: String(i),
          label: i === 0 ? 'the top pour' : i === pours.length - 1 ? 'the lowest' : `pour ${i + 1}`,
        }))}
        onChoose={(value) => setPour(Number(value))}
      />
    </div>
  );
  if (doses.every(({ gramsPer100 }) => gramsPer100 === 0))
    return (
      <div>
        {whichPour}
        <p className={styles.teach}>
          {pours.length > 1
            ? 'This pour is clear: there is nothing to count.'
            : `${recipe.data.name} is clear: there is nothing to count.`}
        </p>
      </div>
    );
  return (
    <div className={styles.cups}>
      {whichPour}
      <OneCup doses={doses} />
      <Stock doses={doses} pour={pour} />
      <RescuePanel doses={doses} recipeName={recipe.data.name} />
    </div>
  );
}

function OneCup({ doses }: { doses: readonly RecipeDose[] }) {
  const { desk } = useDesk();
  const { designs } = useLiveDesk();
  const { clarity, deepestMm } = useTint();
  const units = useUnits();
  const [mixGrams, setMixGrams] = useState(FIRST_CUP_GRAMS);
  const [tolerance, setTolerance] = useState(DROP_TOLERANCE);
  const sizes = cupSizes(doses, tolerance);
  const { scaleStepGrams, cupGrams, measureBy } = desk.shelf.settings.data;
  const product = setProduct(desk);
  const reader = readerOf(product, { units, scaleStepGrams, by: measureBy });
  const mixture = { recipe: tintings(doses), resinShare: stockPart(product).share, scaleStepGrams };
  const portions = colourPortionsOf(cupPortions(mixGrams, mixture, null));
  const bed = linearFromHex(designs[0]?.data.bedColour ?? '#b9a883');
  const off = dropsDeltaE(doses, mixGrams, { bed, depthMm: deepestMm, clarity });
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units);
  return (
    <section aria-label="One cup" className={styles.part}>
      <h2 className={styles.heading}>In which cups whole drops come out right</h2>
      {sizes && (
        <CupRuler
          sizes={sizes}
          mixGrams={mixGrams}
          mostGrams={Math.max(cupGrams, sizes.alwaysFromGrams * 1.15)}
          onMix={setMixGrams}
        />
      )}
      <p className={styles.small}>
        {sizes &&
          `Every cup from ${mass(sizes.alwaysFromGrams)} on. Below that only the marked sizes: between them even a larger cup misses again.`}
      </p>
      <div className={styles.pair}>
        <MeasureField
          label="A cup of"
          quantity="mass"
          value={mixGrams}
          step={5}
          validate={(grams) => (grams > 0 && grams <= 5000 ? null : 'Between 0 and 5000 g')}
          onCommit={setMixGrams}
        />
        <ChoiceField
          label="Right means"
          value={String(tolerance)}
          choices={TOLERANCES}
          onCommit={(value) => setTolerance(Number(value))}
        />
      </div>
      <Readings>
        {cupDoses(doses, mixGrams).map((dose) => {
          const portion = portions.find(({ colours }) => colours.some(({ id }) => id === dose.id));
          const drops = `${dose.drops} ${dose.drops === 1 ? 'drop' : 'drops'}`;
          return (
            <Reading
              key={dose.id}
              label={dose.name}
              digits={String(dose.drops)}
              unit={dose.drops === 1 ? 'drop' : 'drops'}
              note={
                portion === undefined || portion.way === 'drops'
                  ? `${dose.grams.toFixed(3)} g wanted, ${signed(dose.error)}`
                  : `${drops} would be ${signed(dose.error)}: ${portionWords(portion, reader).act}`
              }
              strong
            />
          );
        })}
        <Reading
          label="Seen from rounding"
          digits={off.toFixed(1)}
          unit="ΔE"
          note={`at the deepest, ${formatMeasure(deepestMm, 'length', units)}`}
          explain={() => ({
            title: 'Seen from rounding',
            formula:
              'The colour of the recipe against the colour of the whole drops in this cup, over the bed at the deepest place, by CIEDE2000.',
            inputs: [
              { label: 'Cup', value: mass(mixGrams) },
              ...cupDoses(doses, mixGrams).map(({ name, drops, grams }) => ({
                label: name,
                value: `${drops} drops for ${grams.toFixed(3)} g`,
              })),
            ],
            assumptions: ['Every drop weighs what the shelf says; weigh twenty of your own.'],
            estimate: true,
          })}
        />
      </Readings>
    </section>
  );
}

/** The product that fills the set's beds. */
const setProduct = ({ shelf, set }: DeskView): Pick<Product, 'parts' | 'density'> =>
  shelf.products.find(({ id }) => id === set.data.productId)?.data ?? { parts: null, density: 1 };

const signed = (error: number): string => `${error < 0 ? '−' : '+'}${Math.abs(error * 100).toFixed(0)} %`;

function Stock({ doses, pour }: { doses: readonly RecipeDose[]; pour: number }) {
  const { desk } = useDesk();
  const units = useUnits();
  const [cups, setCups] = useState(EXAMPLE_CUPS);
  const { name: part, share } = stockPart(setProduct(desk));
  const grams = parseMassList(cups) ?? [];
  const { scaleStepGrams } = desk.shelf.settings.data;
  const stock = stockTint(tintings(doses), grams, { scaleStepGrams, resinShare: share });
  const mass = (value: number): string => formatMeasure(value, 'mass', units);
  const shown = (value: number): string => formatOnScale(value, scaleStepGrams, units);
  return (
    <section aria-label="Stock tint" className={styles.part}>
      <h2 className={styles.heading}>A stock tint for several cups</h2>
      <p className={styles.small}>Count the drops once, then weigh: the cups of one layer come out alike.</p>
      <WordField
        label="Cups, g of mix each"
        value={cups}
        hint={cups === EXAMPLE_CUPS ? 'an example: type your own' : undefined}
        validate={(text) =>
          parseMassList(text)?.every((value) => value > 0) ? null : 'Grams with commas between: 60, 60, 45'
        }
        onCommit={setCups}
      />
      {stock ? (
        <>
          <p className={styles.act}>
            Stir <b>{stock.drops.map(({ name, drops }) => `${drops} drops of ${name}`).join(', ')}</b> into{' '}
            <b>{mass(stock.resinGrams)}</b> of {part}.
          </p>
          <ul className={styles.perCup}>
            {grams.map((mixGrams, i) => {
              const portion = fromStock(stock, mixGrams, 0, scaleStepGrams);
              return (
                <li key={i}>
                  <span>{`Cup ${i + 1}, ${mass(mixGrams)}`}</span>
                  <b>{`${shown(portion.grams)} of stock`}</b>
                  <small>{`${shown(portion.resinGrams)} of it count as ${part}`}</small>
                </li>
              );
            })}
          </ul>
          <p className={styles.small}>
            {`Whole drops hold the recipe to ${(stock.worstError * 100).toFixed(0)} %.`}{' '}
            <Link href={`/labels/${desk.set.id}/stock?${new URLSearchParams({ cups, pour: String(pour) }).toString()}`}>
              Print its label
            </Link>
          </p>
        </>
      ) : (
        <p className={styles.small}>
          {grams.length === 0
            ? 'Type the cups first.'
            : `These cups hold less ${part} than a stock would bring along; weigh the colourant, or mix them as one.`}
        </p>
      )}
    </section>
  );
}
