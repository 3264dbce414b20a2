'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { FIGURE_MARKS, MOST_OTHER_PACKS, type Product, setsInTheCup } from '@/core/model/productSchema';
import { replaceAt } from '@/core/records/replaceAt';
import { stirMinutesOf } from '@/core/mixing/potLife';
import { mixedDensity, ratioByVolume, ratioByWeight } from '@/core/mixing/ratio';
import type { Stored } from '@/core/model/stored';
import { formatMeasure, formatMinutes } from '@/core/units/formatMeasure';
import type { Quantity } from '@/core/units/quantities';
import { CLARITIES } from '@/core/model/tintSchema';
import { MenuButton } from '@/ui/controls/MenuButton';
import { PickList } from '@/ui/controls/PickList';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { ProductLine } from '@/ui/timeline/ProductLine';
import { fieldEdits, type ShelfDoor } from './shelfEdits';
import styles from './ShelfScreen.module.css';

/** Products: a list with what matters most, and every figure of the one that is open. */
export function ProductShelf({ edits, chosen }: { edits: ShelfDoor; chosen: string | null }) {
  const { products, missingKinds } = edits.view;
  const [openId, setOpenId] = useState(chosen ?? products[0]?.id ?? null);
  const open = products.find(({ id }) => id === openId) ?? products[0];
  const show = (id: string): void => {
    setOpenId(id);
    focusSoon(() => document.querySelector<HTMLElement>(`[data-id="${id}"]`));
  };
  const add = async (kind: Product): Promise<void> => {
    const outcome = await edits.run(() => ({
      do: 'add',
      kind: 'product',
      data: { ...kind, name: `${kind.name}, mine` },
      label: `Add ${kind.name.toLowerCase()}`,
    }));
    if (outcome.ok && outcome.id) show(outcome.id);
  };
  const stock = async (productIds: string[]): Promise<void> => {
    const outcome = await edits.run(() => ({ do: 'stock', productIds }), 'Put on the shelf');
    if (outcome.ok) show(productIds[0]!);
  };
  return (
    <section aria-label="Products" id="products" className={styles.products}>
      <div>
        <h2 className={styles.heading}>Products</h2>
        <PickList
          label="Products"
          chosenId={open?.id ?? null}
          onChoose={setOpenId}
          items={products.map(({ id, data }) => ({
            id,
            content: (
              <span>
                <span className={styles.itemName}>{data.name}</span>
                <span className={styles.itemFacts}>{factsOf(data)}</span>
              </span>
            ),
          }))}
        />
        <div className={styles.add}>
          <MenuButton
            label="Add one like"
            choices={PRODUCT_KINDS.map(({ id, ...kind }) => ({
              key: id,
              label: kind.name,
              onPick: () => void add(kind),
            }))}
          />
          {missingKinds.length > 0 && (
            <MenuButton
              label={`Put on the shelf, ${missingKinds.length}`}
              name="Put kinds on the shelf that are not there yet"
              choices={[
                ...missingKinds.map(({ id, name }) => ({ key: id, label: name, onPick: () => void stock([id]) })),
                ...(missingKinds.length > 1
                  ? [{ key: 'all', label: 'All of them', onPick: () => void stock(missingKinds.map(({ id }) => id)) }]
                  : []),
              ]}
            />
          )}
        </div>
      </div>
      {open && <ProductFigures key={open.id} edits={edits} product={open} />}
    </section>
  );
}

const MARKS = [
  { value: 'typical', label: 'typical' },
  ...FIGURE_MARKS.map((mark) => ({ value: mark, label: mark })),
] as const;
const key = (path: readonly string[]): string => path.join('.');

const factsOf = (product: Product): string =>
  [
    product.parts ? `${product.parts.ratioA}:${product.parts.ratioB} by ${product.parts.ratioBy}` : 'one part',
    `layers to ${formatMeasure(product.greatestLayerMm, 'length')}`,
    setsInTheCup(product.cureModel) ? `pot life ${formatMinutes(product.potLifeMinutes)}` : '',
  ]
    .filter(Boolean)
    .join(' · ');

