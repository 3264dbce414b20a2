'use client';

import Button from '@mui/material/Button';
import { useEffect, useRef } from 'react';
import type { RunView } from '@/core/run/views';
import { answerWords, CLOCK_KINDS, ON_A_LEAK } from '@/core/run/clocks';
import { readySound } from '@/ui/alarm/alarm';
import { clockDigits } from '@/ui/alarm/clockWords';
import type { RunLink } from './runLink';
import { answerClock, type BenchClock } from './useRun';
import styles from './RunScreen.module.css';

interface AlarmProps {
  link: RunLink;
  view: RunView;
  clock: BenchClock;
  /** How many more ring behind it. */
  waiting: number;
  now: number;
}

const SNOOZE_MINUTES = 5;

/** An alarm, over everything: what to do, and what was done about it in one press. */
export function Alarm({ link, view, clock, waiting, now }: AlarmProps) {
  const main = useRef<HTMLButtonElement>(null);
  const answer = (did: string | { snooze: number }): void => {
    readySound();
    answerClock(link, view, clock, did);
  };
  const [first, ...others] = clock.answers;
  const [, headline = clock.words, rest = ''] = /^(.+?\.)(?:\s+(.*))?$/s.exec(unbroken(clock.words)) ?? [];
  useEffect(() => {
    main.current?.focus();
    const down = (event: KeyboardEvent): void => {
      if (event.key !== ' ' || event.repeat) return;
      // The press that filled a cup must not answer what it has just set ringing.
      event.preventDefault();
      event.stopPropagation();
      if (performance.now() - shown > BOUNCE_MS) answerClock(link, view, clock, clock.answers[0]!);
    };
    const shown = performance.now();
    document.addEventListener('keydown', down, true);
    return () => document.removeEventListener('keydown', down, true);
  }, [clock.key]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <div className={styles.alarm} role="alertdialog" aria-label={clock.words} aria-modal="true">
      <div className={styles.alarmWords}>
        <p className={styles.alarmName}>
          {clock.run ? `${clock.run} · ` : view.run.practiceSpeed !== null ? 'practice · ' : ''}
          {clock.name}
          {now - clock.due > 60_000 && ` · due ${clockDigits(now - clock.due)} ago`}
          {waiting > 0 && ` · ${waiting} more ${waiting === 1 ? 'waits' : 'wait'}`}
        </p>
        <h2>{headline}</h2>
        {rest !== '' && <p className={styles.alarmHelp}>{rest}</p>}
        {CLOCK_KINDS[clock.kind].leakHelp && <p className={styles.alarmHelp}>On a leak: {ON_A_LEAK}</p>}
      </div>
      <div className={styles.alarmChoices}>
        <Button ref={main} variant="contained" className={styles.press ?? ''} onClick={() => answer(first!)}>
          <span className={styles.pressWords}>{answerWords(first!)}</span>
          <span className={`${styles.pressNext} by-key`}>space bar</span>
        </Button>
        <div className={styles.alarmOthers}>
          {others.map((did) => (
            <Button key={did} className={styles.side ?? ''} onClick={() => answer(did)}>
              {answerWords(did)}
            </Button>
          ))}
          <Button className={styles.side ?? ''} onClick={() => answer({ snooze: SNOOZE_MINUTES })}>
            Again in {SNOOZE_MINUTES} min
          </Button>
        </div>
      </div>
    </div>
  );
}

const BOUNCE_MS = 700;

/** Tags are not broken at their hyphen. */
const unbroken = (text: string): string => text.replace(/(\w)-(\w)/g, '$1\u2011$2');
