import { ownStarter, starters, type OwnStart, type Starter } from '@/core/bed/starters';
import { useFetched } from '@/ui/useFetched';
import { focusSoon } from '@/ui/focusSoon';
import { useDesk } from '../desk/DeskContext';

/** The pieces to start from at the set's level, and the way to add one: it is opened, and the focus goes to it. */
export function useAddStarter(): { choices: readonly Starter[]; add: (starter: Starter) => Promise<void> } {
  const { desk, select, edits } = useDesk();
  const tags = desk.designs.map(({ data }) => data.tag);
  const { data: own } = useFetched<OwnStart[]>('/api/starts');
  const choices = [
    ...starters(desk.set.data.levelMm, tags, desk.shelf.settings.data.units),
    ...(own ?? []).map((start) => ownStarter(start, tags)),
  ];
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
