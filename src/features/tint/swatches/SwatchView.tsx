'use client';

import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { calibrate, type Calibration } from '@/core/tint/calibrate';
import { hexFromLinear, linearFromHex } from '@/core/tint/colour';
import type { Colourant, Swatch } from '@/core/model/recipeSchema';
import { movedBy } from '@/core/tint/moved';
import { resolveRecipe } from '@/core/records/buildRequest';
import { swatchLadder } from '@/core/tint/swatchLadder';
import type { Clarity } from '@/core/model/tintSchema';
import type { Stored } from '@/core/model/stored';
import { ColourField } from '@/ui/controls/ColourField';
import { PickList } from '@/ui/controls/PickList';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from '../../desk/DeskContext';
import { differenceWords } from '../../desk/differenceWords';
import { PhotoPick } from '../../desk/photo/PhotoPick';
import { useTint } from '../useTint';
import { Patch } from './Patch';
import { SwatchTable } from './SwatchTable';
import styles from './SwatchView.module.css';

/** Colourants and their test pours: which to make, what they came to, and what they say of the colourant. */
export function SwatchView() {
  const { desk } = useDesk();
  const { colourants } = desk.shelf;
  const [chosen, setChosen] = useState<string | null>(null);
  const colourant = colourants.find(({ id }) => id === chosen) ?? colourants[0];
  return (
    <div className={styles.view}>
      <section aria-label="Colourants">
        <h2 className={styles.heading}>Colourants</h2>
        <PickList
          label="Colourants"
          chosenId={colourant?.id ?? null}
          onChoose={setChosen}
          items={colourants.map(({ id, data }) => ({
            id,
            content: (
              <span className={styles.colourant}>
                {data.name}
                <small>{calibratedWords(data)}</small>
              </span>
            ),
          }))}
        />
        {colourants.length === 0 && <p className={styles.small}>Add a colourant on the shelf first.</p>}
      </section>
      {colourant && <Bench key={colourant.id} colourant={colourant} />}
    </div>
  );
}

const calibratedWords = ({ swatches = [], kind }: Colourant): string => {
  const used = swatches.filter(({ rejected }) => !rejected).length;
  return used > 0 ? `calibrated, ${used} ${used === 1 ? 'swatch' : 'swatches'}` : `uncalibrated: typical of ${kind}`;
};

/** What the swatches that are kept say; null where there is nothing to learn from. */
function fitOf(swatches: readonly Swatch[], clarity: Clarity): Calibration | null {
  const used = swatches.filter(({ rejected }) => !rejected);
  if (!used.some(({ gramsPer100 }) => gramsPer100 > 0)) return null;
  return calibrate(
    used.map(({ ground, seen, ...swatch }) => ({
      ...swatch,
      ground: linearFromHex(ground),
      seen: linearFromHex(seen),
    })),
    clarity,
  );
}

const FIRST_GROUND = '#f0f0ec';
const NOT_SEEN = '#ffffff';
/** A recipe has moved when the difference can be seen side by side. */
const MOVED = 1;

