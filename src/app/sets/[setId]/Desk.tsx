'use client';

import type { ReactNode } from 'react';
import { DeskFrame } from '@/features/desk/DeskFrame';
import type { StagePath } from '@/core/model/stages';

const CODE: Record<StagePath, () => Promise<unknown>> = {
  shape: () => import('@/features/shape/ShapeStage'),
  match: () => import('@/features/match/MatchStage'),
  tint: () => import('@/features/tint/TintStage'),
  pour: () => import('@/features/pour/PourStage'),
  cure: () => import('@/features/cure/CureStage'),
  bench: () => import('@/features/bench/BenchStage'),
  log: () => import('@/features/log/LogStage'),
};

/** Reads the code of a stage ahead. Not there is no harm: the stage fetches it itself when it is gone to. */
const readAhead = (path: StagePath): void => void CODE[path]().catch(() => undefined);

/** The frame of the desk, which knows its stages by their paths only, with the code of each. */
export const Desk = ({ children }: { children: ReactNode }) => <DeskFrame readAhead={readAhead}>{children}</DeskFrame>;
