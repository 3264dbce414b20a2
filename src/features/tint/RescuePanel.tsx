'use client';

import { useState } from 'react';
import { linearFromHex } from '@/core/tint/colour';
import { rescueCup, type Rescue } from '@/core/tint/rescue';
import type { RecipeDose } from '@/core/tint/doses';
import { formatMeasure, formatMoney } from '@/core/units/formatMeasure';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useDesk, useLiveDesk } from '../desk/DeskContext';
import { differenceWords } from '../desk/differenceWords';
import { useTint } from './useTint';
import styles from './CupsView.module.css';

const FIRST = { mixGrams: 40, minutesGone: 3 };

/** A cup that came out too dark or too pale: what brings it to the recipe, and whether a new one is cheaper. */
export function RescuePanel({ doses, recipeName }: { doses: readonly RecipeDose[]; recipeName: string }) {
  const { desk } = useDesk();
  const { designs } = useLiveDesk();
  const { deepestMm } = useTint();
  const units = useUnits();
  const [mixGrams, setMixGrams] = useState(FIRST.mixGrams);
  const [minutesGone, setMinutesGone] = useState(FIRST.minutesGone);
  const [drops, setDrops] = useState<Record<string, number>>({});
  // The fields begin with what the recipe would take: no cup that went wrong until one of them is changed.
  const told = Object.keys(drops).length > 0;
  const { settings, products } = desk.shelf;
  const product = products.find(({ id }) => id === desk.set.data.productId)?.data;
  if (!product) return null;
  const inCup = doses.map(({ colourant, gramsPer100 }) => ({
    colourant,
    drops: drops[colourant.id] ?? Math.max(1, Math.round((gramsPer100 * mixGrams) / 100 / colourant.dropGrams)),
  }));
  const rescue = rescueCup({
    cup: {
      mixGrams,
      colourants: inCup.map(({ colourant, drops: count }) => ({ colourant, grams: count * colourant.dropGrams })),
    },
    recipe: doses,
    product,
    minutesGone,
    depthMm: deepestMm,
    roomC: settings.data.room.temperatureC,
    cupHoldsGrams: settings.data.cupGrams,
    bed: linearFromHex(designs[0]?.data.bedColour ?? '#b9a883'),
  });
  return (
    <section aria-label="A cup that went wrong" className={styles.part}>
      <h2 className={styles.heading}>A cup that went wrong</h2>
      <div className={styles.pair}>
        <MeasureField
          label="Mix in it"
          quantity="mass"
          value={mixGrams}
          step={5}
          validate={(grams) => (grams > 0 && grams <= 5000 ? null : 'Between 0 and 5000 g')}
          onCommit={setMixGrams}
        />
        <MeasureField
          label="Minutes since mixed"
          quantity="number"
          value={minutesGone}
          step={1}
          validate={(minutes) => (minutes >= 0 ? null : 'Cannot be negative')}
          onCommit={setMinutesGone}
        />
        {inCup.map(({ colourant, drops: count }) => (
          <MeasureField
            key={colourant.id}
            label={`Drops of ${colourant.name}`}
            quantity="number"
            value={count}
            step={1}
            validate={(value) => (value >= 0 && value <= 1000 ? null : 'Between 0 and 1000 drops')}
            onCommit={(value) => setDrops({ ...drops, [colourant.id]: value })}
          />
        ))}
      </div>
      {!told && (
        <p className={styles.small}>
          Type how much mix is in the cup, and the drops that went in; what brings it back stands here then.
        </p>
      )}
      {told && <Advice rescue={rescue} recipeName={recipeName} />}
      {told && (
        <p className={styles.small}>
          {rescue.clearGrams > 0
            ? `The clear mix costs ${formatMoney(rescue.clearCost, units)}; a new cup ${formatMoney(rescue.newCupCost, units)}, and this one is thrown away. It then holds ${formatMeasure(rescue.mixGrams, 'mass', units)}: use them, or the clear mix is lost too.`
            : `A new cup costs ${formatMoney(rescue.newCupCost, units)}.`}{' '}
          {product.parts &&
            rescue.stops !== 'no time' &&
            `About ${Math.floor(rescue.minutesLeft)} min of pot life are left then.`}
        </p>
      )}
    </section>
  );
}

function Advice({ rescue, recipeName }: { rescue: Rescue; recipeName: string }) {
  const units = useUnits();
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units);
  const { clearGrams, clearParts, add, deltaENow, stops } = rescue;
  if (clearGrams < 0.05 && add.length === 0)
    return <p className={styles.act} role="status">{`It is ${recipeName}: ${differenceWords(deltaENow)}.`}</p>;
  const cheaper = rescue.newCupCost < rescue.clearCost;
  return (
    <div role="status">
      <p className={styles.act}>
        {clearGrams >= 0.05 && (
          <>
            Add <b>{mass(clearGrams)}</b> of clear mix
            {clearParts && ` (${mass(clearParts.partAGrams)} of A, ${mass(clearParts.partBGrams)} of B)`}
            {add.length > 0 ? ', then ' : '.'}
          </>
        )}
        {add.length > 0 && (
          <>
            {clearGrams < 0.05 && 'Add '}
            <b>
              {add
                .map(({ name, drops, grams }) =>
                  drops > 0
                    ? `${drops} ${drops === 1 ? 'drop' : 'drops'} of ${name}`
                    : `${grams.toFixed(3)} g of ${name}`,
                )
                .join(', ')}
            </b>
            .
          </>
        )}
      </p>
      <p className={styles.small}>{`As it stands: ${differenceWords(deltaENow)} from ${recipeName}.`}</p>
      {stops === 'no time' && (
        <p className={styles.stop}>It sets before that is done. Pour it elsewhere or let it go; mix anew.</p>
      )}
      {stops === 'cup too small' && (
        <p className={styles.stop}>Your cup does not hold that much: a new cup is the better way.</p>
      )}
      {!stops && cheaper && clearGrams > 0 && (
        <p className={styles.stop}>A new cup is cheaper than that much clear mix.</p>
      )}
    </div>
  );
}
