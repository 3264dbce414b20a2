/** @jest-environment jsdom */
import { zodResolver } from '@hookform/resolvers/zod';
import { act, renderHook } from '@testing-library/react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { z } from 'zod';
import { waterSetSchema, type WaterSet } from '@/core/records/recordSchemas';
import { firstSet, setDraftSchema, type SetInput } from './setDraft';
import { readKept, useKept, useKeptForm } from '@/ui/keptDraft';

const KEY = 'aguada.test';
beforeEach(() => localStorage.clear());

describe('a choice that this browser remembers', () => {
  const schema = z.enum(['edge', 'middle']);
  test('is taken up after the page has woken, and kept when it changes', () => {
    localStorage.setItem(KEY, '"middle"');
    const { result } = renderHook(() => useKept<'edge' | 'middle'>(KEY, 'edge', schema));
    expect(result.current[0]).toBe('middle');
    act(() => result.current[1]('edge'));
    expect([result.current[0], readKept(KEY)]).toEqual(['edge', 'edge']);
  });
  test.each(['"elsewhere"', '{torn', '7'])('what no longer reads (%s) is dropped', (text) => {
    localStorage.setItem(KEY, text);
    expect(renderHook(() => useKept<'edge' | 'middle'>(KEY, 'edge', schema)).result.current[0]).toBe('edge');
  });
});

/** The form of a new set as its dialog opens it. */
function openForm(): { form: UseFormReturn<SetInput, unknown, WaterSet>; forget: () => void; close: () => void } {
  const { result, unmount } = renderHook(() => {
    const form = useForm<SetInput, unknown, WaterSet>({
      resolver: zodResolver(waterSetSchema),
      defaultValues: firstSet('p', 'r'),
    });
    // Read while rendering, as a form does that shows whether anything was typed.
    void form.formState.isDirty;
    return { form, forget: useKeptForm(KEY, form, setDraftSchema) };
  });
  return { ...result.current, close: unmount };
}
const type = (
  form: UseFormReturn<SetInput, unknown, WaterSet>,
  name: 'name' | 'levelMm',
  value: string | number,
): void => act(() => form.setValue(name, value, { shouldDirty: true }));

describe('a set that is not made yet', () => {
  test('is kept while it is typed, and found again when the form is opened anew', () => {
    const first = openForm();
    type(first.form, 'name', 'Half a cre');
    type(first.form, 'levelMm', 12);
    first.close();
    expect(openForm().form.getValues()).toMatchObject({ name: 'Half a cre', levelMm: 12, productId: 'p' });
  });
  test('is taken up even where its fields are still wrong, and where it is of an older shape', () => {
    const { job: _, benchWindows: __, ...older } = firstSet('p', 'r');
    localStorage.setItem(KEY, JSON.stringify({ ...older, levelMm: -3 }));
    expect(openForm().form.getValues()).toMatchObject({ levelMm: -3, job: null, benchWindows: null });
  });
  test('opened and closed again without a word, nothing is kept', () => {
    openForm().close();
    expect(readKept(KEY)).toBeUndefined();
  });
  test('is forgotten once it is saved or dropped', () => {
    const { form, forget, close } = openForm();
    type(form, 'name', 'Done');
    forget();
    close();
    expect(openForm().form.getValues().name).toBe('');
  });
});
