'use client';

import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { sendForm } from './fieldKeys';

interface WordFieldProps {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  validate?: ((value: string) => string | null) | undefined;
  error?: string | null | undefined;
  hint?: string | undefined;
  multiline?: boolean;
}

/** A field for words: commits on Enter or on leaving, keeps what was typed when it is refused. */
export function WordField({ label, value, onCommit, validate, error, hint, multiline = false }: WordFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  /** Takes what was typed; false when it is refused. */
  const commit = (): boolean => {
    if (typed === null) return true;
    const problem = validate?.(typed) ?? null;
    setComplaint(problem);
    if (problem !== null) return false;
    setTyped(null);
    if (typed !== value) onCommit(typed);
    return true;
  };
  const message = complaint ?? error ?? null;
  return (
    <TextField
      label={label}
      multiline={multiline}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && !multiline) {
          event.preventDefault();
          if (commit()) sendForm(event.target);
        }
        if (event.key === 'Escape') {
          setTyped(null);
          setComplaint(null);
        }
      }}
      error={message !== null}
      helperText={message ?? hint}
      autoComplete="off"
      slotProps={{ htmlInput: { 'data-untouched': typed === null || undefined } }}
    />
  );
}
