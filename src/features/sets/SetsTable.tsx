'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { dayAndMonth } from '@/core/time/dayNames';
import { countPieces } from '@/core/records/countPieces';
import { unpackStrip } from '@/core/picture/packedStrip';
import type { SetCard, SetLook } from '@/core/records/views';
import { dueWords, SET_ORDERS, sortedSets, type SetOrder } from '@/core/records/work';
import { WaterlineStrip } from '@/ui/waterline/WaterlineStrip';
import { useLooks } from './useLooks';
import { useWindowRows } from '@/ui/useWindowRows';
import styles from './SetsScreen.module.css';

const ROW_PX = 148;
/** A few sets have room for their strips at full width. */
const FEW = 3;
const WIDE_PX = 190;
/** From so many sets on there is a field to find one. */
const MANY = 8;
const HEADS: Record<SetOrder, string> = { name: 'Set', next: 'Next', due: 'Due' };

/** All sets as a table of works: each led by its waterline, with what comes next, what cures and when it is due. */
export function SetsTable({ sets, count, now }: { sets: readonly SetCard[]; count: number; now: string }) {
  const [order, setOrder] = useState<SetOrder>('next');
  const [find, setFind] = useState('');
  const [withAway, setWithAway] = useState(false);
  const away = sets.filter(({ set }) => set.data.putAway).length;
  const shown = useMemo(() => {
    const words = find.trim().toLowerCase();
    const fits = ({ set: { data } }: SetCard): boolean =>
      `${data.name} ${data.job?.customer ?? ''}`.toLowerCase().includes(words);
    const inSight = withAway ? sets : sets.filter(({ set }) => !set.data.putAway);
    return sortedSets(words === '' ? inSight : inSight.filter(fits), order);
  }, [sets, find, order, withAway]);
  const wide = count <= FEW;
  const { looks, want } = useLooks();
  const body = useRef<HTMLTableSectionElement>(null);
  const { rows, items } = useWindowRows({
    count: shown.length,
    estimateSize: () => (wide ? WIDE_PX + 90 : ROW_PX),
    overscan: 4,
    getItemKey: (index) => shown[index]!.set.id,
  });
  const above = items[0]?.start ?? 0;
  const below = rows.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <>
      {count > MANY && (
        <TextField
          label="Find a set"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          className={styles.find}
          autoComplete="off"
        />
      )}
      <Table className={styles.works} aria-label="Sets">
        <TableHead>
          <TableRow>
            {!wide && <TableCell>At eye level</TableCell>}
            {SET_ORDERS.map((key) => (
              <TableCell key={key} sortDirection={order === key ? 'asc' : false}>
                <TableSortLabel active={order === key} onClick={() => setOrder(key)}>
                  {HEADS[key]}
                </TableSortLabel>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody ref={body}>
          {above > 0 && (
            <tr aria-hidden>
              <td colSpan={wide ? 3 : 4} style={{ height: above }} />
            </tr>
          )}
          {items.map(({ index, key }) => (
            <Work
              key={key}
              card={shown[index]!}
              look={shown[index]!.look ?? looks.get(shown[index]!.set.id) ?? null}
              want={want}
              now={now}
              wide={wide}
            />
          ))}
          {below > 0 && (
            <tr aria-hidden>
              <td colSpan={wide ? 3 : 4} style={{ height: below }} />
            </tr>
          )}
        </TableBody>
      </Table>
      {shown.length === 0 && (
        <p className={styles.none}>{find.trim() === '' ? 'Every set is put away.' : 'No set is called that.'}</p>
      )}
      {away > 0 && (
        <Button variant="text" onClick={() => setWithAway(!withAway)}>
          {withAway ? 'Only those in sight' : `Put away, ${away}`}
        </Button>
      )}
    </>
  );
}

interface LookProps {
  card: SetCard;
  look: SetLook | null;
  /** Asks for the look of a set. */
  want: (id: string) => void;
}

interface StripProps extends LookProps {
  heightPx: number;
  firstWidthPx: number;
}

/** The strip of a set, the table it will stand on until it is drawn, or that it has no pieces yet. */
function Strip({ card, look, want, heightPx, firstWidthPx }: StripProps) {
  const { name, levelMm } = card.set.data;
  const { id } = card.set;
  const empty = card.pieces.length === 0;
  useEffect(() => {
    if (!look && !empty) want(id);
  }, [look, empty, want, id]);
  const pieces = useMemo(() => (look ? unpackStrip(look.strip, look.pieces, levelMm) : []), [look, levelMm]);
  if (empty) return <span className={styles.small}>no pieces yet</span>;
  if (!look)
    return (
      <span
        className={styles.coming}
        style={{ height: heightPx }}
        role="img"
        aria-label={`${name} at eye level, being drawn`}
      />
    );
  return (
    <WaterlineStrip
      label={`${name} at eye level`}
      pieces={pieces}
      levelMm={levelMm}
      heightPx={heightPx}
      firstWidthPx={firstWidthPx}
      plain
    />
  );
}

function Work({ card, look, want, now, wide }: LookProps & { now: string; wide: boolean }) {
  const { set, pieces, batches, next, curing } = card;
  const { name, figureScaleMm, job } = set.data;
  const base = `/sets/${set.id}`;
  const due = job?.due ? dueWords(job.due, now) : null;
  return (
    <>
      {wide && (
        <TableRow>
          <TableCell colSpan={3} className={styles.wide}>
            <Strip {...{ card, look, want }} heightPx={WIDE_PX} firstWidthPx={1224} />
          </TableCell>
        </TableRow>
      )}
      <TableRow className={wide ? styles.facts : styles.work}>
        {!wide && (
          <TableCell className={styles.strip}>
            <Strip {...{ card, look, want }} heightPx={118} firstWidthPx={520} />
          </TableCell>
        )}
        <TableCell component="th" scope="row">
          <Link href={`${base}/shape`} className={styles.name}>
            {name}
          </Link>
          <span className={styles.small}>
            {[
              `${figureScaleMm} mm`,
              countPieces(pieces),
              set.data.putAway && 'put away',
              batches > 0 && `${batches} ${batches === 1 ? 'batch' : 'batches'}`,
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
          {look && look.copies.finished + look.copies.inWork > 0 && (
            <Link href={`${base}/log?view=copies`} className={styles.small}>
              {`${look.copies.finished} of ${look.copies.of} finished${look.copies.inWork > 0 ? `, ${look.copies.inWork} in work` : ''}`}
            </Link>
          )}
          {job?.customer && <span className={styles.small}>{job.customer}</span>}
        </TableCell>
        <TableCell>
          <Link href={`${base}/${next.stage}${next.batchId ? `?batch=${next.batchId}` : ''}`} className={styles.next}>
            {next.words}
          </Link>
          {curing && <span className={styles.small}>curing: {curing.words}</span>}
        </TableCell>
        <TableCell>
          {job?.due && due ? (
            <>
              <span className={due.late ? styles.late : undefined}>{dayAndMonth(job.due)}</span>
              <span className={styles.small}>{due.words}</span>
            </>
          ) : (
            <span className={styles.small}>no date</span>
          )}
        </TableCell>
      </TableRow>
    </>
  );
}
