'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';

interface TickProps {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
  /** Its label is read out, not shown: in a table, where the head says what it is. */
  bare?: boolean;
}

/** A box to tick. */
export function Tick({ label, checked, onChange, disabled = false, bare = false }: TickProps) {
  return (
    <FormControlLabel
      label={bare ? <span className="visually-hidden">{label}</span> : label}
      disabled={disabled}
      control={<Checkbox size="small" checked={checked} onChange={(event) => onChange(event.target.checked)} />}
    />
  );
}
