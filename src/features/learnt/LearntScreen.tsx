'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { LEARNT_KIND_FACTS, type LearntFigure } from '@/core/learn/learntFigure';
import type { LearntAnswerWanted, LearntView } from '@/core/records/learnt';
import { reminded } from '@/core/records/nextTime';
import { NotRead } from '@/ui/held/NotRead';
import { useFetched } from '@/ui/useFetched';
import { pageWith } from '../edits/applyChanges';
import { useEdits, type Edits } from '../edits/useEdits';
import { PageFrame } from '../PageFrame';
import { LearntCard } from './LearntCard';
import styles from './LearntScreen.module.css';

const SECTIONS: readonly { title: string; has: readonly LearntFigure['standing'][] }[] = [
  { title: 'What the record says otherwise', has: ['offered'] },
  { title: 'As the record has it', has: ['taken', 'the same'] },
  { title: 'Left as it was', has: ['refused'] },
];

/** What the record says of the figures that plans are made with: each run a dot, the figure as it stands and as it comes out. */
export function LearntScreen({ initial }: { initial: LearntView }) {
  const edits = useEdits(initial, { view: 'log' }, pageWith);
  const { view } = edits;
  const state = `${view.history.undo?.edit ?? 0} ${view.history.redo?.edit ?? 0}`;
  const [began] = useState(state);
  const fresh = useFetched<Pick<LearntView, 'figures' | 'batches'>>('/api/learnt', state);
  const { figures, batches } = fresh.data ?? (state === began ? initial : view);
  const say = (figure: LearntFigure, said: LearntAnswerWanted): void =>
    void edits.run(() => ({ do: 'learn', figure: figure.id, said }), DONE[said.answer]);
  return (
    <PageFrame
      edits={edits}
      title="Learnt"
      page="learnt"
      ways={[
        { href: '/log', words: 'Log of the workshop' },
        { href: '/', words: 'All sets' },
      ]}
      widthPx={1240}
    >
      <p className={styles.lead}>{leadOf(figures)}</p>
      {fresh.failed && <NotRead what="The record could not be read anew." again={fresh.again} />}
      {SECTIONS.map(({ title, has }) => {
        const own = figures.filter(({ standing }) => has.includes(standing));
        return (
          own.length > 0 && (
            <section key={title} aria-label={title} className={styles.section}>
              <h2>{title}</h2>
              {own.map((figure) => (
                <LearntCard
                  key={figure.id}
                  figure={figure}
                  batches={batches}
                  state={state}
                  busy={fresh.data === null && state !== began}
                  onSay={(said) => say(figure, said)}
                />
              ))}
            </section>
          )
        );
      })}
      <Reminders edits={edits} />
      <TooFew figures={figures.filter(({ standing }) => standing === 'too few')} />
      {figures.length > 0 && (
        <p className={styles.file}>
          <a href="/api/learnt/record" download="learn-request.json">
            The record that this comes from, as a file (JSON)
          </a>
        </p>
      )}
    </PageFrame>
  );
}

/** What is said before every run, each with what showed it. */
function Reminders({ edits }: { edits: Edits<LearntView> }) {
  const { nextTime = [] } = edits.view.settings.data;
  if (nextTime.length === 0) return null;
  return (
    <section aria-label="Said before every run" className={styles.section}>
      <h2>Said before every run</h2>
      <ul className={styles.reminders}>
        {nextTime.map((reminder) => (
          <li key={reminder.cause}>
            <b>{reminder.words}</b>
            <span>{reminder.why}</span>
            <Button
              variant="text"
              size="small"
              onClick={() =>
                void edits.run(({ settings: { id, version, data } }) => {
                  const label = 'Take a reminder off';
                  return { do: 'put', kind: 'settings', id, version, data: reminded(data, reminder, false), label };
                }, 'Taken off')
              }
            >
              Take it off
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Figures of which there is too little on record to say anything: a line each. */
function TooFew({ figures }: { figures: readonly LearntFigure[] }) {
  if (figures.length === 0) return null;
  return (
    <section aria-label="Too little on record yet" className={styles.section}>
      <h2>Too little on record yet</h2>
      <p className={styles.from}>From three observations on it is said what comes of them.</p>
      <ul className={styles.few}>
        {figures.map(({ id, name, counted, kind }) => {
          const { one, many } = LEARNT_KIND_FACTS[kind];
          return (
            <li key={id}>
              <b>{name}</b>
              <span>{`${counted} ${counted === 1 ? one : many}`}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const DONE: Record<LearntAnswerWanted['answer'], string> = {
  take: 'Taken over: plans from now on are made with it',
  refuse: 'Left as it is',
  forget: 'As it was before',
  turn: 'Counted otherwise',
};

/** What there is to say of all figures together. */
function leadOf(figures: readonly LearntFigure[]): string {
  if (figures.length === 0)
    return 'Nothing is on record yet that a figure could be learnt from. Pour at the bench, look pieces over, mark steps as done, enter what you buy: each leaves a dot here.';
  const offered = figures.filter(({ standing }) => standing === 'offered').length;
  const so =
    offered === 0
      ? 'No figure would change by what is on record.'
      : `${offered === 1 ? 'One figure' : `${offered} figures`} would change by what is on record.`;
  return `${so} Nothing is taken over by itself, and a batch that is poured keeps the figures it was planned with.`;
}
