'use client';

import { outlineEdges } from '@/core/bed/outline';
import type { EdgeName } from '@/core/bed/schema';
import type { TableStock } from '@/core/seams/tableTiles';
import { TABLE_SIDES } from '@/core/seams/tableSchema';
import { useDesk } from '../desk/DeskContext';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

/** The tiles at hand, where each has water, and whether its water reads one way only. */
export function TileStock({ stock }: { stock: TableStock }) {
  const { desk, shapeDesign } = useDesk();
  const designs = desk.designs.filter(({ id }) => stock.designIds.includes(id));
  const copiesOf = (id: string): number =>
    stock.tiles.reduce((sum, { copies }, i) => sum + (stock.designIds[i] === id ? copies : 0), 0);
  const wetOf = (id: string): string => {
    const tile = stock.tiles[stock.designIds.indexOf(id)]!;
    return TABLE_SIDES.filter((_, side) => tile.wet[side]).join(', ') || 'none';
  };
  return (
    <section aria-label="Tiles at hand" className={styles.stock}>
      <h2 className={match.heading}>Tiles at hand</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">Tile</th>
            <th scope="col">There are</th>
            <th scope="col">Water at its</th>
            <th scope="col">Its water reads</th>
          </tr>
        </thead>
        <tbody>
          {designs.map(({ id, data }) => (
            <tr key={id}>
              <th scope="row">{data.tag}</th>
              <td>{copiesOf(id)}</td>
              <td>{wetOf(id)}</td>
              <td>
                <select
                  aria-label={`How the water of ${data.tag} reads`}
                  value={data.flowsFrom ?? ''}
                  onChange={(event) => {
                    const edge = event.target.value as EdgeName | '';
                    shapeDesign(
                      id,
                      ({ flowsFrom: _, ...newest }) => (edge === '' ? newest : { ...newest, flowsFrom: edge }),
                      `Change which way ${data.tag} reads`,
                    );
                  }}
                >
                  <option value="">from both ends</option>
                  {outlineEdges(data.outline).map((edge) => (
                    <option key={edge} value={edge}>{`in at the ${edge} only`}</option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.quiet}>
        A rapid, or rocks with white on one side, read one way: such a tile is laid pointing downstream.
      </p>
    </section>
  );
}
