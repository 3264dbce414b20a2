/** A kept thing: its id, its row version (each write adds one), and its data. */
export interface Stored<T> {
  id: string;
  version: number;
  data: T;
}
