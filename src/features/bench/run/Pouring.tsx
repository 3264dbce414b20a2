'use client';

import { fromBottle } from '@/core/pouring/portions';
import Button from '@mui/material/Button';
import { useCallback, useEffect, useRef } from 'react';
import { attemptKey, inCupGrams } from '@/core/run/cupState';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf } from '@/core/run/say';
import type { RunStep } from '@/core/run/steps';
import { click } from '@/ui/alarm/alarm';
import type { ScaleWatch } from './useScale';
import styles from './RunScreen.module.css';

interface PouringProps {
  state: RunState;
  step: RunStep;
  watch: ScaleWatch;
  onPiece: boolean;
}

/** How a bottle runs at full tilt and by the trickle, g/s. */
const BOTTLE = { full: 6, trickle: 0.6 };

/** The simulated bottle and cup: held, they pour. Also the keys ↓ and, by the trickle, ↑. */
export function Pouring({ state, step, watch, onPiece }: PouringProps) {
  const cup = cupOf(state, step)!;
  const layer = layerOf(state, cup.layer);
  const out = step.kind === 'pour';
  const piece = out && (onPiece || fromBottle(layer, cup.plan));
  const holds = inCupGrams(cup, layer);
  // What stands on the scale follows the step: the cup, or the next dry piece.
  const standing = piece
    ? `piece ${step.id}`
    : `cup ${attemptKey(cup)} ${state.cups.length} ${state.thrownAway.length}`;
  const put = useRef<string | null>(null);
  const start = piece ? 0 : holds;
  useEffect(() => {
    if (put.current === standing) return;
    put.current = standing;
    watch.simulated.setDown(start);
  }, [standing, start, watch]);
  const full = out ? layer.product.pourGramsPerMinute / 60 : BOTTLE.full;
  const pour = useCallback(
    (share: number): void => {
      const rate = share === 0 ? 0 : share * full;
      watch.simulated.pour(out && !piece ? -rate : rate, out && !piece ? 0 : undefined);
    },
    [full, out, piece, watch],
  );
  useEffect(() => {
    const down = (event: KeyboardEvent): void => {
      if (event.repeat || !(event.key === 'ArrowDown' || event.key === 'ArrowUp')) return;
      if (event.target instanceof HTMLInputElement) return;
      event.preventDefault();
      pour(event.key === 'ArrowDown' ? 1 : BOTTLE.trickle / BOTTLE.full);
    };
    const up = (event: KeyboardEvent): void => {
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') pour(0);
      if (event.key === 'k') watch.simulated.knock(6);
      if (event.key === 't') watch.simulated.tare();
    };
    const stop = (): void => pour(0);
    document.addEventListener('keydown', down);
    document.addEventListener('keyup', up);
    window.addEventListener('blur', stop);
    return () => {
      pour(0);
      document.removeEventListener('keydown', down);
      document.removeEventListener('keyup', up);
      window.removeEventListener('blur', stop);
    };
  }, [pour, watch]);
  const hold = (share: number) => ({
    onPointerDown: (event: React.PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      click();
      pour(share);
    },
    onPointerUp: () => pour(0),
    onPointerCancel: () => pour(0),
    onContextMenu: (event: React.MouseEvent) => event.preventDefault(),
  });
  return (
    <>
      <Button className={styles.tool ?? ''} {...hold(1)}>
        Hold to pour <kbd>↓</kbd>
      </Button>
      <Button className={styles.tool ?? ''} {...hold(BOTTLE.trickle / BOTTLE.full)}>
        Trickle <kbd>↑</kbd>
      </Button>
    </>
  );
}
