'use client';

import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useMemo, useState, type ReactNode } from 'react';
import { dayAndMonth } from '@/core/cure/dayNames';
import { formatMeasure } from '@/core/units/formatMeasure';
import { KeyList } from '@/ui/keys/KeyList';
import { useShortcuts, type Shortcut } from '@/ui/keys/useShortcuts';
import { WaterlineStrip } from '@/ui/waterline/WaterlineStrip';
import { DoorNotices } from '../door/DoorNotices';
import { EditSetDialog } from '../sets/EditSetDialog';
import { TopBar } from '../TopBar';
import { useDesk, useDeskPlan, useLiveDesk } from './DeskContext';
import { Finder } from './Finder';
import { stageOfProblem, STAGES } from './stages';
import { stripPieces } from './useBed';
import styles from './DeskFrame.module.css';

/** What stands on every screen of a set: its head, the waterline, and the stages hung from the table edge. */
export function DeskFrame({ children }: { children: ReactNode }) {
  const { desk, door } = useDesk();
  const { plan } = useDeskPlan();
  const router = useRouter();
  const pathname = usePathname();
  const [opened, setOpened] = useState<'keys' | 'set' | 'find' | null>(null);
  const base = `/sets/${desk.set.id}`;
  const shortcuts: Shortcut[] = [
    ...STAGES.map(({ path, name, key }) => ({ key, does: `Go to ${name}`, run: () => router.push(`${base}/${path}`) })),
    { key: 'z', mod: true, shift: false, does: 'Undo', run: door.undo },
    { key: 'z', mod: true, shift: true, does: 'Redo', run: door.redo },
    { key: '/', does: 'Find a piece, batch or product', run: () => setOpened('find') },
    { key: 'e', does: 'Set: name, product, recipe, bench windows, job', run: () => setOpened('set') },
    { key: '?', does: 'This list', run: () => setOpened('keys') },
  ];
  useShortcuts(shortcuts);
  const { figureScaleMm, job, name } = desk.set.data;
  const { room, units } = desk.shelf.settings.data;
  const deepestColour = plan?.pieces[0]?.colour.deepest;
  return (
    <div className={styles.desk} style={deepestColour ? { ['--tint' as string]: deepestColour } : undefined}>
      <TopBar
        door={door}
        onFind={() => setOpened('find')}
        onKeys={() => setOpened('keys')}
        room={`${formatMeasure(room.temperatureC, 'temperature', units)} · ${Math.round(room.humidity * 100)}\u00a0%`}
      >
        <h1 className={styles.name}>{name}</h1>
        <button type="button" className={styles.facts} onClick={() => setOpened('set')}>
          {[
            `${figureScaleMm} mm`,
            countPieces(desk.designs.map(({ data }) => data)),
            job?.due ? `for ${dayAndMonth(job.due)}` : '',
          ]
            .filter(Boolean)
            .join(' · ')}
          <span className={styles.change}>change</span>
        </button>
      </TopBar>
      <DeskStrip />
      <nav className={styles.stages} aria-label="Stages of the work">
        {STAGES.map(({ path, name: stage }) => {
          // Times belong to a batch, not to the set; the Cure stage says what is wrong with them.
          const trouble =
            path === 'cure'
              ? 0
              : (plan?.problems.filter(({ severity, code }) => severity !== 'hint' && stageOfProblem(code) === path)
                  .length ?? 0);
          const here = pathname.startsWith(`${base}/${path}`);
          return (
            <Link
              key={path}
              href={`${base}/${path}`}
              className={styles.stage}
              aria-current={here ? 'page' : undefined}
              prefetch
            >
              {stage}
              {trouble > 0 && (
                <span className={styles.count}>
                  {trouble}
                  <span className="visually-hidden"> {trouble === 1 ? 'warning' : 'warnings'}</span>
                </span>
              )}
            </Link>
          );
        })}
        <Link href={`/shelf?from=${desk.set.id}`} className={styles.shelf}>
          Shelf
        </Link>
      </nav>
      <main className={styles.ground}>{children}</main>
      <DoorNotices door={door} />
      <KeyList open={opened === 'keys'} shortcuts={shortcuts} onClose={() => setOpened(null)} />
      {opened === 'set' && <EditSetDialog onClose={() => setOpened(null)} />}
      {opened === 'find' && <Finder onClose={() => setOpened(null)} />}
    </div>
  );
}

/** The set's waterline; every piece on it leads to its shape. */
function DeskStrip() {
  const { desk, openId, select, moveLevel } = useDesk();
  const { designs, levelMm, recipe } = useLiveDesk();
  const { plan } = useDeskPlan();
  const router = useRouter();
  const pathname = usePathname();
  const [everyPiece, setEveryPiece] = useState(false);
  const { tilt } = desk.shelf.settings.data;
  const pieces = useMemo(
    () => stripPieces(designs, levelMm, recipe, plan, tilt),
    [designs, levelMm, recipe, plan, tilt],
  );
  const shape = `/sets/${desk.set.id}/shape`;
  const pickPiece = (id: string): void => {
    select(id);
    if (!pathname.startsWith(shape)) router.push(shape);
  };
  if (pieces.length === 0)
    return (
      <p className={styles.bare}>
        The table is bare. Add the first piece below: it will stand here, cut open at eye level.
      </p>
    );
  return (
    <div className={styles.waterline}>
      <WaterlineStrip
        label="The set at eye level"
        pieces={pieces}
        levelMm={levelMm}
        everyPiece={everyPiece}
        selectedId={openId}
        onSelect={pickPiece}
        onLevel={moveLevel}
        caption={
          <>
            <span className={styles.damKey}>dam</span>
            <button
              type="button"
              className={styles.toggle}
              aria-pressed={everyPiece}
              onClick={() => setEveryPiece(!everyPiece)}
            >
              {everyPiece ? 'show one of each' : 'show every piece'}
            </button>
          </>
        }
      />
    </div>
  );
}

const WORDS = { tile: ['tile', 'tiles'], board: ['board', 'boards'], base: ['base', 'bases'] } as const;

/** `10 tiles, 4 boards, 24 bases`. */
export function countPieces(designs: readonly { kind: 'tile' | 'board' | 'base'; copies: number }[]): string {
  return (['tile', 'board', 'base'] as const)
    .map((kind) => ({
      kind,
      count: designs.filter((design) => design.kind === kind).reduce((sum, { copies }) => sum + copies, 0),
    }))
    .filter(({ count }) => count > 0)
    .map(({ kind, count }) => `${count} ${WORDS[kind][count === 1 ? 0 : 1]}`)
    .join(', ');
}
