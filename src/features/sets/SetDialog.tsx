'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState, type FormEvent } from 'react';
import { complaintsByField } from '@/core/records/replaceAt';
import { waterSetSchema, type WaterSet } from '@/core/records/schema';
import type { ShelfView } from '@/core/records/views';
import { useKeptDraft } from '@/ui/keptDraft';
import type { Outcome } from '../door/editDoor';
import { SetForm } from './SetForm';
import styles from './SetForm.module.css';

interface SetDialogProps {
  title: string;
  action: string;
  /** Under which name the unfinished form is kept in this browser. */
  draftKey: string;
  initial: WaterSet;
  shelf: Omit<ShelfView, 'history'>;
  onSave: (set: WaterSet) => Promise<Outcome>;
  onClose: () => void;
  /** Stands at the left of the buttons. */
  extra?: React.ReactNode;
}

/** What the browser kept may be of an older shape; only a whole set is taken up. Fields may still be wrong. */
const acceptDraft = (value: unknown): WaterSet | null => {
  const keys = Object.keys(waterSetSchema.shape);
  return typeof value === 'object' &&
    value !== null &&
    keys.every((key) => key in value) &&
    'benchWindows' in value &&
    Array.isArray(value.benchWindows)
    ? (value as WaterSet)
    : null;
};

/** The set's fields in a dialog; what is typed survives a closed tab until it is saved or dropped. */
export function SetDialog({ title, action, draftKey, initial, shelf, onSave, onClose, extra }: SetDialogProps) {
  const { draft, setDraft, forget } = useKeptDraft(draftKey, initial, acceptDraft);
  const [errors, setErrors] = useState<Record<string, string>>({});
  const [saving, setSaving] = useState(false);
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const parsed = waterSetSchema.safeParse(draft);
    if (!parsed.success) {
      setErrors(complaintsByField(parsed.error));
      return;
    }
    setSaving(true);
    const outcome = await onSave(parsed.data);
    setSaving(false);
    if (outcome.ok) forget();
    else
      setErrors({
        ...Object.fromEntries(outcome.trouble.fields.map(({ field, message }) => [field, message])),
        ...(outcome.trouble.fields.length === 0 && { form: outcome.trouble.message }),
      });
  };
  const drop = (): void => {
    forget();
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="set-title">
      <form onSubmit={save} noValidate>
        <DialogTitle id="set-title">{title}</DialogTitle>
        <DialogContent>
          <SetForm set={draft} shelf={shelf} errors={errors} onChange={(next) => (setDraft(next), setErrors({}))} />
          {errors['form'] && (
            <p role="alert" className={styles.refused}>
              {errors['form']}
            </p>
          )}
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          {extra}
          <span style={{ flex: 1 }} />
          <Button onClick={drop}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={saving}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
