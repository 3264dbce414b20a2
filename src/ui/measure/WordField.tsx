'use client';

import TextField from '@mui/material/TextField';
import { useState, type HTMLInputTypeAttribute } from 'react';

interface WordFieldProps {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  validate?: ((value: string) => string | null) | undefined;
  error?: string | null | undefined;
  hint?: string | undefined;
  type?: HTMLInputTypeAttribute;
  multiline?: boolean;
}

/** A field for words, dates or colours: commits on Enter or on leaving, keeps what was typed when it is refused. */
export function WordField({
  label,
  value,
  onCommit,
  validate,
  error,
  hint,
  type = 'text',
  multiline = false,
}: WordFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  const commit = (): void => {
    if (typed === null) return;
    const problem = validate?.(typed) ?? null;
    setComplaint(problem);
    if (problem !== null) return;
    setTyped(null);
    if (typed !== value) onCommit(typed);
  };
  const message = complaint ?? error ?? null;
  return (
    <TextField
      label={label}
      type={type}
      multiline={multiline}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && !multiline) {
          event.preventDefault();
          commit();
        }
        if (event.key === 'Escape') {
          setTyped(null);
          setComplaint(null);
        }
      }}
      error={message !== null}
      helperText={message ?? hint}
      autoComplete="off"
    />
  );
}
