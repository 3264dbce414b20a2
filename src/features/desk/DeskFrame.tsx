'use client';

import { whenIdle } from '@/ui/whenIdle';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { lazy, type ReactNode, Suspense, useEffect, useMemo, useState } from 'react';
import { z } from 'zod';
import { dayAndMonth } from '@/core/time/dayNames';
import { flagged, STRIP_CUTS, stripPieces, type StripCutChoice } from '@/core/picture/strip';
import { countPieces } from '@/core/records/countPieces';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Toggles } from '@/ui/controls/Toggles';
import { Held } from '@/ui/held/Held';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { useKept } from '@/ui/keptDraft';
import { useOwnWords } from '@/ui/measure/UnitsContext';
import { useAwake } from '@/ui/useAwake';
import { findingWords, toMend } from '@/core/records/inspections';
import { WaterlineStrip } from '@/ui/waterline/WaterlineStrip';
import { EditNotices } from '../edits/EditNotices';
import { UnreadableNotice } from '../edits/UnreadableNotice';
import { TopBar } from '../TopBar';
import { useDesk, useDeskPlan, useLiveDesk } from './DeskContext';
import { BenchBell } from './BenchBell';
import { Finder } from '../find/Finder';
import { HelpDialog } from '../help/HelpDialog';
import { keptPicture } from './pictures';
import { STAGES, type StagePath } from '@/core/model/stages';
import { stageOfProblem } from './stages';
import { JobWords } from './JobWords';
import styles from './DeskFrame.module.css';

const loadEditSet = () => import('../sets/EditSetDialog');
const EditSet = lazy(async () => ({ default: (await loadEditSet()).EditSetDialog }));

interface DeskFrameProps {
  /** Reads the code of a stage, before it is gone to. */
  readAhead: (path: StagePath) => void;
  children: ReactNode;
}

