'use client';

import { shortTime } from '@/core/time/dayNames';
import type { WallTime } from '@/core/time/wallTime';
import { setRecipe } from '@/core/records/buildRequest';
import type { WaterSet } from '@/core/records/recordSchemas';
import type { Shelf } from '@/core/records/views';
import { fromStock } from '@/core/pouring/portions';
import { stockPart, stockTint, tintings } from '@/core/pouring/stockTint';
import { pourDoses } from '@/core/tint/waterTint';
import { formatMeasure, formatOnScale } from '@/core/units/formatMeasure';
import { parseMassList } from '@/core/units/parseMassList';
import { PrintFrame } from '@/ui/print/PrintFrame';
import styles from './StockLabel.module.css';
import { EVEN_POUR } from '@/core/model/tintSchema';
import type { Stored } from '@/core/model/stored';

interface StockLabelProps {
  set: Stored<WaterSet>;
  shelf: Shelf;
  printedAt: WallTime;
  /** The cups that the stock is for, as they were typed; and which pour of the recipe, from the top. */
  cups: string;
  pour: number;
}

/** What goes on the cup of a stock tint: what is in it, what each cup takes of it, and that it counts as part of the resin. */
export function StockLabel({ set, shelf, printedAt, cups, pour }: StockLabelProps) {
  const { units, scaleStepGrams } = shelf.settings.data;
  const recipe = setRecipe({ set, shelf });
  const doses = pourDoses(recipe.doses, recipe.pours?.[pour] ?? EVEN_POUR);
  const product = shelf.products.find(({ id }) => id === set.data.productId)?.data;
  const part = stockPart(product ?? { parts: null });
  const mixes = parseMassList(cups) ?? [];
  const stock = stockTint(tintings(doses), mixes, { scaleStepGrams, resinShare: part.share });
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units);
  const shown = (grams: number): string => formatOnScale(grams, scaleStepGrams, units);
  return (
    <PrintFrame label="Label" back={`/sets/${set.id}/tint?show=cups`} backTo="Back to cups and drops">
      {() => (
        <main className={styles.sheet}>
          {stock ? (
            <section className={styles.label} aria-label="Stock tint">
              <h1>{recipe.name}</h1>
              <p className={styles.of}>
                Stock tint{recipe.pours && recipe.pours.length > 1 && `, pour ${pour + 1} from the top`} ·{' '}
                {set.data.name} · made {shortTime(printedAt)}
              </p>
              <p className={styles.in}>
                {stock.drops.map(({ id, name, drops }) => (
                  <span key={id}>
                    <b>{drops}</b> drops {name}
                  </span>
                ))}
                <span>
                  in <b>{mass(stock.resinGrams)}</b> of {part.name}
                  {product && `, ${product.name.toLowerCase()}`}
                </span>
              </p>
              <ul>
                {mixes.map((mixGrams, i) => {
                  const { grams, resinGrams } = fromStock(stock, mixGrams, 0, scaleStepGrams);
                  return (
                    <li key={i}>
                      <b>{shown(grams)}</b> to {mass(mixGrams)} of mix
                      {part.share < 1 && `, ${shown(resinGrams)} of it as part A`}
                    </li>
                  );
                })}
              </ul>
              <p className={styles.caution}>
                Not hardened{product?.parts ? ': no part B in it' : ''}. Gloves; keep it closed, away from children.
                Label and safety data sheet of the product come first.
              </p>
            </section>
          ) : (
            <p>These cups make no stock tint. Go back and type the cups again.</p>
          )}
        </main>
      )}
    </PrintFrame>
  );
}
