import { NO_WISH, type RowWish } from '@/core/model/seamSchema';
import { useDesk } from '../desk/DeskContext';

/** What the row of the set on the desk keeps to, and how to change it. */
export function useRowWish(): { wish: RowWish; put: (wish: RowWish, label: string) => void } {
  const { desk, changeSet } = useDesk();
  return {
    wish: desk.set.data.row ?? NO_WISH,
    put: (wish, label) => changeSet((set) => ({ ...set, row: wish }), label),
  };
}