/** What stands on every screen of a set: its head, the waterline, and the stages hung from the table edge. */
export function DeskFrame({ readAhead, children }: DeskFrameProps) {
  const { desk, edits } = useDesk();
  const { plan } = useDeskPlan();
  const router = useRouter();
  const pathname = usePathname();
  const [opened, setOpened] = useState<'keys' | 'set' | 'find' | null>(null);
  // Its code is there before it is opened, and still is when the server is not.
  useEffect(() => whenIdle(() => void loadEditSet().catch(() => undefined)), []);
  const base = `/sets/${desk.set.id}`;
  const shortcuts: Shortcut[] = [
    ...STAGES.map(({ path, name, key }) => ({ key, does: `Go to ${name}`, run: () => router.push(`${base}/${path}`) })),
    { key: 'z', mod: true, shift: false, does: 'Undo', run: edits.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: edits.redo },
    { key: '/', does: 'Find anything', run: () => setOpened('find') },
    { key: 'e', does: 'Set: name, product, recipe, bench windows, job', run: () => setOpened('set') },
    { key: '?', does: 'What this page says, and its keys', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  const { figureScaleMm, job, name } = desk.set.data;
  const { room, units } = desk.shelf.settings.data;
  const deepestColour = plan?.pieces[0]?.colour.deepest;
  const facts = [
    `${figureScaleMm} mm`,
    countPieces(desk.designs.map(({ data }) => data)),
    job?.due ? `for ${dayAndMonth(job.due)}` : '',
  ];
  return (
    <div className={styles.desk} style={deepestColour ? { ['--tint' as string]: deepestColour } : undefined}>
      <TopBar
        edits={edits}
        onFind={() => setOpened('find')}
        onKeys={() => setOpened('keys')}
        room={`${formatMeasure(room.temperatureC, 'temperature', units)} · ${Math.round(room.humidity * 100)}\u00a0%`}
      >
        <h1 className={styles.name}>{name}</h1>
        <span className={styles.facts}>{facts.filter(Boolean).join(' · ')}</span>
        <JobWords />
        <Button variant="text" size="small" aria-label="Change the set" onClick={() => setOpened('set')}>
          change
        </Button>
      </TopBar>
      <DeskStrip />
      <Stages base={base} readAhead={readAhead} />
      <UnreadableNotice unreadable={desk.unreadable} />
      <main className={styles.ground}>{children}</main>
      <EditNotices edits={edits} />
      <BenchBell />
      <HelpDialog
        open={opened === 'keys'}
        page={STAGES.find(({ path }) => pathname.startsWith(`${base}/${path}`))?.path ?? 'shape'}
        shortcuts={shortcuts}
        onClose={() => setOpened(null)}
      />
      <Suspense fallback={null}>{opened === 'set' && <EditSet onClose={() => setOpened(null)} />}</Suspense>
      {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
    </div>
  );
}

/** The way to each stage, with how many warnings wait there. */
function Stages({ base, readAhead }: { base: string; readAhead: DeskFrameProps['readAhead'] }) {
  const { desk } = useDesk();
  const { plan } = useDeskPlan();
  const pathname = usePathname();
  const troubles = (path: string): number =>
    (plan?.problems ?? []).filter(({ severity, code }) => severity !== 'hint' && stageOfProblem(code) === path).length;
  return (
    <nav className={styles.stages} aria-label="Stages of the work">
      {STAGES.map(({ path, name }) => {
        const trouble = troubles(path);
        return (
          <StageLink
            key={path}
            href={`${base}/${path}`}
            here={pathname.startsWith(`${base}/${path}`)}
            readAhead={() => readAhead(path)}
          >
            {name}
            {trouble > 0 && (
              <span className={styles.count}>
                {trouble}
                <span className="visually-hidden"> {trouble === 1 ? 'warning' : 'warnings'}</span>
              </span>
            )}
          </StageLink>
        );
      })}
      <Link href={`/shelf?from=${desk.set.id}`} className={styles.shelf}>
        Shelf
      </Link>
    </nav>
  );
}

interface StageLinkProps {
  href: string;
  here: boolean;
  readAhead: () => void;
  children: ReactNode;
}

/** The way to a stage: fetched when the pointer comes over it or the keys reach it, so that it is there when it is pressed. */
function StageLink({ href, here, readAhead, children }: StageLinkProps) {
  const [wanted, setWanted] = useState(false);
  const want = (): void => {
    if (wanted) return;
    setWanted(true);
    readAhead();
  };
  return (
    <Link
      href={href}
      prefetch={wanted && !here}
      // The head of the desk stays where it is; to look for where to scroll would lay the page out twice.
      scroll={false}
      onClick={() => window.scrollY > 0 && window.scrollTo(0, 0)}
      onPointerEnter={want}
      onFocus={want}
      className={styles.stage}
      aria-current={here ? 'page' : undefined}
    >
      {children}
    </Link>
  );
}

const CUT_WORDS: Record<StripCutChoice, string> = {
  edge: 'at an edge',
  middle: 'across the middle',
  deepest: 'at the deepest',
  own: 'along section lines',
};
const CUTS = STRIP_CUTS.map((value) => ({ value, label: CUT_WORDS[value] }));
const cutSchema = z.enum(STRIP_CUTS);

/** The set's waterline; every piece on it leads to its shape. */
function DeskStrip() {
  const { desk, openId, select, moveLevel } = useDesk();
  const { designs, levelMm, tint, served } = useLiveDesk();
  const { plan } = useDeskPlan();
  const router = useRouter();
  const pathname = usePathname();
  const awake = useAwake();
  const [everyPiece, setEveryPiece] = useState(false);
  const [cut, setCut] = useKept<StripCutChoice>('aguada.strip-cut', 'edge', cutSchema);
  const { tilt } = desk.shelf.settings.data;
  const bare = useMemo(() => {
    if (served && cut === 'edge') return served;
    // Only a browser builds beds where it draws them: the server has sent what it had.
    return awake ? stripPieces(designs, levelMm, tint, keptPicture, { cut }) : null;
  }, [served, cut, awake, designs, levelMm, tint]);
  const pieces = useMemo(() => bare && flagged(bare, plan, levelMm, tilt), [bare, plan, levelMm, tilt]);
  const own = useOwnWords();
  const found = useMemo(
    () => toMend(desk.batches).map(({ findings, ...one }) => ({ ...one, words: own(findingWords(findings)) })),
    [desk.batches, own],
  );
  const shape = `/sets/${desk.set.id}/shape`;
  const pickPiece = (id: string): void => {
    select(id);
    if (!pathname.startsWith(shape)) router.push(shape);
  };
  if (designs.length === 0)
    return (
      <p className={styles.bare}>
        The table is bare. Add the first piece{' '}
        {pathname.startsWith(shape) ? 'below' : <Link href={shape}>on Shape</Link>}: it will stand here, cut open at eye
        level.
      </p>
    );
  return (
    <div className={styles.waterline}>
      {pieces ? (
        <WaterlineStrip
          label="The set at eye level"
          pieces={pieces}
          levelMm={levelMm}
          everyPiece={everyPiece}
          selectedId={openId}
          onSelect={pickPiece}
          onLevel={moveLevel}
          found={found}
          caption={
            <>
              {found[0] && (
                <Link
                  className={styles.toMend}
                  href={`/sets/${desk.set.id}/log?show=looked&batch=${found[0].batchId}`}
                >{`${found.length} to mend`}</Link>
              )}
              <span className={styles.damKey}>dam</span>
              <Toggles label="Where pieces are cut open" value={cut} choices={CUTS} onChoose={setCut} />
              <Button variant="text" size="small" aria-pressed={everyPiece} onClick={() => setEveryPiece(!everyPiece)}>
                {everyPiece ? 'show one of each' : 'show every piece'}
              </Button>
            </>
          }
        />
      ) : (
        <div className={styles.heldStrip}>
          <Held label="The pieces are being cut open" rows={3} height={58} />
        </div>
      )}
    </div>
  );
}
