'use client';

import Link from 'next/link';
import { useDeferredValue, useState } from 'react';
import { CURE_MODELS } from '@/core/cure/cureModels';
import { LIGHTS, type Light } from '@/core/tint/lamp';
import { detailsSeenTo, SEEN_FROM, type SeenFrom } from '@/core/tint/visibility';
import { hexFromLinear } from '@/core/tint/colour';
import { inTheCup } from '@/core/tint/inTheCup';
import { colourByDepth } from '@/core/tint/waterLook';
import { pouredDensity } from '@/core/mixing/ratio';
import { pourDoses, type WaterTint } from '@/core/tint/waterTint';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { Stored } from '@/core/model/stored';
import type { Recipe } from '@/core/model/recipeSchema';
import { Toggles } from '@/ui/controls/Toggles';
import { Problems } from '@/ui/mark/Problems';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { BedThumb } from '../desk/BedThumb';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import { stageOfProblem } from '../desk/stages';
import { BesideIt } from './BesideIt';
import { Doses } from './Doses';
import { RecipeList } from './RecipeList';
import { RecipeReadings } from './RecipeReadings';
import { RecipeWedge } from './RecipeWedge';
import { NotRead } from '@/ui/held/NotRead';
import { useBeside } from './useBeside';
import { useTint } from './useTint';
import { Versions } from './Versions';
import styles from './TintStage.module.css';
import { EVEN_POUR } from '@/core/model/tintSchema';

const FIRST_BED = '#b9a883';
const FROM = Object.keys(SEEN_FROM) as SeenFrom[];