function Bench({ colourant }: { colourant: Stored<Colourant> }) {
  const { edits, desk } = useDesk();
  const { clarity, deepestMm } = useTint();
  const { data } = colourant;
  const [before, setBefore] = useState<Colourant | null>(null);
  const moved = useMemo(
    () =>
      before === null
        ? []
        : movedBy(
            desk.shelf.recipes.map((recipe) => ({ id: recipe.id, doses: resolveRecipe(recipe, desk.shelf).doses })),
            { ...before, id: colourant.id },
            { bed: linearFromHex(desk.designs[0]?.data.bedColour ?? '#b9a883'), depthMm: deepestMm, clarity },
          ),
    [before, desk, colourant.id, deepestMm, clarity],
  );
  const swatches = useMemo(() => data.swatches ?? [], [data.swatches]);
  const fit = useMemo(() => fitOf(swatches, clarity), [swatches, clarity]);
  const [depthMm, setDepthMm] = useState(4);
  const [next, setNext] = useState<Omit<Swatch, 'seen'>>({ gramsPer100: 0.1, depthMm: 4, ground: FIRST_GROUND });
  // Not until it is typed or picked: a colour that nobody saw would calibrate the colourant.
  const [seen, setSeen] = useState<string | null>(null);
  const ladder = swatchLadder({ ...data, id: colourant.id }, depthMm, { clarity });
  /** Writes the swatches, and what they say of the colourant with them. */
  const keep = (make: (swatches: readonly Swatch[]) => Swatch[], label: string): void => {
    setBefore(data);
    void edits.run(({ shelf }) => {
      const stored = shelf.colourants.find(({ id }) => id === colourant.id);
      if (!stored) return null;
      const now = make(stored.data.swatches ?? []);
      const learnt = fitOf(now, clarity);
      return {
        do: 'put',
        kind: 'colourant',
        id: stored.id,
        version: stored.version,
        label,
        data: {
          ...stored.data,
          swatches: now,
          ...(learnt && { absorption: learnt.absorption, ...(learnt.cloudy && { scattering: learnt.scattering }) }),
        },
      };
    }, label);
  };
  const used = swatches.flatMap((swatch, i) => (swatch.rejected ? [] : [i]));
  const residual = (i: number): number | null => fit?.residuals[used.indexOf(i)] ?? null;
  return (
    <>
      <section aria-label="Test pours" className={styles.bench}>
        <h2 className={styles.heading}>{`Test pours of ${data.name}`}</h2>
        {swatches.length === 0 ? (
          <p className={styles.small}>
            None yet. Pour the ladder on the right over white card, let it cure, and enter what each came to. Over black
            as well if it is cloudy.
          </p>
        ) : (
          <SwatchTable swatches={swatches} residual={residual} name={data.name} keep={keep} />
        )}
        {fit && (
          <p className={styles.fit} role="status">
            {`At the worst a swatch and the fit are ${differenceWords(Math.max(...fit.residuals))}.`}{' '}
            {fit.cloudy
              ? 'Its cloudiness is measured too.'
              : 'Over white only: taken as clear. One over black tells how cloudy it is.'}
          </p>
        )}
        {moved.some(({ deltaE }) => deltaE >= MOVED) && (
          <p className={styles.moved} role="status">
            {`Recipes that have moved by it, at the deepest: ${moved
              .filter(({ deltaE }) => deltaE >= MOVED)
              .map(
                ({ id, deltaE }) =>
                  `${desk.shelf.recipes.find((recipe) => recipe.id === id)?.data.name} by ΔE ${deltaE.toFixed(1)}`,
              )
              .join(', ')}. Look at them again; what is poured already keeps what it was mixed from.`}
          </p>
        )}
        <h3 className={styles.sub}>Another one</h3>
        <div className={styles.fields}>
          <MeasureField
            label="Colourant in 100 g"
            quantity="mass"
            value={next.gramsPer100}
            step={0.01}
            validate={(grams) => (grams > 0 && grams <= 20 ? null : 'More than 0, at most 20 g')}
            onCommit={(gramsPer100) => setNext({ ...next, gramsPer100 })}
          />
          <MeasureField
            label="Depth"
            quantity="length"
            value={next.depthMm}
            step={0.5}
            validate={(mm) => (mm > 0 && mm <= 60 ? null : 'More than 0, at most 60 mm')}
            onCommit={(mm) => setNext({ ...next, depthMm: mm })}
          />
          <ColourField label="Ground, dry" value={next.ground} onCommit={(ground) => setNext({ ...next, ground })} />
          <ColourField
            label="Came to"
            value={seen ?? NOT_SEEN}
            onCommit={setSeen}
            hint={seen === null ? 'not given yet' : undefined}
          />
        </div>
        <PhotoPick
          picks={[
            { value: 'ground', label: 'the bare ground' },
            { value: 'seen', label: 'the swatch' },
          ]}
          onPick={(what, hex) => (what === 'seen' ? setSeen(hex) : setNext((now) => ({ ...now, ground: hex })))}
        />
        <Button
          variant="contained"
          sx={{ justifySelf: 'start' }}
          disabled={seen === null}
          onClick={() => {
            if (seen === null) return;
            keep((now) => [...now, { ...next, seen, at: desk.now }], `Add a swatch of ${data.name}`);
            setSeen(null);
          }}
        >
          Add the swatch
        </Button>
      </section>
      <section aria-label="Ladder" className={styles.ladder}>
        <h2 className={styles.heading}>A ladder to pour</h2>
        <MeasureField
          label="How deep"
          quantity="length"
          value={depthMm}
          step={0.5}
          validate={(mm) => (mm > 0 && mm <= 60 ? null : 'More than 0, at most 60 mm')}
          onCommit={setDepthMm}
        />
        <ol>
          {ladder.rungs.map(({ gramsPer100, light }, i) => (
            <li key={gramsPer100}>
              <Patch colour={hexFromLinear(light)} />
              <span>
                <b>
                  {i === 0
                    ? `${ladder.drops} ${ladder.drops === 1 ? 'drop' : 'drops'} in ${ladder.mixGrams.toFixed(1)} g`
                    : `${ladder.halfGrams} g of the last, ${ladder.halfGrams} g of clear`}
                </b>
                <small>{`${gramsPer100.toFixed(3)} g in 100 g`}</small>
              </span>
              <Button
                variant="text"
                size="small"
                aria-label={`Enter ${gramsPer100.toFixed(3)} g in 100 g`}
                onClick={() => setNext({ ...next, gramsPer100: Number(gramsPer100.toFixed(4)), depthMm })}
              >
                Enter
              </Button>
            </li>
          ))}
        </ol>
        <p className={styles.small}>
          {`${ladder.productGrams.toFixed(0)} g of product in all, for four cavities of 5 cm². Counted once, then halved. The colours are what is expected over white card; yours will differ, that is the point.`}
        </p>
      </section>
    </>
  );
}