function ProductFigures({ edits, product }: { edits: ShelfDoor; product: Stored<Product> }) {
  const units = useUnits();
  const { data } = product;
  const { put, putAll, validate } = fieldEdits(edits, 'product', product, data.name);
  const remove = (): void => {
    void edits.run(({ products }) => removal(products, product.id), `Removed ${data.name}`);
    focusSoon(() => controlIn(document.querySelector('[aria-label="Products"]')));
  };
  const field = (
    label: string,
    path: readonly string[],
    value: number,
    quantity: Quantity,
    step: number,
  ): React.ReactNode => (
    <div className={styles.figure}>
      <MeasureField
        label={label}
        quantity={quantity}
        value={value}
        step={step}
        validate={validate(path)}
        // A figure that the maker types is the label's until it is said to be measured.
        onCommit={(next) =>
          putAll((now) => {
            const changed = replaceAt(now, path, next);
            return { ...changed, marks: { ...changed.marks, [key(path)]: changed.marks?.[key(path)] ?? 'label' } };
          })
        }
      />
      <ChoiceField
        bare
        label={`${label} comes from`}
        value={data.marks?.[key(path)] ?? 'typical'}
        choices={MARKS}
        onCommit={(mark) =>
          putAll(({ marks = {}, ...now }) => {
            const { [key(path)]: _, ...others } = marks;
            return { ...now, marks: mark === 'typical' ? others : { ...others, [key(path)]: mark } };
          })
        }
      />
    </div>
  );
  const packs = data.otherPacks ?? [];
  return (
    <div className={styles.figures}>
      <h2 className={styles.heading}>{data.name}</h2>
      <ProductLine product={data} room={edits.view.settings.data.room} />
      <p className={styles.typical}>
        Typical figures for the kind until you put your label’s in their place, or what you measured at the bench; each
        says which it is. The line shows them for the room as it is now. The label and the safety data sheet come first.
      </p>
      <div className={styles.fields}>
        <div className={styles.wide}>
          <WordField
            label="Name"
            value={data.name}
            validate={validate(['name'])}
            onCommit={(value) => put(['name'], value)}
          />
        </div>
        {data.parts && (
          <>
            {field('Parts of A', ['parts', 'ratioA'], data.parts.ratioA, 'number', 0.1)}
            {field('to parts of B', ['parts', 'ratioB'], data.parts.ratioB, 'number', 0.1)}
            <ChoiceField
              label="Label’s ratio is by"
              value={data.parts.ratioBy}
              choices={[
                { value: 'weight', label: 'weight' },
                { value: 'volume', label: 'volume' },
              ]}
              onCommit={(value) => put(['parts', 'ratioBy'], value)}
            />
            {field('Density of A, g/ml', ['parts', 'densityA'], data.parts.densityA, 'number', 0.01)}
            {field('Density of B, g/ml', ['parts', 'densityB'], data.parts.densityB, 'number', 0.01)}
            <p className={styles.derived}>
              {ratioByWeight(data.parts).toFixed(2)} : 1 by weight, {ratioByVolume(data.parts).toFixed(2)} : 1 by
              volume; the mix weighs {mixedDensity(data.parts).toFixed(3)} g/ml
            </p>
          </>
        )}
        {!data.parts && field('Density, g/ml', ['density'], data.density, 'number', 0.01)}
        {field('Greatest layer, wet', ['greatestLayerMm'], data.greatestLayerMm, 'length', 0.5)}
        <ChoiceField
          label="Cures"
          value={data.clarity ?? 'water-clear'}
          choices={CLARITIES.map((clarity) => ({ value: clarity, label: clarity }))}
          onCommit={(value) => put(['clarity'], value)}
        />
        {field('Shrinkage', ['shrinkage'], data.shrinkage, 'fraction', 0.005)}
        {field('Pot life', ['potLifeMinutes'], data.potLifeMinutes, 'duration', 1)}
        {setsInTheCup(data.cureModel) && field('Stirring', ['stirMinutes'], stirMinutesOf(data), 'duration', 0.5)}
        {field('Recoat window opens', ['recoatOpensMinutes'], data.recoatOpensMinutes, 'duration', 30)}
        {data.recoatClosesMinutes !== null &&
          field('Recoat window closes', ['recoatClosesMinutes'], data.recoatClosesMinutes, 'duration', 30)}
        {field('Demould', ['demouldMinutes'], data.demouldMinutes, 'duration', 60)}
        {field('Full cure', ['fullCureMinutes'], data.fullCureMinutes, 'duration', 60)}
        {field('Times hold at', ['referenceC'], data.referenceC, 'temperature', 1)}
        {field('Pouring, g a minute', ['pourGramsPerMinute'], data.pourGramsPerMinute, 'number', 5)}
        {field('Keeps once open, months', ['shelfLifeMonths'], data.shelfLifeMonths, 'number', 1)}
        {data.mostLayers !== null && field('Layers that stay clear', ['mostLayers'], data.mostLayers, 'number', 1)}
        {field('A pack holds', ['packGrams'], data.packGrams, 'mass', 50)}
        {field(`A pack costs, ${units.currency}`, ['packPrice'], data.packPrice, 'number', 1)}
        {packs.map((pack, i) => (
          <div key={i} className={`${styles.wide} ${styles.pack}`}>
            <MeasureField
              label={`Also sold, pack ${i + 2} holds`}
              quantity="mass"
              value={pack.amount}
              step={50}
              validate={validate(['otherPacks', i, 'amount'])}
              onCommit={(amount) => put(['otherPacks', i, 'amount'], amount)}
            />
            <MeasureField
              label={`Pack ${i + 2} costs, ${units.currency}`}
              quantity="number"
              value={pack.price}
              step={1}
              validate={validate(['otherPacks', i, 'price'])}
              onCommit={(price) => put(['otherPacks', i, 'price'], price)}
            />
            <Button
              variant="text"
              size="small"
              aria-label={`Leave out pack ${i + 2}`}
              onClick={() =>
                put(
                  ['otherPacks'],
                  packs.filter((_, k) => k !== i),
                )
              }
            >
              Leave out
            </Button>
          </div>
        ))}
        {packs.length < MOST_OTHER_PACKS && (
          <div className={styles.wide}>
            <Button
              size="small"
              variant="text"
              onClick={() =>
                put(['otherPacks'], [...packs, { amount: data.packGrams * 2, price: Math.round(data.packPrice * 1.8) }])
              }
            >
              Add another pack size
            </Button>
          </div>
        )}
      </div>
      <Button variant="text" size="small" onClick={remove}>
        Remove {data.name}
      </Button>
    </div>
  );
}

function removal(
  products: readonly Stored<Product>[],
  id: string,
): { do: 'remove'; kind: 'product'; id: string; version: number } | null {
  const stored = products.find((product) => product.id === id);
  return stored ? { do: 'remove', kind: 'product', id, version: stored.version } : null;
}