/** The set's recipe: what it looks like at every depth, what is in it, and what follows. */
export function RecipeView({ recipe }: { recipe: Stored<Recipe> }) {
  const { desk, mend } = useDesk();
  const { designs } = useLiveDesk();
  const { plan } = useDeskPlan();
  const { tint, doses, deepestMm, depths } = useTint();
  const filled = useDeferredValue(true, false);
  const [bedId, setBedId] = useState<string | null>(null);
  const beside = useBeside(recipe);
  const [light, setLight] = useState<Light>('daylight');
  const [from, setFrom] = useState<SeenFrom>('across the table');
  const bed = designs.find(({ id }) => id === bedId) ?? designs[0];
  const bedColour = bed?.data.bedColour ?? FIRST_BED;
  const wedge = { bedColour, deepestMm, light, from };
  return (
    <div className={styles.stage}>
      <RecipeList current={recipe.id} bedColour={bedColour} />
      <section aria-label="Colour by depth" className={styles.picture}>
        <h2 className={styles.heading}>{recipe.data.name}, over three beds and cut open</h2>
        <RecipeWedge name={recipe.data.name} tint={tint} marks={depths} {...wedge} />
        <SeenWords tint={tint} bedColour={bedColour} from={from} />
        {beside.notRead && <NotRead what="What may be held beside it could not all be read." again={beside.notRead} />}
        {beside.chosen && <BesideIt beside={beside.chosen} tint={tint} wedge={wedge} />}
        <div className={styles.choices}>
          <Toggles
            label="Light"
            value={light}
            choices={LIGHTS.map((value) => ({ value, label: value }))}
            onChoose={setLight}
          />
          <Toggles
            label="Seen"
            value={from}
            choices={FROM.map((value) => ({ value, label: value }))}
            onChoose={setFrom}
          />
          {designs.length > 1 && (
            <div className="labelled">
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
          {beside.choices.length > 1 && (
            <div className="labelled">
              <span>Beside</span>
              <ChoiceField bare label="Beside" value={beside.value} choices={beside.choices} onCommit={beside.choose} />
            </div>
          )}
        </div>
        <div className={styles.thumbs}>
          {designs.map(({ id, data }) => (
            <figure key={id}>
              {filled && <BedThumb design={data} levelMm={desk.set.data.levelMm} tint={tint} />}
              <figcaption>{data.tag}</figcaption>
            </figure>
          ))}
        </div>
        <p className={styles.small}>
          {doses.length === 0
            ? 'Clear water: what is seen is the product’s own clarity. An estimate.'
            : doses.every(({ colourant }) => (colourant.swatches?.length ?? 0) > 0)
              ? 'Colourants are calibrated from your swatches; the colour is an estimate all the same.'
              : 'An estimate from typical figures: colourants here are not calibrated. Pour a few swatches before a batch.'}
        </p>
      </section>
      <div className={styles.doses}>
        <Doses recipe={recipe} />
        <HowPoured recipe={recipe.data} setId={desk.set.id} />
        <Versions recipe={recipe} versions={beside.versions} onBeside={(index) => beside.choose(`version ${index}`)} />
      </div>
      <section aria-label="Numbers" className={styles.numbers}>
        <h2 className={styles.heading}>What follows</h2>
        <RecipeReadings recipe={recipe.data} doses={doses} />
        <CupPatch tint={tint} bedColour={bedColour} deepestMm={deepestMm} />
        <Problems problems={plan?.problems.filter(({ code }) => stageOfProblem(code) === 'tint') ?? []} onMend={mend} />
      </section>
    </div>
  );
}

/** How deep a detail stays visible, in words. */
function SeenWords({ tint, bedColour, from }: { tint: WaterTint; bedColour: string; from: SeenFrom }) {
  const units = useUnits();
  const seen = detailsSeenTo(bedColour, tint, from);
  const words = (['light', 'mid', 'dark'] as const).map((detail) => {
    const mm = seen[detail];
    const name = detail === 'light' ? 'a pale detail' : detail === 'mid' ? 'a brown one' : 'a dark one';
    if (mm === null) return `${name} however deep`;
    return mm < 0.05 ? `${name} not at all` : `${name} to ${formatMeasure(mm, 'length', units)}`;
  });
  if (Object.values(seen).every((mm) => mm === null))
    return <p className={styles.small}>{`On this bed every detail stays visible ${from}, however deep.`}</p>;
  return (
    <p className={styles.small}>
      {`On this bed, seen ${from}: ${words.join(', ')}. Deeper than that, plants and shells are not worth placing; a white line across a bar marks where its detail is lost.`}
    </p>
  );
}

const CUP_GRAMS = 60;

/** The mix in the cup beside the water that it makes: they look little alike. */
function CupPatch({ tint, bedColour, deepestMm }: { tint: WaterTint; bedColour: string; deepestMm: number }) {
  const { desk } = useDesk();
  const units = useUnits();
  const product = desk.shelf.products.find(({ id }) => id === desk.set.data.productId)?.data;
  if (!product) return null;
  const cup = hexFromLinear(
    inTheCup({ ...tint, doses: pourDoses(tint.doses, tint.pours?.at(-1) ?? EVEN_POUR) }, product, {
      mixGrams: CUP_GRAMS,
      density: pouredDensity(product),
    }),
  );
  return (
    <div className={styles.cupPatch}>
      <span style={{ background: cup }} />
      <span style={{ background: colourByDepth(bedColour, tint)(deepestMm) }} />
      <p>
        {`In the cup${(tint.pours?.length ?? 0) > 1 ? ' of the lowest pour' : ''}, ${formatMeasure(CUP_GRAMS, 'mass', units)} just stirred`}
        {CURE_MODELS[product.cureModel].wet && ', still milky'}
        <br />
        cured, over the bed at the deepest
      </p>
    </div>
  );
}

/** Whether the recipe is the same all through, and the way to where that is changed. */
function HowPoured({ recipe: { pours = [] }, setId }: { recipe: Recipe; setId: string }) {
  return (
    <p className={styles.small}>
      {pours.length > 1 ? `Poured in ${pours.length}, each tinted in its own way. ` : 'Poured the same all through. '}
      <Link href={`/sets/${setId}/tint?show=pours`}>Pour by pour</Link>
    </p>
  );
}
