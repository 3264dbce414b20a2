import { NO_WISH, type RowWish } from '@/core/seams/schema';
import { useDesk } from '../desk/DeskContext';

/** What the row of the set on the desk keeps to, and how to change it. */
export function useRowWish(): { wish: RowWish; put: (wish: RowWish, label: string) => void } {
  const { desk, door } = useDesk();
  return {
    wish: desk.set.data.row ?? NO_WISH,
    put: (wish, label) =>
      void door.run(
        ({ set }) => ({
          do: 'put',
          kind: 'set',
          id: set.id,
          version: set.version,
          data: { ...set.data, row: wish },
          label,
        }),
        label,
      ),
  };
}
