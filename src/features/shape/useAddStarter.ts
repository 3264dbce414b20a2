import { starters, type Starter } from '@/core/bed/starters';
import { focusSoon } from '@/ui/focusSoon';
import { useDesk } from '../desk/DeskContext';

/** The pieces to start from at the set's level, and the way to add one: it is opened, and the focus goes to it. */
export function useAddStarter(): { choices: readonly Starter[]; add: (starter: Starter) => Promise<void> } {
  const { desk, select, edits } = useDesk();
  const choices = starters(
    desk.set.data.levelMm,
    desk.designs.map(({ data }) => data.tag),
    desk.shelf.settings.data.units,
  );
  const add = async ({ design }: Starter): Promise<void> => {
    const outcome = await edits.run(
      () => ({ do: 'add', kind: 'design', setId: desk.set.id, data: design, label: `Add ${design.name}` }),
      `Added ${design.name}`,
    );
    if (!outcome.ok || !outcome.id) return;
    select(outcome.id);
    focusSoon(() => document.querySelector<HTMLElement>(`[data-id="${outcome.id}"]`));
  };
  return { choices, add };
}
