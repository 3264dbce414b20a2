'use client';

import { CURE_MODELS } from '@/core/cure/cureModels';
import { useState } from 'react';
import { mayBeThinned, MOST_THINNER, MOST_WARM_C, STIFF_BELOW_C, thinned, warmed } from '@/core/mixing/benchRules';
import { productsOf, type PlanRequest } from '@/core/plan';
import { formatMeasure, formatMinutes } from '@/core/units/formatMeasure';
import { Fold } from '@/ui/controls/Fold';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import styles from './PourStage.module.css';

type Product = PlanRequest['product'];
const FIRST_BOTTLE_C = 25;
const FIRST_SHARE = 0.1;
/** The cup that figures are given for where a batch has none. */
const CUP_GRAMS = 60;

/** Warming, thinning and what becomes of leftovers: rules of the bench, each with its figure and its caution. */
export function BenchRules({ request, cupGrams = CUP_GRAMS }: { request: PlanRequest; cupGrams?: number | undefined }) {
  const cold = request.room.temperatureC < STIFF_BELOW_C;
  return (
    <Fold summary="Warm bottles, thinning, leftovers" open={cold}>
      {productsOf(request).map((product) => (
        <section key={product.id} aria-label={`Rules for ${product.name}`} className={styles.rules}>
          <h4>{product.name}</h4>
          <Warm product={product} roomC={request.room.temperatureC} cupGrams={cupGrams} />
          {mayBeThinned(product) && <Thin product={product} glueGrams={cupGrams} />}
          <ul>
            {CURE_MODELS[product.cureModel].leftovers.map((rule) => (
              <li key={rule}>{rule}</li>
            ))}
          </ul>
        </section>
      ))}
    </Fold>
  );
}

function Warm({ product, roomC, cupGrams }: { product: Product; roomC: number; cupGrams: number }) {
  const units = useUnits();
  const [bottleC, setBottleC] = useState(Math.max(FIRST_BOTTLE_C, roomC));
  const warm = warmed(product, roomC, bottleC, cupGrams);
  const celsius = (value: number): string => formatMeasure(value, 'temperature', units);
  if (!warm) return null;
  return (
    <div className={styles.rule}>
      <MeasureField
        label="Bottles warmed to"
        quantity="temperature"
        value={bottleC}
        validate={(value) =>
          value >= 5 && value <= MOST_WARM_C ? null : `Between ${celsius(5)} and ${celsius(MOST_WARM_C)}`
        }
        onCommit={setBottleC}
      />
      <p>
        {roomC < STIFF_BELOW_C &&
          `At ${celsius(roomC)} it is stiff and holds its bubbles: stand the closed bottles in warm water first. `}
        A cup of {formatMeasure(cupGrams, 'mass', units)} sets in <b>{formatMinutes(warm.potLifeMinutes)}</b>,{' '}
        {formatMinutes(warm.roomPotLifeMinutes)} at the room’s {celsius(roomC)}. An estimate. Closed bottles, water no
        hotter than {celsius(MOST_WARM_C)}, never a flame, an oven or a microwave.
      </p>
    </div>
  );
}

function Thin({ product, glueGrams }: { product: Product; glueGrams: number }) {
  const units = useUnits();
  const [share, setShare] = useState(FIRST_SHARE);
  const thin = thinned(product, glueGrams, share);
  return (
    <div className={styles.rule}>
      <MeasureField
        label="Alcohol for each gram of glue"
        quantity="fraction"
        value={share}
        step={0.05}
        validate={(value) =>
          value >= 0 && value <= MOST_THINNER ? null : `At most ${MOST_THINNER * 100} %: beyond that it stays soft`
        }
        onCommit={setShare}
      />
      {thin && (
        <p>
          <b>{formatMeasure(thin.alcoholGrams, 'mass', units)}</b> into {formatMeasure(glueGrams, 'mass', units)} of
          glue: it sets in about {formatMinutes(thin.potLifeMinutes)}
          {thin.soft && ' and stays softer'}; {Math.round(thin.shrinkage * 100)} % of the volume goes as it dries, so
          pour that much more. An estimate: try a spoonful. Alcohol burns: no flame, open windows, and mind its own
          label.
        </p>
      )}
    </div>
  );
}
