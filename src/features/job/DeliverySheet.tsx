'use client';

import { unpackStrip, type PackedStrip } from '@/core/picture/packedStrip';
import { careOf } from '@/core/records/care';
import { notApproved, type DeliveredDesign, type JobView } from '@/core/records/job';
import type { PieceDesign } from '@/core/model/designSchema';
import { copyName } from '@/core/model/pieceRef';
import { photoAddress } from '@/core/records/photos';
import type { Stored } from '@/core/model/stored';
import { dayWithYear } from '@/core/time/dayNames';
import { formatMeasure } from '@/core/units/formatMeasure';
import { UnitsProvider } from '@/ui/measure/UnitsContext';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { WaterlineStrip } from '@/ui/waterline/WaterlineStrip';
import styles from './JobScreen.module.css';

interface DeliverySheetProps {
  view: JobView;
  designs: readonly DeliveredDesign[];
  drawn: readonly Stored<PieceDesign>[];
  strip: PackedStrip;
}

/** What goes along with the pieces: which and how many, what they weigh, how to keep them, what is still to be approved. */
export function DeliverySheet({ view, designs, drawn, strip }: DeliverySheetProps) {
  const { settings, set, products, now } = view;
  const { name, levelMm, job, productId, build } = set.data;
  const { units } = settings.data;
  const used = [productId, ...(build?.coats ?? []).map((coat) => coat.productId)];
  const models = products.flatMap(({ id, data }) => (used.includes(id) ? [data.cureModel] : []));
  const weight = designs.reduce((sum, { copies, weightGrams }) => sum + copies * weightGrams, 0);
  const photographed = designs.flatMap(({ tag, photo }) => (photo ? [{ tag, ...photo }] : []));
  const waiting = notApproved(job);
  const mass = (grams: number): string =>
    units.mass === 'g' && grams >= 1000 ? `${(grams / 1000).toFixed(2)} kg` : formatMeasure(grams, 'mass', units, 0);
  return (
    <UnitsProvider units={units}>
      <PrintFrame label="Delivery sheet" back={`/job/${set.id}`} backTo="Back to the job">
        {() => (
          <main className={styles.sheet}>
            <h1>{name}</h1>
            <p>{[job?.customer, dayWithYear(now.slice(0, 10))].filter(Boolean).join(', ')}</p>
            {waiting.length > 0 && <p className={styles.isOver}>{`Not approved yet: ${waiting.join('; ')}.`}</p>}
            <WaterlineStrip
              label="The pieces at eye level"
              pieces={unpackStrip(strip, drawn, levelMm)}
              levelMm={levelMm}
              firstWidthPx={660}
              heightPx={150}
              plain
            />
            <table>
              <thead>
                <tr>
                  <th scope="col">Piece</th>
                  <th scope="col">Copies</th>
                  <th scope="col">Finished</th>
                  <th scope="col">Weight of one</th>
                  <th scope="col">Together</th>
                </tr>
              </thead>
              <tbody>
                {designs.map(({ designId, tag, name: piece, copies, finished, weightGrams }) => (
                  <tr key={designId}>
                    <th scope="row">{`${tag} ${piece}`}</th>
                    <td>{copies}</td>
                    <td>{finished}</td>
                    <td>{mass(weightGrams)}</td>
                    <td>{mass(copies * weightGrams)}</td>
                  </tr>
                ))}
              </tbody>
              <tfoot>
                <tr>
                  <th scope="row">In all</th>
                  <td>{designs.reduce((sum, { copies }) => sum + copies, 0)}</td>
                  <td>{designs.reduce((sum, { finished }) => sum + finished, 0)}</td>
                  <td />
                  <td>{mass(weight)}</td>
                </tr>
              </tfoot>
            </table>
            {photographed.length > 0 && (
              <div className={styles.photos}>
                {photographed.map(({ designId, tag, copy, photo, width, height }) => (
                  <figure key={designId}>
                    <img src={photoAddress(photo)} alt="" width={width} height={height} />
                    <figcaption>{copyName(tag, copy)}</figcaption>
                  </figure>
                ))}
              </div>
            )}
            <p className={styles.how}>Weights are reckoned from bodies and water; paint and plants come on top.</p>
            <h2>How to keep them</h2>
            <ul>
              {careOf(models).map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </main>
        )}
      </PrintFrame>
    </UnitsProvider>
  );
}
