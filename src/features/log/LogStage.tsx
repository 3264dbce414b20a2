'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { requestOfLayer } from '@/core/plan';
import type { Command } from '@/core/records/command';
import type { PourRecord } from '@/core/records/recordSchemas';
import { TabRow } from '@/ui/controls/TabRow';
import { focusSoon } from '@/ui/focusSoon';
import { Held } from '@/ui/held/Held';
import { BatchList } from '../desk/BatchList';
import { useDesk } from '../desk/DeskContext';
import { useBatch, type ServedBatch } from '../desk/useBatch';
import { CopiesView } from './CopiesView';
import { LookedOver } from './LookedOver';
import { LoggedLayer } from './LoggedLayer';
import { PourEntry } from './PourEntry';
import styles from './LogStage.module.css';

const VIEWS = [
  { value: 'layers', label: 'Layers' },
  { value: 'looked', label: 'Looked over' },
  { value: 'copies', label: 'Copies' },
] as const;

/** Log: what really happened, by layers, along the row, and by copies. */
export function LogStage({ served }: { served: ServedBatch | null }) {
  const { desk } = useDesk();
  const params = useSearchParams();
  const view = VIEWS.find(({ value }) => value === params.get('show'))?.value ?? 'layers';
  const batch = params.get('batch');
  const hrefOf = (show: string): string =>
    `/sets/${desk.set.id}/log?${new URLSearchParams({ ...(show !== 'layers' && { show }), ...(batch && { batch }) }).toString()}`;
  return (
    <div className={styles.parts}>
      <TabRow label="Parts of the log" value={view} tabs={VIEWS.map((one) => ({ ...one, href: hrefOf(one.value) }))} />
      {view === 'copies' ? (
        <CopiesView />
      ) : view === 'looked' ? (
        <LookedOver served={served} />
      ) : (
        <LayersView served={served} />
      )}
    </div>
  );
}

/** What was poured, layer by layer, against what was planned. */
function LayersView({ served }: { served: ServedBatch | null }) {
  const { desk, edits } = useDesk();
  const wanted = Number(useSearchParams().get('layer')) || null;
  const { batch, detail, request, plan, choose } = useBatch(served);
  const pours = detail?.pours ?? [];
  const [open, setOpen] = useState<{ batchId: string; layer: number | null } | null>(null);
  const entering = batch && open?.batchId === batch.id ? open.layer : wanted;
  const enter = (layer: number | null): void => setOpen(batch && { batchId: batch.id, layer });
  const save = (pour: PourRecord): ReturnType<typeof edits.run> =>
    edits.run(({ batches }) => pourCommand(batches, batch?.id, pour.layer, pour), `Layer ${pour.layer} is in the log`);
  const strike = (layer: number): void =>
    void edits.run(({ batches }) => pourCommand(batches, batch?.id, layer, null), `Layer ${layer} was not poured`);
  const next = plan?.layers.find(({ cure }) => !cure.poured);
  const entry = plan?.layers.find(({ number }) => number === entering);
  const mayEnter = entry && (entry.cure.poured || entry === next);
  return (
    <div className={styles.stage}>
      <BatchList chosen={batch} choose={(id) => (setOpen({ batchId: id, layer: null }), choose(id))} />
      <div className={styles.log}>
        {!batch && (
          <p className={styles.teach}>
            The log fills as you pour: plan a batch on the Pour stage, pour it, and enter here what the scale really
            showed.
          </p>
        )}
        {batch && request && !plan && <Held label="Working out the layers" />}
        {batch && request && plan && (
          <>
            <h2 className={styles.title}>{batch.data.name}</h2>
            {pours.length > 0 && (
              <Link className={styles.beside} href={`/beside?a=${encodeURIComponent(batch.id)}`}>
                Beside another batch
              </Link>
            )}
            {pours.length === 0 && !mayEnter && (
              <p className={styles.teach}>
                Nothing is poured yet. When the first layer is, enter what was weighed into each cup; the log sets it
                against the plan.
              </p>
            )}
            {plan.layers.map((layer) => {
              const pour = pours.find((record) => record.layer === layer.number);
              if (mayEnter && layer === entry) {
                return (
                  <PourEntry
                    key={`${batch.id}.${layer.number}`}
                    draftKey={`aguada.pour.${batch.id}.${layer.number}`}
                    layer={layer}
                    request={requestOfLayer(request, layer)}
                    before={pour}
                    now={desk.now}
                    onSave={save}
                    onClose={() => {
                      enter(null);
                      focusSoon(() => document.querySelector<HTMLElement>(`[data-layer="${layer.number}"] button`));
                    }}
                  />
                );
              }
              return (
                pour && (
                  <LoggedLayer
                    key={layer.number}
                    layer={layer}
                    pour={pour}
                    request={requestOfLayer(request, layer)}
                    onCorrect={() => enter(layer.number)}
                    onStrike={layer.number === pours.at(-1)?.layer ? () => strike(layer.number) : undefined}
                  />
                )
              );
            })}
            {next &&
              entry !== next &&
              (pours.some(({ layer }) => layer === next.number) ? (
                <Button
                  variant="contained"
                  component={Link}
                  href={`/sets/${desk.set.id}/bench?batch=${encodeURIComponent(batch.id)}`}
                >
                  Pour the rest
                </Button>
              ) : (
                <Button variant="contained" onClick={() => enter(next.number)}>
                  Enter layer {next.number}
                </Button>
              ))}
          </>
        )}
      </div>
    </div>
  );
}

function pourCommand(
  batches: readonly { id: string; version: number }[],
  batchId: string | undefined,
  layer: number,
  pour: PourRecord | null,
): Command | null {
  const stored = batches.find(({ id }) => id === batchId);
  return stored ? { do: 'pour', batchId: stored.id, version: stored.version, layer, pour } : null;
}
