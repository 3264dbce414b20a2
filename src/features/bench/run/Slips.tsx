'use client';

import { useEffect, useRef, useState } from 'react';
import Button from '@mui/material/Button';
import { SLIP_WORDS, slipsFor, type PlannedSlip } from '@/core/run/practice';
import type { RunView } from '@/core/run/views';
import type { RunLink } from './runLink';
import type { ScaleWatch } from './useScale';
import styles from './RunScreen.module.css';

export interface ShownSlip {
  words: string;
  /** Of a call: it goes on until then, on the run's clock. */
  until: number | null;
  over: () => void;
}

/** Throws the slips of a practice run in, each when its cup comes to it. */
export function useSlips(
  link: RunLink,
  view: RunView,
  watch: ScaleWatch,
  simulated: boolean,
  now: number,
): ShownSlip | null {
  const practice = view.run.practiceSpeed !== null;
  const [plan] = useState<PlannedSlip[]>(() => (practice ? slipsFor(view.plan, view.run.seed) : []));
  const [shown, setShown] = useState<{ slip: PlannedSlip; at: number } | null>(null);
  const thrown = useRef(new Set<string>());
  const { state } = link;
  const { current } = state;
  const cup = current && 'cup' in current ? state.cups.findIndex(({ key }) => key === current.cup) : -1;
  const kind = current?.kind ?? null;
  useEffect(() => {
    if (!practice || kind === null) return;
    const due = plan.find(
      ({ slip, cup: at }) =>
        !thrown.current.has(slip) &&
        !link.state.slips.some((one) => one.slip === slip) &&
        at === cup &&
        ((slip === 'bumped scale' && kind === 'weigh') ||
          (slip === 'cold part' && kind === 'weigh') ||
          (slip === 'phone' && kind === 'pour') ||
          (slip === 'leak' && kind === 'left')),
    );
    if (!due) return;
    const timer = setTimeout(() => {
      thrown.current.add(due.slip);
      link.press({ type: 'slip', slip: due.slip, seconds: due.slip === 'phone' ? due.amount : 0 });
      if (due.slip === 'bumped scale' && simulated) watch.simulated.knock(due.amount);
      if (due.slip === 'cold part')
        link.press({ type: 'room', temperatureC: view.plan.roomC - due.amount, humidity: null });
      setShown({ slip: due, at: link.now() });
    }, SOON_MS);
    return () => clearTimeout(timer);
  }, [practice, plan, cup, kind, link, watch, simulated, view.plan.roomC]);
  if (!shown) return null;
  const until = shown.slip.slip === 'phone' ? shown.at + shown.slip.amount * 1000 : null;
  if (until !== null && now > until) return null;
  return { words: SLIP_WORDS[shown.slip.slip], until, over: () => setShown(null) };
}

const SOON_MS = 1500;

export function SlipNotice({ slip }: { slip: ShownSlip | null }) {
  return slip ? (
    <div role="alert" className={styles.warn}>
      <p>{slip.words}</p>
      <Button className={styles.tool ?? ''} onClick={slip.over}>
        {slip.until === null ? 'Seen' : 'Let it ring'}
      </Button>
    </div>
  ) : null;
}
