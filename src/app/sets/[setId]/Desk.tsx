'use client';

import type { ReactNode } from 'react';
import { DeskFrame } from '@/features/desk/DeskFrame';
import { STAGES, type StagePath } from '@/features/desk/stages';
import { whenCalm } from '@/ui/whenCalm';

const CODE: Record<StagePath, () => Promise<unknown>> = {
  shape: () => import('@/features/shape/ShapeStage'),
  match: () => import('@/features/match/MatchStage'),
  tint: () => import('@/features/tint/TintStage'),
  pour: () => import('@/features/pour/PourStage'),
  cure: () => import('@/features/cure/CureStage'),
  bench: () => import('@/features/bench/BenchStage'),
  log: () => import('@/features/log/LogStage'),
};

/** Not there is no harm: the stage fetches it itself when it is gone to. */
const read = (path: StagePath): Promise<unknown> => CODE[path]().catch(() => undefined);

/** So long after the first reach for a stage its page stands, and the code of the others may follow. */
const OTHERS_MS = 900;
let reached = false;

/** Reads the code of a stage ahead, and, the first time, that of the others after it: who has gone to one stage goes to more. */
function readAhead(path: StagePath): void {
  void read(path);
  if (reached) return;
  reached = true;
  setTimeout(() => void readOthers(), OTHERS_MS);
}

/** One after another, each when the page has nothing else to do. */
async function readOthers(): Promise<void> {
  for (const { path } of STAGES) {
    await new Promise<void>((calm) => void whenCalm(calm));
    await read(path);
  }
}

/** The frame of the desk, which knows its stages by their paths only, with the code of each. */
export const Desk = ({ children }: { children: ReactNode }) => <DeskFrame readAhead={readAhead}>{children}</DeskFrame>;
