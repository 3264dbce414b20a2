'use client';

import IconButton from '@mui/material/IconButton';
import { useColorScheme } from '@mui/material/styles';
import { useAwake } from '../useAwake';

/** Turns the lamp theme on and off. */
export function LampSwitch() {
  const { mode, systemMode, setMode } = useColorScheme();
  // The server does not know the mode; say nothing about it until the page has woken.
  const awake = useAwake();
  const lamp = awake && (mode === 'system' ? systemMode : mode) === 'dark';
  return (
    <IconButton
      size="small"
      aria-label={lamp ? 'Back to paper' : 'Lamp theme'}
      title={lamp ? 'Back to paper' : 'Lamp theme, for dim light'}
      aria-pressed={lamp}
      onClick={() => setMode(lamp ? 'light' : 'dark')}
    >
      <svg
        width="20"
        height="20"
        viewBox="0 0 20 20"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinecap="round"
        aria-hidden
      >
        <path d="M5 9.5 10 3l5 6.5Z" fill={lamp ? 'currentColor' : 'none'} strokeLinejoin="round" />
        <path d="M10 9.5V16M6 17h8" />
      </svg>
    </IconButton>
  );
}
