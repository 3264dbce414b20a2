'use client';

import { useEffect, useMemo, useState } from 'react';
import { matchPieces, wholeSetRequest } from '@/core/records/buildRequest';
import type { MatchRequest, MatchSet } from '@/core/seams/matchSet';
import type { RowRules } from '@/core/seams/row';
import { SEAM_LIMITS } from '@/core/seams/schema';
import { matchInWorker } from '@/workers/matching';
import { useDesk } from '../desk/DeskContext';

/** Every seam of the set on the desk, worked out in a worker; the last answer stays while a newer one is on its way. */
export function useMatch(row: RowRules): { request: MatchRequest; match: MatchSet | null; matching: boolean } {
  const { desk } = useDesk();
  const [lane] = useState(() => Symbol('match'));
  const { set, designs, pieces, shelf } = desk;
  const request = useMemo<MatchRequest>(() => ({
    pieces: matchPieces({ set, designs, pieces }), levelMm: set.data.levelMm, limits: set.data.seamLimits ?? SEAM_LIMITS, standards: set.data.standards ?? [],
    tilt: shelf.settings.data.tilt, doses: wholeSetRequest(desk)?.recipe.doses ?? [], row,
  }), [desk, set, designs, pieces, shelf, row]);
  const [done, setDone] = useState<{ request: MatchRequest; match: MatchSet } | null>(null);
  useEffect(() => {
    let current = true;
    matchInWorker(lane, request).then(
      (match) => current && match && setDone({ request, match }),
      (error: unknown) => reportError(error),
    );
    return () => {
      current = false;
    };
  }, [lane, request]);
  return { request, match: done?.match ?? null, matching: done?.request !== request };
}
