import { expose } from 'comlink';
import { findRecipes } from '../core/tint/finder';
import { solvePours } from '../core/tint/gradient';

/** What the worker does for the Tint stage. */
export const tinter = { find: findRecipes, solvePours };
export type Tinter = typeof tinter;

expose(tinter);
