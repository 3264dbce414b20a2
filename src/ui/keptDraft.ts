'use client';

import { useCallback, useEffect, useState } from 'react';
import type { DefaultValues, FieldValues, UseFormReturn } from 'react-hook-form';
import type { ZodType } from 'zod';

/** What this browser keeps under a key; undefined when there is nothing, or nothing that reads. */
export function readKept(key: string): unknown {
  try {
    const text = localStorage.getItem(key);
    return text === null ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}

function keep(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A full or forbidden store costs the draft its safety, not the maker the form.
  }
}

/** A choice that this browser remembers. What was kept is taken up after the page has woken; what no longer reads is dropped. */
export function useKept<T>(key: string, initial: T, schema: ZodType<T>): [value: T, set: (value: T) => void] {
  const [value, set] = useState(initial);
  useEffect(() => {
    const kept = schema.safeParse(readKept(key));
    // Reading the browser's store is what an effect is for; the first paint must match the server's.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (kept.success) set(kept.data);
  }, [key, schema]);
  return [value, useCallback((next: T) => (set(next), keep(key, next)), [key])];
}

/**
 * Keeps what is typed into a form in this browser, so that it survives a closed tab, and takes it up again when the form opens.
 * `schema` says what a draft must look like to be taken up: its fields may still be wrong. Returns what forgets it.
 */
export function useKeptForm<T extends FieldValues, C, O extends FieldValues>(
  key: string,
  form: UseFormReturn<T, C, O>,
  schema: ZodType<T>,
): () => void {
  const { reset, subscribe } = form;
  useEffect(() => {
    const kept = schema.safeParse(readKept(key));
    if (kept.success) reset(kept.data as DefaultValues<T>, { keepDefaultValues: true });
    return subscribe({
      formState: { values: true, isDirty: true },
      callback: ({ values, isDirty }) => isDirty && keep(key, values),
    });
  }, [key, schema, reset, subscribe]);
  return useCallback(() => localStorage.removeItem(key), [key]);
}
