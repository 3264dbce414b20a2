'use client';

import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useId } from 'react';

interface ChoiceFieldProps<T extends string> {
  label: string;
  value: T;
  choices: readonly { value: T; label: string; disabled?: boolean }[];
  onCommit: (value: T) => void;
  error?: string | null | undefined;
  hint?: string | undefined;
  /** Without its label above it: in a sentence or a table, where what stands beside it says what it is. */
  bare?: boolean;
  disabled?: boolean;
}

/** A choice among a few. */
export function ChoiceField<T extends string>({
  label,
  value,
  choices,
  onCommit,
  error,
  hint,
  bare = false,
  disabled = false,
}: ChoiceFieldProps<T>) {
  const id = useId();
  return (
    <TextField
      select
      id={id}
      label={bare ? undefined : label}
      value={choices.some((choice) => choice.value === value) ? value : ''}
      disabled={disabled}
      fullWidth={!bare}
      onChange={(event) => onCommit(event.target.value as T)}
      error={Boolean(error)}
      helperText={error ?? hint}
      slotProps={{
        select: {
          SelectDisplayProps: bare ? { 'aria-label': label, 'aria-labelledby': undefined } : {},
          displayEmpty: true,
        },
        inputLabel: { shrink: true },
      }}
    >
      {choices.map((choice) => (
        <MenuItem key={choice.value} value={choice.value} disabled={choice.disabled ?? false}>
          {choice.label}
        </MenuItem>
      ))}
    </TextField>
  );
}
