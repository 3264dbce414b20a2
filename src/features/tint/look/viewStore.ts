import type { View } from './view';

/** Where it is looked from, kept outside what React draws: sixty times a second the camera moves and nothing else. */
export interface ViewStore {
  now: () => View;
  set: (view: View) => void;
  subscribe: (listener: () => void) => () => void;
}

export function createViewStore(first: View): ViewStore {
  let view = first;
  const listeners = new Set<() => void>();
  return {
    now: () => view,
    set(next) {
      view = next;
      for (const listener of listeners) listener();
    },
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}
