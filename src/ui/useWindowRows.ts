'use client';

import { useWindowVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { useAwake } from './useAwake';

interface WindowRowsOptions {
  count: number;
  /** About how high a row is, before it is drawn and measured, px. */
  estimateSize: (index: number) => number;
  overscan: number;
  getItemKey: (index: number) => string;
  /** How far down the page the list begins, px. */
  scrollMargin?: number;
}

/** So high is the window in which a server draws rows. */
const FIRST_PX = 1000;

/**
 * Rows of a long list of which only those in sight are drawn. The first paint has those that the server drew, from the top on, wherever
 * the page was scrolled to when it was loaded again.
 */
export function useWindowRows(options: WindowRowsOptions) {
  const awake = useAwake();
  const rows = useWindowVirtualizer({ ...options, initialRect: { width: 1200, height: FIRST_PX } });
  return { rows, items: awake ? rows.getVirtualItems() : firstRows(options) };
}

type Row = Pick<VirtualItem, 'index' | 'key' | 'start' | 'end'>;

function firstRows({ count, estimateSize, getItemKey, scrollMargin = 0 }: WindowRowsOptions): Row[] {
  const first: Row[] = [];
  let start = scrollMargin;
  for (let index = 0; index < count && start < FIRST_PX; index++) {
    const end = start + estimateSize(index);
    first.push({ index, key: getItemKey(index), start, end });
    start = end;
  }
  return first;
}
