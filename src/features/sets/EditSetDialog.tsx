'use client';

import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { MenuButton } from '@/ui/controls/MenuButton';
import { useDesk } from '../desk/DeskContext';
import { SetDialog } from './SetDialog';

/** Changes the set on the desk, or removes it. */
export function EditSetDialog({ onClose }: { onClose: () => void }) {
  const { desk, edits } = useDesk();
  const router = useRouter();
  const { set } = desk;
  const remove = async (): Promise<void> => {
    const outcome = await edits.run((view) => ({ do: 'remove', kind: 'set', id: set.id, version: view.set.version }));
    if (outcome.ok) router.push('/');
  };
  const duplicate = async (measured: boolean): Promise<void> => {
    const outcome = await edits.run(() => ({ do: 'duplicate', setId: set.id, measured }), 'The set is there twice');
    if (outcome.ok && outcome.id) router.push(`/sets/${outcome.id}/shape`);
  };
  const putAway = async (): Promise<void> => {
    const away = !set.data.putAway;
    const label = away ? `Put ${set.data.name} away`.slice(0, 80) : `Take ${set.data.name} out again`.slice(0, 80);
    const outcome = await edits.run((view) => {
      const { putAway: _, ...data } = view.set.data;
      return {
        do: 'put',
        kind: 'set',
        id: set.id,
        version: view.set.version,
        data: { ...data, ...(away && { putAway: true }) },
        label,
      };
    }, label);
    if (outcome.ok && away) router.push('/');
    else if (outcome.ok) onClose();
  };
  return (
    <SetDialog
      title={`Set: ${set.data.name}`}
      action="Save"
      draftKey={`aguada.set.${set.id}.${set.version}`}
      initial={set.data}
      shelf={desk.shelf}
      onClose={onClose}
      onSave={async (data) => {
        const outcome = await edits.run(
          (view) => ({ do: 'put', kind: 'set', id: set.id, version: view.set.version, data, label: 'Change the set' }),
          'Set changed',
        );
        if (outcome.ok) onClose();
        return outcome;
      }}
      extra={
        <>
          <Button variant="text" href={`/api/sets/${set.id}/archive`} download>
            Hand it on
          </Button>
          <MenuButton
            label="Duplicate"
            name="This set once more, without its batches"
            choices={[
              { key: 'drawn', label: 'As it is drawn', onPick: () => void duplicate(false) },
              { key: 'measured', label: 'With what was measured of its copies', onPick: () => void duplicate(true) },
            ]}
          />
          <Button variant="text" onClick={() => void putAway()}>
            {set.data.putAway ? 'Take it out again' : 'Put it away'}
          </Button>
          <Button variant="text" onClick={() => void remove()}>
            Remove this set
          </Button>
        </>
      }
    />
  );
}
