/** How high charts are drawn, px. */
export const HEIGHT = 190;
/** Axes as thin ruled lines in the type of the page. */
export const AXIS = {
  tick: { fill: 'var(--ink-soft)', fontSize: 13 },
  stroke: 'var(--rule-strong)',
  tickLine: false,
} as const;
export const TIP = {
  contentStyle: { background: 'var(--sheet)', border: '1px solid var(--ink)', color: 'var(--ink)', borderRadius: 2 },
  itemStyle: { color: 'var(--ink)' },
  cursor: { fill: 'var(--rule)', opacity: 0.4 },
  isAnimationActive: false,
} as const;
