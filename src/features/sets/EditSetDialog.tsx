'use client';

import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
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
          <Button variant="text" onClick={() => void remove()}>
            Remove this set
          </Button>
        </>
      }
    />
  );
}
