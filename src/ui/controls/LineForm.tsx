'use client';

import Button from '@mui/material/Button';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import type { ReactNode } from 'react';
import { useForm, useWatch } from 'react-hook-form';

interface LineFormProps {
  label: string;
  /** What the button says. */
  press: string;
  /** Takes the line; says what is wrong with it, or nothing. */
  send: (line: string) => string | null | void;
  first?: string;
  most?: number;
  color?: 'error';
  variant?: 'contained';
  /** Of the form and of its button. */
  className?: string | undefined;
  buttonClass?: string | undefined;
  field?: TextFieldProps;
  children?: ReactNode;
}

/** One line that is typed and sent: by Enter or the button beside it. */
export function LineForm({
  label,
  press,
  send,
  first = '',
  most = 500,
  color,
  variant,
  className,
  buttonClass = '',
  field,
  children,
}: LineFormProps) {
  const { control, register, handleSubmit, setError, reset, formState } = useForm({ defaultValues: { line: first } });
  const empty = useWatch({ control, name: 'line' }).trim() === '';
  const submit = handleSubmit(({ line }) => {
    if (empty) return;
    const message = send(line.trim().slice(0, most));
    if (message) setError('line', { message });
    else reset();
  });
  const message = formState.errors.line?.message;
  return (
    <form className={className} onSubmit={(event) => void submit(event)}>
      <TextField
        label={label}
        autoComplete="off"
        error={message !== undefined}
        helperText={message}
        {...field}
        {...register('line')}
      />
      <Button
        type="submit"
        className={buttonClass}
        disabled={empty}
        {...(color && { color })}
        {...(variant && { variant })}
      >
        {press}
      </Button>
      {children}
    </form>
  );
}
