import { learntFigures } from '@/core/learn/figures';
import type { Command } from '@/core/records/command';
import { remembered, standingOf, withFigures } from '@/core/records/learnt';
import { recordedWork } from '@/db/recordedWork';
import { edit, EditRefusedError } from '@/db/journal';
import type { Database, EditWriter } from '@/db/storage';
import type { Done } from '../changes';
import { shelfAndState } from '../views';

/** Carries out what was said to a figure that was learnt: figures and what is remembered of the answer in one edit. */
export function answerLearnt(db: Database, { figure: id, said }: Extract<Command, { do: 'learn' }>, now: string): Done {
  const shelf = shelfAndState(db, 'log');
  const { settings } = shelf;
  const figure = learntFigures(recordedWork(db), standingOf(shelf)).find((one) => one.id === id);
  if (!figure) throw new EditRefusedError('missing', 'Nothing on record says anything of this figure any more.');
  if (said.answer === 'take' && figure.fields.some((field, i) => field.now !== said.shown[i]))
    throw new EditRefusedError('nothing', 'Something was recorded meanwhile: look at the figure again.');
  if (said.answer === 'turn' && !figure.dots.some(({ key }) => key === said.dot))
    throw new EditRefusedError('missing', 'This is no longer on record.');
  const learning = remembered(settings.data.learning, figure, said);
  const figures =
    said.answer === 'take' ? figure.fields.map((field) => field.now) : said.answer === 'forget' ? figure.before : null;
  const { settings: own, product, colourant } = figures ? withFigures(figure, figures, shelf) : {};
  const touched = edit(db, 'log', LABELS[said.answer](figure.name).slice(0, 80), now, (writer: EditWriter) => {
    writer.put('settings', settings.id, { ...(own ?? settings.data), learning }, settings.version);
    if (product) writer.put('product', product.id, product.data, product.version);
    if (colourant) writer.put('colourant', colourant.id, colourant.data, colourant.version);
  });
  return { id, touched };
}

const LABELS: Record<Extract<Command, { do: 'learn' }>['said']['answer'], (name: string) => string> = {
  take: (name) => `Take over: ${name}`,
  refuse: (name) => `Leave as it is: ${name}`,
  forget: (name) => `Back to before: ${name}`,
  turn: (name) => `Count otherwise: ${name}`,
};
