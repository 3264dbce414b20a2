'use client';

import { useEffect, useState } from 'react';
import { beep, notify, takeAlarm } from './alarm';

const AGAIN_MS = 1600;
const FLASH_MS = 600;

/** Sounds, titles and notifies what rings first; the rest waits behind it. `title`: what the page is called otherwise; null leaves it. */
export function useAlarm(first: { key: string; words: string } | null, title: string | null): void {
  const key = first?.key ?? null;
  const words = first?.words ?? '';
  const [mine, setMine] = useState<string | null>(null);
  useEffect(() => {
    if (key === null) return;
    notify(key, 'Aguada', words);
    const release = takeAlarm(key, () => setMine(key));
    return () => {
      release();
      setMine(null);
    };
  }, [key, words]);
  useEffect(() => {
    if (key === null || mine !== key) return;
    beep();
    const timer = setInterval(beep, AGAIN_MS);
    return () => clearInterval(timer);
  }, [key, mine]);
  useEffect(() => {
    if (key === null) {
      if (title !== null) document.title = title;
      return;
    }
    const rest = title ?? document.title;
    let on = true;
    const turn = (): void => {
      document.title = on ? `● ${words}` : rest;
      on = !on;
    };
    turn();
    const timer = setInterval(turn, FLASH_MS);
    return () => {
      clearInterval(timer);
      document.title = rest;
    };
  }, [key, words, title]);
}

/** Keeps the screen from going dark while a run is shown, where the browser can. */
export function useAwakeScreen(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const take = (): void => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      void navigator.wakeLock.request('screen').then(
        (held) => {
          if (gone) void held.release();
          else lock = held;
        },
        () => undefined,
      );
    };
    take();
    document.addEventListener('visibilitychange', take);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', take);
      void lock?.release();
    };
  }, []);
}
