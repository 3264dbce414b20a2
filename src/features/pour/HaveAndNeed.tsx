'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Link from 'next/link';
import { haveAndNeed, shoppingList, type HaveAndNeed as Line, type StockLevel } from '@/core/stock/haveAndNeed';
import { lotChanges, outOfLots } from '@/core/stock/lotChange';
import { batchNeeds } from '@/core/stock/needs';
import { packsOf } from '@/core/stock/packs';
import type { StockItem } from '@/core/model/stockSchema';
import { formatMeasure, formatMoney } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import type { PlannedBatch } from '../desk/BatchPlan';
import { useDesk } from '../desk/DeskContext';
import styles from './PourStage.module.css';

interface HaveAndNeedProps extends PlannedBatch {
  /** What stands on the shelf; null until it is read. */
  levels: readonly StockLevel[] | null;
  onKept: () => void;
}

/** Nothing below this is worth a word: no scale on a bench shows it. */
const CRUMB = 0.05;

/** What the batch takes against what stands on the shelf, what to buy, and what is kept for it. */
export function HaveAndNeed({ batch, request, plan, levels, onKept }: HaveAndNeedProps) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const needs = batchNeeds(request, plan, desk.shelf.consumables);
  const lines = haveAndNeed(needs, levels ?? []);
  const buy = shoppingList(lines, (item) => packsOf(item, desk.shelf));
  const amount = ({ item }: Pick<Line, 'item'>, value: number): string =>
    item.kind === 'consumable' ? String(Math.ceil(value)) : formatMeasure(value, 'mass', units, value < 10 ? 2 : 1);
  const packWords = (item: StockItem, held: number): string =>
    item.kind === 'consumable' ? `a pack of ${held}` : formatMeasure(held, 'mass', units, 0);
  const changes = lines
    .filter(({ item }) => item.kind === 'product')
    .flatMap(({ item, part, level }) =>
      lotChanges(
        plan.layers
          .filter((layer) => !layer.cure.poured && (layer.productId ?? request.product.id) === item.id)
          .map(({ number, mixGrams, parts }) => ({
            number,
            takes: part === 'A' ? (parts?.partAGrams ?? 0) : part === 'B' ? (parts?.partBGrams ?? 0) : mixGrams,
          })),
        part,
        level.lots,
      ),
    );
  const reserved = lines.some(({ level }) => level.reservedHere > 0);
  const moved = lines.some(({ level, likely }) => Math.abs(level.reservedHere - likely) > 0.5 && reserved);
  const reserve = async (wanted: boolean): Promise<void> => {
    await edits.run(
      () => ({ do: 'reserve', batchId: batch.id, wanted }),
      wanted ? `Kept for ${batch.data.name}` : `Given back from ${batch.data.name}`,
    );
    onKept();
  };
  const status = (line: Line): { mark: string; words: string } => {
    const { level, short, shortHigh } = line;
    if (!level.known) return { mark: '', words: 'none entered' };
    if (short > CRUMB) return { mark: '✕', words: `${amount(line, short)} short` };
    if (shortHigh > CRUMB) return { mark: '△', words: `${amount(line, shortHigh)} short if much is lost` };
    return { mark: '✓', words: 'enough' };
  };
  return (
    <section aria-label="Have and need" className={styles.stock} aria-busy={levels === null}>
      <h3>Have and need</h3>
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>What</TableCell>
            <TableCell align="right">Need</TableCell>
            <TableCell align="right">at most</TableCell>
            <TableCell align="right">Free</TableCell>
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {lines.map((line) => {
            const { mark, words } = status(line);
            return (
              <TableRow key={`${line.item.kind} ${line.item.id} ${line.part}`}>
                <TableCell>
                  {line.name}
                  {line.item.kind === 'colourant' && <small> out of the bottle, premixes and stock tint whole</small>}
                  {line.level.reservedElsewhere > 0 && (
                    <small>{` ${amount(line, line.level.reservedElsewhere)} kept for other batches`}</small>
                  )}
                  {line.item.kind === 'product' && line.level.lots.length > 0 && (
                    <small>
                      {` out of ${outOfLots(line.level.lots, line.likely)
                        .map(({ name, takes, left }) => `${name} (${amount(line, takes)} of ${amount(line, left)})`)
                        .join(', then ')}`}
                    </small>
                  )}
                  {line.level.expired > CRUMB && (
                    <small>{` ${amount(line, line.level.expired)} past its date, not counted`}</small>
                  )}
                </TableCell>
                <TableCell align="right">{amount(line, line.likely)}</TableCell>
                <TableCell align="right">{amount(line, line.high)}</TableCell>
                <TableCell align="right">
                  {levels === null ? '…' : line.level.known ? amount(line, line.free) : '–'}
                </TableCell>
                <TableCell>{levels !== null && <span data-mark={mark}>{`${mark} ${words}`}</span>}</TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      <p className={styles.small}>
        At most: what the beds may be off by, each on its own, and half as much loss again.
      </p>
      {changes.map(({ layer, part, from, to }) => (
        <p key={`${layer} ${part} ${from}`} className={styles.plants}>
          {`In layer ${layer} ${part === 'all' ? 'the product' : `part ${part}`} changes from ${from} to ${to}: pour joined pieces from one bottle, another may be a shade apart.`}
        </p>
      ))}
      {levels !== null && buy.length > 0 && (
        <div role="group" aria-label="To buy">
          <p>
            <b>To buy</b>, for the bad case:{' '}
            {buy
              .map(({ item, name, packs, cover }) => {
                const words = cover.counts
                  .flatMap((count, i) => (count > 0 ? [`${count} × ${packWords(item, packs[i]!.amount)}`] : []))
                  .join(' + ');
                return `${name} ${words}, ${formatMoney(cover.price, units)}`;
              })
              .join('; ')}
            .
          </p>
          <p className={styles.small}>
            The cheapest packs that cover it,{' '}
            {formatMoney(
              buy.reduce((sum, { cover }) => sum + cover.price, 0),
              units,
            )}{' '}
            in all. <Link href={`/shelf?from=${desk.set.id}#stock`}>Enter them on the shelf</Link> when they are bought.
          </p>
        </div>
      )}
      {!batch.poured && levels !== null && lines.some(({ level }) => level.known) && (
        <p className={styles.keep}>
          {reserved ? (
            <>
              {moved
                ? 'Kept for this batch, but the plan has changed since. '
                : 'Kept for this batch: no other plan counts on it. '}
              {moved && (
                <Button size="small" onClick={() => void reserve(true)}>
                  Keep what it needs now
                </Button>
              )}
              <Button size="small" variant="text" onClick={() => void reserve(false)}>
                Give it back
              </Button>
            </>
          ) : (
            <Button size="small" onClick={() => void reserve(true)}>
              Keep it for this batch
            </Button>
          )}
        </p>
      )}
    </section>
  );
}
