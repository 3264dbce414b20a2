import { useEffect, useMemo, useState } from 'react';
import { matchPieces, wholeSetRequest } from '@/core/records/buildRequest';
import type { MatchRequest, MatchSet } from '@/core/seams/matchSet';
import { NO_WISH, SEAM_LIMITS } from '@/core/seams/schema';
import { matchInWorker, Stopped, stopMatching } from '@/workers/matching';
import { useDesk } from '../desk/DeskContext';

/** The match of the set on the desk, and how far the newest one is. */
export interface Matching {
  request: MatchRequest;
  match: MatchSet | null;
  /** Share that is done of the match on its way; null when there is none. */
  share: number | null;
  /** Stops it: what is on screen stays, though it may be of yesterday. */
  stop: () => void;
  stopped: boolean;
  again: () => void;
}

/** Every seam of the set on the desk, worked out in a worker; the last answer stays while a newer one is on its way. */
export function useMatch(): Matching {
  const { desk } = useDesk();
  const [lane] = useState(() => Symbol('match'));
  const { set, designs, pieces, shelf } = desk;
  const [tries, setTries] = useState(0);
  const request = useMemo<MatchRequest>(
    () => ({
      pieces: matchPieces({ set, designs, pieces }),
      levelMm: set.data.levelMm,
      limits: set.data.seamLimits ?? SEAM_LIMITS,
      standards: set.data.standards ?? [],
      tilt: shelf.settings.data.tilt,
      doses: wholeSetRequest(desk)?.recipe.doses ?? [],
      row: set.data.row ?? NO_WISH,
    }),
    [desk, set, designs, pieces, shelf],
  );
  const [done, setDone] = useState<{ request: MatchRequest; match: MatchSet | null } | null>(null);
  const [progress, setProgress] = useState<{ request: MatchRequest; share: number } | null>(null);
  useEffect(() => {
    let current = true;
    matchInWorker(lane, { request, progress: (value) => current && setProgress({ request, share: value }) }).then(
      (match) => current && match && setDone({ request, match }),
      (error: unknown) =>
        error instanceof Stopped
          ? current && setDone((before) => ({ request, match: before?.match ?? null }))
          : reportError(error),
    );
    return () => {
      current = false;
    };
  }, [lane, request, tries]);
  const [stoppedAt, setStoppedAt] = useState<MatchRequest | null>(null);
  const stop = (): void => {
    setStoppedAt(request);
    stopMatching();
  };
  const again = (): void => {
    setStoppedAt(null);
    setDone((before) => before && { ...before, request: { ...before.request } });
    setTries((count) => count + 1);
  };
  return {
    request,
    match: done?.match ?? null,
    share: done?.request === request ? null : progress?.request === request ? progress.share : 0,
    stop,
    stopped: stoppedAt === request,
    again,
  };
}
