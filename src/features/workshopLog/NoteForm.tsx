'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useForm, useWatch } from 'react-hook-form';
import { logNoteSchema, type LogNote } from '@/core/records/recordSchemas';
import { DateTimeField } from '@/ui/controls/MomentField';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import styles from './LogScreen.module.css';

interface NoteFormProps {
  first: LogNote;
  sets: readonly { id: string; name: string }[];
  press: string;
  /** Keeps it; whether it was taken. */
  onKeep: (note: LogNote) => Promise<boolean>;
  onRemove?: () => void;
  onClose: () => void;
}

const NO_SET = '';

/** What the maker wants to have said: of a day, and of a set where it belongs to one. */
export function NoteForm({ first, sets, press, onKeep, onRemove, onClose }: NoteFormProps) {
  const { register, control, setValue, handleSubmit, setError, formState } = useForm({ defaultValues: first });
  const [at, setId] = useWatch({ control, name: ['at', 'setId'] });
  const submit = handleSubmit(async (typed) => {
    const note = logNoteSchema.safeParse(typed);
    if (!note.success) return setError('text', { message: note.error.issues[0]!.message });
    if (await onKeep(note.data)) onClose();
  });
  const message = formState.errors.text?.message;
  return (
    <form className={styles.note} aria-label="A note" onSubmit={(event) => void submit(event)}>
      <TextField
        autoFocus
        multiline
        minRows={3}
        label="Note"
        error={message !== undefined}
        helperText={message}
        {...register('text')}
      />
      <DateTimeField label="When" value={at} onCommit={(moment) => setValue('at', moment)} />
      <ChoiceField
        label="Of"
        value={setId ?? NO_SET}
        choices={[
          { value: NO_SET, label: 'the workshop' },
          ...sets.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onCommit={(id) => setValue('setId', id === NO_SET ? null : id)}
      />
      <div className={styles.press}>
        <Button type="submit" variant="contained" size="small">
          {press}
        </Button>
        <Button size="small" onClick={onClose}>
          Leave it
        </Button>
        {onRemove && (
          <Button size="small" color="error" onClick={onRemove}>
            Take it out
          </Button>
        )}
      </div>
    </form>
  );
}
