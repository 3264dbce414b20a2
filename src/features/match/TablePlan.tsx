import type { ReactNode } from 'react';
import type { Opening, TablePlace, TableGridKind } from '@/core/model/tableSchema';
import { placeBox, sideMiddle, TABLE_SHAPES, tableEdges, tableExtent, type TileSize } from '@/core/seams/tableShape';
import styles from './TablePlan.module.css';

interface TablePlanProps {
  grid: TableGridKind;
  columns: number;
  rows: number;
  sizeMm: TileSize;
  place: (place: TablePlace) => ReactNode;
  /** What stands at a side of the table; nothing where it gives nothing. */
  edge: (opening: Opening) => ReactNode;
  /** The widest a place is drawn. */
  mostPx?: number;
}

const percent = (share: number): string => `${Number((share * 100).toFixed(4))}%`;

/** A table from above, north at the top: its places where they lie, whatever their shape, and what stands at its edges. */
export function TablePlan({ grid, columns, rows, sizeMm, place, edge, mostPx = 150 }: TablePlanProps) {
  const extent = tableExtent(grid, sizeMm, columns, rows);
  const boxOf = (at: TablePlace): React.CSSProperties => {
    const { xMm, yMm, acrossMm, upMm } = placeBox(grid, sizeMm, at);
    return {
      left: percent(xMm / extent.acrossMm),
      bottom: percent(yMm / extent.upMm),
      width: percent(acrossMm / extent.acrossMm),
      height: percent(upMm / extent.upMm),
    };
  };
  const edgeAt = (opening: Opening): React.CSSProperties => {
    const { xMm, yMm, acrossMm, upMm } = placeBox(grid, sizeMm, opening);
    const { across, up } = sideMiddle(grid, opening.side);
    return {
      left: percent((xMm + across * acrossMm) / extent.acrossMm),
      bottom: percent((yMm + up * upMm) / extent.upMm),
      // Outwards by its own half, so that it stands beside the place.
      translate: `${percent(-0.5 + Math.sign(across - 0.5) * 0.5)} ${percent(0.5 - Math.sign(up - 0.5) * 0.5)}`,
    };
  };
  const places = Array.from({ length: columns * rows }, (_, i) => ({
    column: i % columns,
    row: rows - 1 - Math.floor(i / columns),
  }));
  return (
    <div className={styles.margin}>
      <div
        className={styles.table}
        data-grid={grid}
        style={{ aspectRatio: `${extent.acrossMm} / ${extent.upMm}`, maxWidth: columns * mostPx }}
      >
        {places.map((at) => (
          <div key={`${at.column},${at.row}`} className={styles.place} style={boxOf(at)}>
            {place(at)}
          </div>
        ))}
        {tableEdges(grid, columns, rows).map((opening) => {
          const content = edge(opening);
          return (
            content && (
              <div
                key={`${opening.column},${opening.row},${opening.side}`}
                className={styles.edge}
                style={edgeAt(opening)}
              >
                {content}
              </div>
            )
          );
        })}
      </div>
    </div>
  );
}

/** A tile as it lies on a place, turned anticlockwise. */
export function TurnedTile({
  grid,
  sizeMm,
  turns,
  children,
}: {
  grid: TableGridKind;
  sizeMm: TileSize;
  turns: number;
  children: ReactNode;
}) {
  const { acrossMm, upMm } = placeBox(grid, sizeMm, { column: 0, row: 0 });
  return (
    <span
      className={styles.tile}
      style={{
        width: percent(sizeMm.widthMm / acrossMm),
        height: percent(sizeMm.lengthMm / upMm),
        transform: `translate(-50%, -50%) rotate(${(-360 / TABLE_SHAPES[grid].sides.length) * turns}deg)`,
      }}
    >
      {children}
    </span>
  );
}
