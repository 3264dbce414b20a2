import { lazy } from 'react';

const forms = {
  more: () => import('./MoreSheet'),
  reasons: () => import('./Reasons'),
  bottle: () => import('./OtherBottle'),
  line: () => import('@/ui/controls/LineForm'),
};

/** What stands on the bench only once it is asked for: sheets, questions, fields. The run is there before their code is. */
export const MoreSheet = lazy(async () => ({ default: (await forms.more()).MoreSheet }));
export const Reasons = lazy(async () => ({ default: (await forms.reasons()).Reasons }));
export const OtherBottle = lazy(async () => ({ default: (await forms.bottle()).OtherBottle }));
export const LineForm = lazy(async () => ({ default: (await forms.line()).LineForm }));

/** Reads that code once the run stands: it is there then, also when the server is not. */
export const readAhead = (): void =>
  void Promise.allSettled(Object.values(forms).map((read): Promise<unknown> => read()));
