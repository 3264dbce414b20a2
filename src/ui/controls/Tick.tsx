'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';

interface TickProps {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}

/** A box to tick. */
export function Tick({ label, checked, onChange, disabled = false }: TickProps) {
  return (
    <FormControlLabel
      label={label}
      disabled={disabled}
      control={<Checkbox size="small" checked={checked} onChange={(event) => onChange(event.target.checked)} />}
    />
  );
}
