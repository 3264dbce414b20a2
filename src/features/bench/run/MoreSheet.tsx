'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Link from 'next/link';
import { useState, useSyncExternalStore } from 'react';
import { howLines } from '@/core/run/how';
import { NOTE_WORDS } from '@/core/run/runSchema';
import { isUnmixed, mixedGrams } from '@/core/run/cupState';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf } from '@/core/run/say';
import { LIVE_STEPS } from '@/core/run/steps';
import type { RunView } from '@/core/run/views';
import { formatOnScale } from '@/core/units/formatMeasure';
import { findUnit } from '@/core/units/quantities';
import { parseMeasure } from '@/core/units/parseMeasure';
import { LineForm } from '@/ui/controls/LineForm';
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

const SOURCE_WORDS: Record<ScaleSource, string> = {
  none: 'Press when the scale shows what is asked for, or type what it shows.',
  simulated: 'Hold a button to pour; on a keyboard ↓ pours, ↑ trickles, T tares, K knocks the bench.',
  line: 'Readings come from an instrument or from another window; the press waits until they are still.',
};

const never = (): (() => void) => () => undefined;

/** Everything that is not the step: notes, timers, the scale, giving up. */
export function MoreSheet({ open, onClose, link, view, send, source, setSource, clocks, now, watch }: MoreSheetProps) {
  const { state } = link;
  const how = state.current ? howLines(state, state.current, view.units) : [];
  const said = (press: Press): void => {
    send(press);
    onClose();
  };
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
        <LineForm
          label="In your words"
          press="Note it"
          className={styles.typing}
          buttonClass={styles.tool}
          send={(text) => said({ type: 'note', text })}
        />
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
        <Clocks clocks={clocks} now={now} said={said} />
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
        <Scale source={source} setSource={setSource} watch={watch} />
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
        <End {...{ state, view, send, said }} />
        <p className={`${styles.soft} by-key`}>Keys: space presses, Backspace goes back, M opens this.</p>
      </DialogContent>
    </Dialog>
  );
}

interface Says {
  /** Sends it and closes the sheet. */
  said: (press: Press) => void;
}

/** A clock of the maker's own, all that there are, and whether they may ring outside the page. */
function Clocks({ clocks, now, said }: Pick<MoreSheetProps, 'clocks' | 'now'> & Says) {
  const may = useSyncExternalStore(
    never,
    () => (typeof Notification === 'undefined' ? 'denied' : Notification.permission),
    () => 'denied',
  );
  const begin = (text: string): string | void => {
    const read = parseMeasure(text, 'duration', findUnit('duration', 'min')!);
    if (!read.ok) return read.message;
    if (!(read.value > 0) || read.value > 20_160) return 'Between a minute and two weeks';
    said({ type: 'timer', minutes: read.value, name: text });
  };
  return (
    <>
      <h3>Another clock</h3>
      <LineForm
        label="Rings in"
        press="Start it"
        first="10 min"
        className={styles.typing}
        buttonClass={styles.tool}
        send={begin}
      />
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
    </>
  );
}

/** Where readings come from. */
function Scale({ source, setSource, watch }: Pick<MoreSheetProps, 'source' | 'setSource' | 'watch'>) {
  return (
    <>
      <h3>The scale</h3>
      <Toggles label="Where readings come from" value={source} choices={SOURCES} onChoose={setSource} />
      <p className={styles.soft}>{SOURCE_WORDS[source]}</p>
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
    </>
  );
}

/** Ways to end a cup or the run; a reason is asked for where something is given away. */
function End({ state, view, send, said }: Pick<MoreSheetProps, 'view' | 'send'> & { state: RunState } & Says) {
  const [ending, setEnding] = useState<'give up' | 'discard' | null>(null);
  const { current } = state;
  const cup = current ? cupOf(state, current) : null;
  const cupGrams = (value: number): string => formatOnScale(value, state.plan.scaleStepGrams, view.units);
  const mixed = cup ? mixedGrams(cup, layerOf(state, cup.layer)) : 0;
  if (ending !== null)
    return (
      <>
        <h3>End</h3>
        <LineForm
          label={
            ending === 'give up' ? 'Why is it given up? What was poured stays in the log.' : 'Why is it thrown away?'
          }
          press={ending === 'give up' ? 'Give it up' : 'Throw it away'}
          most={200}
          color="error"
          className={styles.typing}
          buttonClass={styles.tool}
          field={{ autoFocus: true }}
          send={(why) =>
            said(ending === 'give up' ? { type: 'give up', why } : { type: 'discard', cup: cup!.key, why })
          }
        >
          <Button className={styles.tool ?? ''} onClick={() => setEnding(null)}>
            Not after all
          </Button>
        </LineForm>
        {cup && isUnmixed(cup) && (
          <p className={styles.soft}>
            {`${cupGrams(mixed)} in the cup are unmixed: they can go back into their bottle first.`}{' '}
            <Button className={styles.tool ?? ''} onClick={() => send({ type: 'return', cup: cup.key })}>
              Back into its bottle
            </Button>
          </p>
        )}
      </>
    );
  return (
    <>
      <h3>End</h3>
      <div className={styles.choices}>
        {cup && isUnmixed(cup) && (
          <Button className={styles.tool ?? ''} onClick={() => said({ type: 'return', cup: cup.key })}>
            Back into its bottle
          </Button>
        )}
        {cup && mixed > 0 && (
          <Button className={styles.tool ?? ''} onClick={() => setEnding('discard')}>
            Throw this cup away
          </Button>
        )}
        {current && LIVE_STEPS[current.kind].mayEnd && (
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
    </>
  );
}
