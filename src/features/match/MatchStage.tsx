'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import type { MatchSet } from '@/core/seams/matchSet';
import type { PackedMatch } from '@/core/seams/packedMatch';
import { TabRow } from '@/ui/controls/TabRow';
import { Held } from '@/ui/held/Held';
import { useDesk } from '../desk/DeskContext';
import type { Served } from '../desk/useAmounts';
import { MeasureView } from './MeasureView';
import { RowView } from './RowView';
import { SeamsView } from './SeamsView';
import { StandardsView } from './StandardsView';
import { TableView } from './TableView';
import { useMatch, type Matching } from './useMatch';
import styles from './MatchStage.module.css';

/** The parts of the Match stage: what is known of the seams, the arrangements, what is agreed, what was measured. */
const VIEWS = [
  { show: 'seams', name: 'Seams' },
  { show: 'row', name: 'Row of boards' },
  { show: 'table', name: 'Tiles on a table' },
  { show: 'standards', name: 'Edge standards' },
  { show: 'measure', name: 'Measuring' },
] as const;
type View = (typeof VIEWS)[number]['show'];

/** Match: which edges meet, how well, in which arrangement, and what closes them. */
export function MatchStage({ served }: { served: Served<PackedMatch> | null }) {
  const { desk } = useDesk();
  const matching = useMatch(served);
  const { match } = matching;
  const asked = useSearchParams().get('show');
  if (desk.designs.length === 0)
    return (
      <p className={styles.teach}>Add pieces on the Shape stage first; here their edges are held against each other.</p>
    );
  if (match && match.edges.length === 0)
    return (
      <p className={styles.teach}>
        These pieces stand free: none has a straight edge that meets another. There is nothing to match.
      </p>
    );
  const kinds = new Set(desk.designs.map(({ data }) => data.kind));
  const views = VIEWS.filter(
    ({ show }) => (show !== 'row' || kinds.has('board')) && (show !== 'table' || kinds.has('tile')),
  );
  const view: View = views.find(({ show }) => show === asked)?.show ?? 'seams';
  return (
    <div className={styles.match} aria-busy={matching.share !== null}>
      <div className={styles.top}>
        <TabRow
          label="Parts of Match"
          value={view}
          tabs={views.map(({ show, name }) => ({
            value: show,
            href: `/sets/${desk.set.id}/match${show === 'seams' ? '' : `?show=${show}`}`,
            label: (
              <span>
                {name}
                <Count view={show} match={match} />
              </span>
            ),
          }))}
        />
        <MatchProgress matching={matching} />
      </div>
      <Part view={view} matching={matching} />
    </div>
  );
}

/** How many seams that are meant to meet show, and how many edges depart from their standard. */
function Count({ view, match }: { view: View; match: MatchSet | null }) {
  const count =
    match && view === 'seams' ? match.counts.meantShows : match && view === 'standards' ? match.counts.departs : 0;
  if (count === 0) return null;
  return (
    <span className={styles.count}>
      {count}
      <span className="visually-hidden">{view === 'seams' ? ' that show' : ' that depart'}</span>
    </span>
  );
}

function Part({ view, matching }: { view: View; matching: Matching }) {
  // The seam that is looked at stays the same from part to part.
  const [chosen, setChosen] = useState<string | null>(null);
  if (!matching.match && view !== 'standards' && view !== 'measure')
    return <Held label="Holding the edges against each other" />;
  if (view === 'row') return <RowView matching={matching} />;
  if (view === 'table') return <TableView matching={matching} />;
  if (view === 'standards') return <StandardsView match={matching.match} />;
  if (view === 'measure') return <MeasureView match={matching.match} />;
  return <SeamsView matching={matching} chosen={chosen} onChoose={setChosen} />;
}

/** How far the match is that is being worked out, and the way to stop it. */
function MatchProgress({ matching: { match, share, stop, stopped, again } }: { matching: Matching }) {
  if (stopped) {
    return (
      <p className={styles.progress}>
        Stopped; what you see may be older.{' '}
        <Button size="small" onClick={again}>
          Match again
        </Button>
      </p>
    );
  }
  if (share === null) return null;
  return (
    <p className={styles.progress}>
      <LinearProgress variant="determinate" value={share * 100} aria-label="Matching" />
      {match ? 'Matching anew…' : 'Matching…'}{' '}
      <Button size="small" onClick={stop}>
        Stop
      </Button>
    </p>
  );
}
