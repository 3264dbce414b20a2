import { useMemo, useRef, useState } from 'react';
import { emptyWish } from '@/core/seams/table';
import type { KeptTable, TableWish, TableGridKind } from '@/core/model/tableSchema';
import { useDesk } from '../desk/DeskContext';

/** What a new table starts with: a creek that comes in at the west and goes out at the east. */
export const newTable = (id: string, name: string, grid: TableGridKind): KeptTable => ({
  id,
  name,
  laid: null,
  wish: {
    ...emptyWish(4, 3, grid),
    openings:
      grid === 'hexagon'
        ? [
            { column: 0, row: 1, side: 4 },
            { column: 3, row: 1, side: 2 },
          ]
        : [
            { column: 0, row: 1, side: 3 },
            { column: 3, row: 1, side: 1 },
          ],
  },
});

export interface Tables {
  tables: readonly KeptTable[];
  /** Changes one table; `null` removes it. */
  change: (id: string, make: (table: KeptTable) => KeptTable | null, label: string) => void;
  /** Changes what is wanted; a layout that was kept for the old wish goes unless it still holds. */
  wish: (id: string, make: (wish: TableWish) => TableWish, label: string, holds?: boolean) => void;
  add: (table: KeptTable) => void;
}

/** The tables of the set on the desk. Before the first change there is one to start with. */
export function useTables(grid: TableGridKind): Tables {
  const { desk, edits } = useDesk();
  const first = useMemo<readonly KeptTable[]>(() => [newTable('table-1', 'Table 1', grid)], [grid]);
  const kept = desk.set.data.tables;
  // What was pressed shows at once; the view that comes back takes its place when nothing newer is on its way.
  const [ahead, setAhead] = useState<readonly KeptTable[] | null>(null);
  const newest = useRef(0);
  const { run } = edits;
  const shown = ahead ?? (kept && kept.length > 0 ? kept : first);
  return useMemo(() => {
    const put = (make: (tables: readonly KeptTable[]) => KeptTable[], label: string): void => {
      const mine = ++newest.current;
      setAhead(make(shown));
      void run(
        ({ set }) => ({
          do: 'put',
          kind: 'set',
          id: set.id,
          version: set.version,
          data: { ...set.data, tables: make(set.data.tables && set.data.tables.length > 0 ? set.data.tables : first) },
          label,
        }),
        label,
      ).then(() => mine === newest.current && setAhead(null));
    };
    const change: Tables['change'] = (id, make, label) =>
      put(
        (tables) =>
          tables.flatMap((table) => {
            const next = table.id === id ? make(table) : table;
            return next ? [next] : [];
          }),
        label,
      );
    return {
      tables: shown,
      change,
      wish: (id, make, label, holds = false) =>
        change(id, (table) => ({ ...table, wish: make(table.wish), laid: holds ? table.laid : null }), label),
      add: (table) => put((tables) => [...tables, table], `Add ${table.name}`),
    };
  }, [shown, run, first]);
}
