import { useEffect, useMemo, useState } from 'react';
import { fingerprint } from '@/core/plan';
import { setMatchRequest } from '@/core/records/buildRequest';
import type { MatchSet } from '@/core/seams/matchSet';
import { unpackMatch, type PackedMatch } from '@/core/seams/packedMatch';
import { useAwake } from '@/ui/useAwake';
import { matchInWorker, Stopped, stopMatching } from '@/workers/matching';
import { useDesk } from '../desk/DeskContext';
import { arrived, arrivedSince, type Served } from '../desk/useAmounts';
import type { MatchRequest } from '@/core/seams/matchTypes';

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

/**
 * Every seam of the set on the desk. What the server worked out is shown first (of a large set an extract); from then on a worker
 * does it, and the last answer stays while a newer one is on its way.
 */
export function useMatch(served: Served<PackedMatch> | null): Matching {
  const { desk } = useDesk();
  const [lane] = useState(() => Symbol('match'));
  const { set, designs, pieces, shelf } = desk;
  const [tries, setTries] = useState(0);
  const { levelMm, seamLimits, standards, row, recipeId } = set.data;
  const { recipes, colourants, settings } = shelf;
  const { tilt } = settings.data;
  const request = useMemo<MatchRequest>(
    () => setMatchRequest({ set, designs, pieces, shelf }),
    // Only what a match is made of: a new name of the set, or a batch, makes no other.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [designs, pieces, levelMm, seamLimits, standards, row, recipeId, recipes, colourants, tilt],
  );
  const awake = useAwake();
  const [done, setDone] = useState<{ request: MatchRequest; match: MatchSet | null } | null>(() => {
    const first =
      served && served.from === fingerprint(JSON.stringify(request))
        ? (awake ? arrivedSince : arrived)(served.figures)
        : null;
    return first && { request, match: unpackMatch(first) };
  });
  const [first] = useState(request);
  const [progress, setProgress] = useState<{ request: MatchRequest; share: number } | null>(null);
  const nothing = done === null;
  const whole = done?.request === request && done.match?.partial === false;
  useEffect(() => {
    if (whole) return;
    let current = true;
    const show = (match: MatchSet | null): void => {
      if (current && match) setDone({ request, match });
    };
    const figures = served?.figures;
    // What the server is at is not begun a second time beside it.
    if (nothing && figures && 'later' in figures && request === first) {
      figures.later.then((match) => show(unpackMatch(match)), reportError);
      return () => {
        current = false;
      };
    }
    matchInWorker(lane, { request, progress: (value) => current && setProgress({ request, share: value }) }).then(
      show,
      (error: unknown) =>
        error instanceof Stopped
          ? current && setDone((before) => ({ request, match: before?.match ?? null }))
          : reportError(error),
    );
    return () => {
      current = false;
    };
  }, [lane, request, tries, whole, nothing, served, first]);
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
