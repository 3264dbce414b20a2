'use client';

import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { hexFromLinear, linearFromHex } from '@/core/tint/colour';
import type { FoundRecipe, Findings, AnswerKind } from '@/core/tint/finder';
import { NAMED_WATERS } from '@/core/tint/namedWaters';
import { WET, waterLook } from '@/core/tint/waterLook';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ColourField } from '@/ui/controls/ColourField';
import { PickList } from '@/ui/controls/PickList';
import { Held } from '@/ui/held/Held';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { findInWorker } from '@/workers/tinting';
import { useDesk, useLiveDesk } from '../desk/DeskContext';
import { PhotoPick } from '../desk/photo/PhotoPick';
import { differenceWords } from '../desk/differenceWords';
import { useTint } from './useTint';
import styles from './FindView.module.css';

const lane = Symbol('finder');
/** Not a bed: a coat over cured water. */
const COAT = 'water that is there';
const KIND_WORDS: Record<AnswerKind, string> = {
  nearest: 'nearest',
  fewest: 'fewest colourants',
  clearest: 'shows the bed deepest',
};

/** A recipe for a colour: picked, typed, out of a photo, or a water in words. */
export function FindView() {
  const { desk } = useDesk();
  const { designs } = useLiveDesk();
  const { clarity, deepestMm } = useTint();
  const [target, setTarget] = useState(NAMED_WATERS[0]!.colour);
  const [depth, setDepth] = useState<number | null>(null);
  const [bedId, setBedId] = useState<string | null>(null);
  const bed = designs.find(({ id }) => id === bedId) ?? designs[0];
  const [there, setThere] = useState('#8a9a6a');
  const coat = bedId === COAT;
  const bedColour = coat ? there : (bed?.data.bedColour ?? '#b9a883');
  const depthMm = depth ?? Math.round(deepestMm * 10) / 10;
  const { colourants } = desk.shelf;
  const { cupGrams } = desk.shelf.settings.data;
  const ask = useMemo(
    () => ({
      target: linearFromHex(target),
      bed: linearFromHex(bedColour),
      depthMm,
      clarity,
      dryBed: coat,
      cupGrams,
      colourants: colourants.map(({ id, data }) => ({ ...data, id })),
    }),
    [target, bedColour, depthMm, clarity, coat, cupGrams, colourants],
  );
  const [found, setFound] = useState<{ ask: typeof ask; findings: Findings } | null>(null);
  useEffect(() => {
    void findInWorker(lane, ask).then((findings) => findings && setFound({ ask, findings }));
  }, [ask]);
  const findings = found?.findings ?? null;
  return (
    <div className={styles.find}>
      <section aria-label="Waters" className={styles.waters}>
        <h2 className={styles.heading}>Waters, in words</h2>
        <PickList
          label="Waters"
          chosenId={NAMED_WATERS.find(({ colour }) => colour === target)?.name ?? null}
          onChoose={(name) => setTarget(NAMED_WATERS.find((water) => water.name === name)!.colour)}
          items={NAMED_WATERS.map(({ name, words, colour }) => ({
            id: name,
            content: (
              <span className={styles.water}>
                <span className={styles.drop} style={{ background: colour }} />
                <span>
                  {name}
                  <small>{words}</small>
                </span>
              </span>
            ),
          }))}
        />
      </section>
      <section aria-label="Wanted" className={styles.wanted}>
        <h2 className={styles.heading}>The colour that is wanted</h2>
        <div className={styles.fields}>
          <ColourField label="Colour" value={target} onCommit={setTarget} />
          <MeasureField
            label="At a depth of"
            quantity="length"
            value={depthMm}
            step={0.5}
            validate={(mm) => (mm > 0 && mm <= 60 ? null : 'Between 0 and 60 mm')}
            onCommit={setDepth}
          />
          <ChoiceField
            label="Over"
            value={coat ? COAT : (bed?.id ?? '')}
            choices={[
              ...designs.map(({ id, data }) => ({ value: id, label: `the bed of ${data.tag} ${data.name}` })),
              { value: COAT, label: 'water that is there already' },
            ]}
            onCommit={setBedId}
          />
          {coat && (
            <ColourField
              label="What is there looks"
              value={there}
              onCommit={setThere}
              hint="A tinted coat over cured water; the depth is that of the coat"
            />
          )}
          <PhotoPick
            picks={[
              { value: 'water', label: 'the water' },
              ...(coat ? [{ value: 'there', label: 'what is there' }] : []),
            ]}
            onPick={(what, hex) => (what === 'there' ? setThere(hex) : setTarget(hex))}
          />
        </div>
      </section>
      <section aria-label="Answers" className={styles.answers} aria-busy={found?.ask !== ask}>
        <h2 className={styles.heading}>What your colourants can do</h2>
        {!findings && <Held label="Trying the colourants" />}
        {findings?.brighterThanBed && (
          <p className={styles.told} role="status">
            This is brighter than the bed itself under clear water. Tint only takes light away: paint the bed paler, or
            take something cloudy. The nearest possible is below.
          </p>
        )}
        {findings && findings.answers.length === 0 && (
          <p className={styles.told}>There is no colourant on the shelf to try.</p>
        )}
        {findings && (
          <ul className={styles.list}>
            {findings.answers.map(({ kinds, recipe }) => (
              <Answer
                key={kinds.join()}
                words={kinds.map((kind) => KIND_WORDS[kind]).join(', ')}
                recipe={recipe}
                target={target}
                bedColour={bedColour}
                depthMm={found!.ask.depthMm}
              />
            ))}
            <li className={styles.answer}>
              <Pair target={target} made={hexFromLinear(findings.clear.light)} />
              <div>
                <h3>Clear water, for comparison</h3>
                <p>{differenceWords(findings.clear.deltaE)}</p>
              </div>
            </li>
          </ul>
        )}
        <p className={styles.small}>
          {`Estimates${colourants.some(({ data }) => !data.swatches?.length) ? ' from typical figures: calibrate the colourants under Swatches' : ''}. ${coat ? '' : `A bed counts as wet (${Math.round((1 - WET) * 100)} % darker than dry).`}`}
        </p>
      </section>
    </div>
  );
}

