'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useForm, type FieldPath } from 'react-hook-form';
import { waterSetSchema, type WaterSet } from '@/core/records/recordSchemas';
import type { Shelf } from '@/core/records/views';
import { useKeptForm } from '@/ui/keptDraft';
import type { Outcome } from '../edits/useEdits';
import { setDraftSchema, type SetInput } from './setDraft';
import { SetForm } from './SetForm';
import styles from './SetForm.module.css';

interface SetDialogProps {
  title: string;
  action: string;
  /** Under which name the unfinished form is kept in this browser. */
  draftKey: string;
  initial: WaterSet;
  shelf: Shelf;
  onSave: (set: WaterSet) => Promise<Outcome>;
  onClose: () => void;
  /** Stands at the left of the buttons. */
  extra?: React.ReactNode;
}

const resolver = zodResolver(waterSetSchema);

/** The set's fields in a dialog; what is typed survives a closed tab until it is saved or dropped. */
export function SetDialog({ title, action, draftKey, initial, shelf, onSave, onClose, extra }: SetDialogProps) {
  const form = useForm<SetInput, unknown, WaterSet>({ resolver, defaultValues: initial });
  const { control, setValue, handleSubmit, setError, formState } = form;
  const forget = useKeptForm(draftKey, form, setDraftSchema);
  const save = handleSubmit(async (set) => {
    const outcome = await onSave(set);
    if (outcome.ok) {
      forget();
      return;
    }
    const { fields, message } = outcome.trouble;
    for (const complaint of fields) setError(complaint.field as FieldPath<SetInput>, { message: complaint.message });
    if (fields.length === 0) setError('root', { message });
  });
  const drop = (): void => {
    forget();
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="set-title">
      <form onSubmit={(event) => void save(event)} noValidate>
        <DialogTitle id="set-title">{title}</DialogTitle>
        <DialogContent>
          <SetForm control={control} setValue={setValue} shelf={shelf} />
          {formState.errors.root && (
            <p role="alert" className={styles.refused}>
              {formState.errors.root.message}
            </p>
          )}
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          {extra}
          <span style={{ flex: 1 }} />
          <Button onClick={drop}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={formState.isSubmitting}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
