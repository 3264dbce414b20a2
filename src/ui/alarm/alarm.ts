'use client';

let context: AudioContext | null = null;

/** Browsers let sound out after a press only: every press makes it ready. */
export function readySound(): void {
  try {
    context ??= new AudioContext();
    if (context.state === 'suspended') void context.resume();
  } catch {
    // No sound on this machine: flash, title and notification remain.
  }
}

const BEEP_SECONDS = 0.16;
/** Up, up, high: told apart from what else beeps on a bench. */
const TONES_HZ = [660, 830, 1110] as const;

/** One call of the alarm. False when nothing may be heard. */
export function beep(): boolean {
  if (!context || context.state !== 'running') return false;
  const from = context.currentTime;
  TONES_HZ.forEach((hz, i) => {
    const tone = context!.createOscillator();
    const gain = context!.createGain();
    const at = from + i * (BEEP_SECONDS + 0.05);
    tone.type = 'triangle';
    tone.frequency.value = hz;
    gain.gain.setValueAtTime(0.0001, at);
    gain.gain.exponentialRampToValueAtTime(0.5, at + 0.02);
    gain.gain.exponentialRampToValueAtTime(0.0001, at + BEEP_SECONDS);
    tone.connect(gain).connect(context!.destination);
    tone.start(at);
    tone.stop(at + BEEP_SECONDS);
  });
  return true;
}

/** A click for each press and drop, short enough to be heard as one. */
export function click(): void {
  if (!context || context.state !== 'running') return;
  const tone = context.createOscillator();
  const gain = context.createGain();
  const at = context.currentTime;
  tone.frequency.value = 520;
  gain.gain.setValueAtTime(0.12, at);
  gain.gain.exponentialRampToValueAtTime(0.0001, at + 0.05);
  tone.connect(gain).connect(context.destination);
  tone.start(at);
  tone.stop(at + 0.06);
}

/** How long a window behind others lets the one in front go first; one that was never touched, and may not sound, waits longest. */
const BEHIND_MS = 400;
const MUTE_MS = 1500;
const maySound = (): boolean => context?.state === 'running';

/**
 * Becomes the window that sounds an alarm: one of those of a browser, the one in front if there is one. What is given back lets go;
 * `sounds` says whether it is this one.
 */
export function takeAlarm(id: string, sounds: (mine: boolean) => void): () => void {
  if (!('locks' in navigator)) {
    sounds(true);
    return () => undefined;
  }
  const gone = new AbortController();
  let release: (() => void) | null = null;
  const front = document.visibilityState === 'visible' && document.hasFocus();
  const timer = setTimeout(
    () =>
      void navigator.locks
        .request(`aguada.alarm.${id}`, { signal: gone.signal }, () => {
          sounds(true);
          return new Promise<void>((resolve) => (release = resolve));
        })
        .catch(() => undefined),
    maySound() ? (front ? 0 : BEHIND_MS) : MUTE_MS,
  );
  return () => {
    clearTimeout(timer);
    gone.abort();
    release?.();
  };
}

/** Shows a notification where it is allowed. One of a tag stands once, whichever windows show it. */
export function notify(tag: string, title: string, body: string): void {
  try {
    if (typeof Notification !== 'undefined' && Notification.permission === 'granted')
      new Notification(title, { body, tag, requireInteraction: true });
  } catch {
    // Some browsers take notifications from workers only.
  }
}