/** What was wanted beside what comes of it, edge to edge. */
const Pair = ({ target, made }: { target: string; made: string }) => (
  <span className={styles.pair} aria-hidden>
    <span style={{ background: target }} />
    <span style={{ background: made }} />
  </span>
);

interface AnswerProps {
  words: string;
  recipe: FoundRecipe;
  target: string;
  bedColour: string;
  depthMm: number;
}

function Answer({ words, recipe, target, bedColour, depthMm }: AnswerProps) {
  const { desk, edits, changeSet } = useDesk();
  const { clarity, recipe: own } = useTint();
  const units = useUnits();
  const doses = recipe.doses.filter(({ gramsPer100 }) => gramsPer100 >= 0.0005);
  const look = waterLook({ bedColour }, { clarity, doses }, depthMm, 6);
  const rounded = doses.map(({ colourant, gramsPer100 }) => ({
    colourantId: colourant.id,
    gramsPer100: Number(gramsPer100.toFixed(3)),
  }));
  const water = NAMED_WATERS.find(({ colour }) => colour === target);
  const make = async (): Promise<void> => {
    const name = water?.name ?? 'Found recipe';
    const outcome = await edits.run(
      () => ({ do: 'add', kind: 'recipe', data: { name, doses: rounded }, label: `Add the recipe ${name}` }),
      `Added ${name}`,
    );
    if (outcome.ok && outcome.id) {
      const { id } = outcome;
      changeSet((set) => ({ ...set, recipeId: id }), `Choose ${name}`);
    }
  };
  const replace = (): void => {
    if (!own) return;
    void edits.run(({ shelf }) => {
      const stored = shelf.recipes.find(({ id }) => id === own.id);
      return stored
        ? {
            do: 'put',
            kind: 'recipe',
            id: own.id,
            version: stored.version,
            data: { ...stored.data, doses: rounded },
            label: `Change the doses of ${stored.data.name}`,
          }
        : null;
    }, `Changed ${own.data.name}`);
  };
  return (
    <li className={styles.answer}>
      <Pair target={target} made={hexFromLinear(recipe.light)} />
      <div className={styles.body}>
        <h3>{words}</h3>
        <p>{differenceWords(recipe.deltaE)}</p>
        <span
          className={styles.depth}
          style={{ background: `linear-gradient(90deg, ${look.colours.join(', ')})` }}
          role="img"
          aria-label={`From the shore to ${formatMeasure(depthMm, 'length', units)}`}
        />
        <ul className={styles.doses}>
          {doses.map(({ colourant, gramsPer100 }) => (
            <li key={colourant.id}>
              <b>{`${gramsPer100.toFixed(3)} g`}</b>
              {` ${colourant.name}`}
              <small>{`one drop for ${((100 * colourant.dropGrams) / gramsPer100).toFixed(0)} g of mix`}</small>
            </li>
          ))}
        </ul>
        <p className={styles.small}>
          in 100 g of product;{' '}
          {recipe.seenToMm === null
            ? 'a pale detail stays visible however deep'
            : `a pale detail is seen to ${formatMeasure(recipe.seenToMm, 'length', units)} at arm’s length, and so ${recipe.seenToMm < depthMm ? 'lost' : 'still seen'} at ${formatMeasure(depthMm, 'length', units)}`}
        </p>
        <div className={styles.acts}>
          <Button variant="contained" size="small" onClick={() => void make()}>
            Make it a recipe of this set
          </Button>
          {own && desk.shelf.recipes.length > 0 && (
            <Button size="small" variant="text" onClick={replace}>
              {`Put it into ${own.data.name}`}
            </Button>
          )}
        </div>
      </div>
    </li>
  );
}
