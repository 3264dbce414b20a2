/** The views of the stage, in the order of its tabs. */
export const CURE_VIEWS = ['evenings', 'time', 'route', 'promise', 'steady', 'batch'] as const;
export type CureView = (typeof CURE_VIEWS)[number];
