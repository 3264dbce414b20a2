'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useState, useSyncExternalStore } from 'react';
import { howLines } from '@/core/run/how';
import { NOTE_WORDS } from '@/core/run/runSchema';
import { mixedGrams } from '@/core/run/cupState';
import { layerOf } from '@/core/run/runState';
import type { RunView } from '@/core/run/views';
import { findUnit } from '@/core/units/quantities';
import { parseMeasure } from '@/core/units/parseMeasure';
import { Toggles } from '@/ui/controls/Toggles';
import { MeasureField } from '@/ui/measure/MeasureField';
import { clockDigits } from '@/ui/alarm/clockWords';
import type { Press, RunLink } from './runLink';
import type { BenchClock } from './useRun';
import type { ScaleSource, ScaleWatch } from './useScale';
import styles from './RunScreen.module.css';

interface MoreSheetProps {
  open: boolean;
  onClose: () => void;
  link: RunLink;
  view: RunView;
  send: (press: Press) => boolean;
  source: ScaleSource;
  setSource: (source: ScaleSource) => void;
  clocks: readonly BenchClock[];
  now: number;
  watch: ScaleWatch;
}

const SOURCES = [
  { value: 'none' as const, label: 'By eye, typed' },
  { value: 'simulated' as const, label: 'Simulated' },
  { value: 'line' as const, label: 'What is on the bench' },
];

const never = (): (() => void) => () => undefined;

