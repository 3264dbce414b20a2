'use client';

import { useEffect, useState } from 'react';
import type { StockLevel } from '@/core/stock/haveAndNeed';

/**
 * What stands on the shelf, seen from a batch (null: from none); null until it is read. Read anew whenever `key` changes: something
 * was poured, reserved, bought.
 */
export function useStockLevels(batchId: string | null, key: string): readonly StockLevel[] | null {
  const [read, setRead] = useState<{ of: string | null; levels: StockLevel[] } | null>(null);
  useEffect(() => {
    let stale = false;
    const address = batchId === null ? '/api/stock' : `/api/batches/${encodeURIComponent(batchId)}/stock`;
    void fetch(address)
      .then(async (response) => (response.ok ? ((await response.json()) as StockLevel[]) : []))
      .then((levels) => !stale && setRead({ of: batchId, levels }), reportError);
    return () => {
      stale = true;
    };
  }, [batchId, key]);
  return read?.of === batchId ? read.levels : null;
}
