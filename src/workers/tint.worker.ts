import { expose } from 'comlink';
import { findRecipes } from '../core/tint/finder';

/** What the worker does for the Tint stage. */
export const tinter = { find: findRecipes };
export type Tinter = typeof tinter;

expose(tinter);