/** Everything that is not the step: notes, timers, the scale, giving up. */
export function MoreSheet({ open, onClose, link, view, send, source, setSource, clocks, now, watch }: MoreSheetProps) {
  const [note, setNote] = useState('');
  const [timer, setTimer] = useState('10 min');
  const [timerError, setTimerError] = useState<string | null>(null);
  const [ending, setEnding] = useState<'give up' | 'discard' | null>(null);
  const [why, setWhy] = useState('');
  const { state } = link;
  const may = useSyncExternalStore(
    never,
    () => (typeof Notification === 'undefined' ? 'denied' : Notification.permission),
    () => 'denied',
  );
  const cup =
    state.current && 'cup' in state.current
      ? state.cups.find(({ key }) => state.current && 'cup' in state.current && key === state.current.cup)
      : undefined;
  const how = state.current ? howLines(state, state.current, view.units) : [];
  const mixed = cup ? mixedGrams(cup, layerOf(state, cup.layer)) : 0;
  const said = (press: Press): void => {
    send(press);
    onClose();
  };
  const setATimer = (): void => {
    const read = parseMeasure(timer, 'duration', findUnit('duration', 'min')!);
    if (!read.ok) return setTimerError(read.message);
    if (!(read.value > 0) || read.value > 20_160) return setTimerError('Between a minute and two weeks');
    said({ type: 'timer', minutes: read.value, name: timer.trim() });
  };
  const finishes = state.current && ['wait', 'end', 'dams off'].includes(state.current.kind);
  return (
    <Dialog
      disablePortal
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      aria-labelledby="more-title"
      className={styles.sheet ?? ''}
    >
      <DialogTitle id="more-title">More</DialogTitle>
      <DialogContent>
        <h3>Note it down</h3>
        <div className={styles.choices}>
          {NOTE_WORDS.map((text) => (
            <Button key={text} className={styles.tool ?? ''} onClick={() => said({ type: 'note', text })}>
              {text}
            </Button>
          ))}
        </div>
        <form
          className={styles.typing}
          onSubmit={(event) => {
            event.preventDefault();
            if (note.trim() === '') return;
            said({ type: 'note', text: note.trim().slice(0, 500) });
            setNote('');
          }}
        >
          <TextField
            label="In your words"
            value={note}
            autoComplete="off"
            onChange={(event) => setNote(event.target.value)}
          />
          <Button type="submit" className={styles.tool ?? ''} disabled={note.trim() === ''}>
            Note it
          </Button>
        </form>
        {how.length > 0 && (
          <>
            <h3>How these figures came about</h3>
            <ul className={styles.allClocks}>
              {how.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </>
        )}
        <h3>Another clock</h3>
        <form
          className={styles.typing}
          onSubmit={(event) => {
            event.preventDefault();
            setATimer();
          }}
        >
          <TextField
            label="Rings in"
            value={timer}
            error={timerError !== null}
            helperText={timerError}
            onChange={(event) => (setTimer(event.target.value), setTimerError(null))}
          />
          <Button type="submit" className={styles.tool ?? ''}>
            Start it
          </Button>
        </form>
        {clocks.length > 0 && (
          <ul className={styles.allClocks} aria-label="All clocks">
            {clocks.map((clock) => (
              <li key={clock.key}>
                <b>{clockDigits((clock.snoozedTo ?? clock.due) - now)}</b> {clock.run ? `${clock.run}: ` : ''}
                {clock.words}
              </li>
            ))}
          </ul>
        )}
        {may === 'default' && (
          <Button className={styles.tool ?? ''} onClick={() => void Notification.requestPermission()}>
            Let alarms show as notifications
          </Button>
        )}
        <h3>The room</h3>
        <div className={styles.typing}>
          <MeasureField
            label="It is now"
            quantity="temperature"
            value={state.room.at(-1)!.temperatureC}
            onCommit={(value) =>
              void send({ type: 'room', temperatureC: Math.min(60, Math.max(-20, value)), humidity: null })
            }
          />
        </div>
        <h3>The scale</h3>
        <Toggles label="Where readings come from" value={source} choices={SOURCES} onChoose={setSource} />
        <p className={styles.soft}>
          {source === 'none'
            ? 'Press when the scale shows what is asked for, or type what it shows.'
            : source === 'simulated'
              ? 'Hold ↓ to pour, ↑ for a trickle; T tares, K knocks the bench.'
              : 'Readings come from an instrument or from another window; the press waits until they are still.'}
        </p>
        {source === 'simulated' && (
          <div className={styles.choices}>
            <Button className={styles.tool ?? ''} onClick={() => watch.simulated.tare()}>
              Tare
            </Button>
            <Button className={styles.tool ?? ''} onClick={() => watch.simulated.knock(6)}>
              Knock the bench
            </Button>
          </div>
        )}
        {link.others.length > 0 && (
          <>
            <h3>Other runs</h3>
            <ul className={styles.allClocks}>
              {link.others.map(({ id, name, next }) => (
                <li key={id}>
                  <Link href={`/run/${id}`}>{name}</Link>: {next}
                </li>
              ))}
            </ul>
          </>
        )}
        <h3>End</h3>
        {ending === null ? (
          <div className={styles.choices}>
            {cup && mixed > 0 && (
              <Button className={styles.tool ?? ''} onClick={() => setEnding('discard')}>
                Throw this cup away
              </Button>
            )}
            {finishes && (
              <Button className={styles.tool ?? ''} onClick={() => said({ type: 'finish' })}>
                Close the run
              </Button>
            )}
            {!state.over && (
              <Button className={styles.tool ?? ''} color="error" onClick={() => setEnding('give up')}>
                Give the run up
              </Button>
            )}
            <Button className={styles.tool ?? ''} component={Link} href={`/sets/${view.run.setId}/bench`}>
              Leave it; it goes on
            </Button>
          </div>
        ) : (
          <form
            className={styles.typing}
            onSubmit={(event) => {
              event.preventDefault();
              if (why.trim() === '') return;
              const text = why.trim().slice(0, 200);
              said(
                ending === 'give up' ? { type: 'give up', why: text } : { type: 'discard', cup: cup!.key, why: text },
              );
              setEnding(null);
              setWhy('');
            }}
          >
            <TextField
              autoFocus
              label={
                ending === 'give up'
                  ? 'Why is it given up? What was poured stays in the log.'
                  : 'Why is it thrown away?'
              }
              value={why}
              onChange={(event) => setWhy(event.target.value)}
            />
            <Button type="submit" className={styles.tool ?? ''} color="error" disabled={why.trim() === ''}>
              {ending === 'give up' ? 'Give it up' : 'Throw it away'}
            </Button>
            <Button className={styles.tool ?? ''} onClick={() => setEnding(null)}>
              Not after all
            </Button>
          </form>
        )}
        <p className={styles.soft}>Keys: space presses, Backspace goes back, M opens this.</p>
      </DialogContent>
    </Dialog>
  );
}
