'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { outlineEdges } from '@/core/bed/outline';
import type { EdgeName } from '@/core/model/designSchema';
import { TABLE_SHAPES } from '@/core/seams/tableShape';
import type { TableStock } from '@/core/seams/tableTiles';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useDesk } from '../desk/DeskContext';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

/** The tiles at hand, where each has water, and whether its water reads one way only. */
export function TileStock({ stock }: { stock: TableStock }) {
  const { desk, shapeDesign } = useDesk();
  const { names } = TABLE_SHAPES[stock.grids[0]!];
  const kindsOf = (id: string): TableStock['tiles'] => stock.tiles.filter(({ designId }) => designId === id);
  const wetOf = (id: string): string => names.filter((_, side) => kindsOf(id)[0]!.wet[side]).join(', ') || 'none';
  const read = (id: string, tag: string, edge: EdgeName | ''): void =>
    shapeDesign(
      id,
      ({ flowsFrom: _, ...newest }) => (edge === '' ? newest : { ...newest, flowsFrom: edge }),
      `Change which way ${tag} reads`,
    );
  return (
    <section aria-label="Tiles at hand" className={styles.stock}>
      <h2 className={match.heading}>Tiles at hand</h2>
      <Table size="small">
        <TableHead>
          <TableRow>
            {['Tile', 'There are', 'Water at its', 'Its water reads'].map((head) => (
              <TableCell key={head}>{head}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {desk.designs
            .filter(({ id }) => kindsOf(id).length > 0)
            .map(({ id, data }) => (
              <TableRow key={id}>
                <TableCell component="th" scope="row">
                  {data.tag}
                </TableCell>
                <TableCell>{kindsOf(id).reduce((sum, { copies }) => sum + copies, 0)}</TableCell>
                <TableCell>{wetOf(id)}</TableCell>
                <TableCell>
                  <ChoiceField
                    bare
                    label={`How the water of ${data.tag} reads`}
                    value={data.flowsFrom ?? ''}
                    choices={[
                      { value: '' as EdgeName | '', label: 'from both ends' },
                      ...outlineEdges(data.outline).map((edge) => ({ value: edge, label: `in at the ${edge} only` })),
                    ]}
                    onCommit={(edge) => read(id, data.tag, edge)}
                  />
                </TableCell>
              </TableRow>
            ))}
        </TableBody>
      </Table>
      <p className={styles.quiet}>
        A rapid, or rocks with white on one side, read one way: such a tile is laid pointing downstream.
      </p>
    </section>
  );
}
