'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useForm } from 'react-hook-form';
import styles from './PairScreen.module.css';

/** What a device sees that is not paired, and nothing else: the code that the desk shows, and a name for this device. */
export function PairScreen({ firstCode }: { firstCode: string }) {
  const { register, handleSubmit, setError, formState } = useForm({ defaultValues: { code: firstCode, name: '' } });
  const pair = handleSubmit(async ({ code, name }) => {
    const response = await fetch('/api/pair', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ code: code.trim(), name }),
    }).catch(() => null);
    if (response?.ok) window.location.assign('/');
    else
      setError('root', {
        message: response ? ((await response.json()) as { message: string }).message : 'Aguada does not answer.',
      });
  });
  const busy = formState.isSubmitting;
  const trouble = formState.errors.root?.message;
  return (
    <main className={styles.page}>
      <h1>Pair this device</h1>
      <p>At the desk, open Shelf · Devices and ask for a code. It lives for five minutes and pairs one device.</p>
      <form onSubmit={(event) => void pair(event)} className={styles.form}>
        <TextField
          label="Code"
          {...register('code')}
          autoFocus={firstCode === ''}
          autoComplete="one-time-code"
          slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 6, className: styles.code } }}
        />
        <TextField
          label="Name of this device"
          {...register('name')}
          autoFocus={firstCode !== ''}
          placeholder="Tablet at the bench"
          autoComplete="off"
        />
        {trouble && (
          <p role="alert" className={styles.trouble}>
            {trouble}
          </p>
        )}
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          {busy ? 'Pairing…' : 'Pair'}
        </Button>
      </form>
    </main>
  );
}
