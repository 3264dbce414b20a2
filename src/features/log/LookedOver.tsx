'use client';

import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import { useRef, useState, type KeyboardEvent } from 'react';
import { FINDING_KINDS, FINDINGS, type FindingKind } from '@/core/findings/findingKinds';
import { copyName, pieceKey } from '@/core/model/pieceRef';
import { copiesOfDesigns, copyWords, type Copy } from '@/core/records/copies';
import { tintOfRequest, type Plan, type PlanRequest } from '@/core/plan';
import { findingWords, levelOffMm, outcomeOf, withColour, withLevelOff } from '@/core/records/inspections';
import type { Inspection } from '@/core/records/recordSchemas';
import type { BatchRow } from '@/core/records/views';
import { linearFromHex } from '@/core/tint/colour';
import { lightByDepth } from '@/core/tint/waterLook';
import { Held } from '@/ui/held/Held';
import { NotRead } from '@/ui/held/NotRead';
import { MeasureField } from '@/ui/measure/MeasureField';
import { WordField } from '@/ui/measure/WordField';
import { BatchList } from '../desk/BatchList';
import { useOwnWords } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import { useBatch, type ServedBatch } from '../desk/useBatch';
import { useCopies } from '../desk/useCopies';
import { GaugeSource } from '../desk/GaugeSource';
import { CopyCut } from './CopyCut';
import { PiecePhotos } from './PiecePhotos';
import { WhyTubes } from './WhyTubes';
import styles from './LookedOver.module.css';

/** Inspection along the row: the pieces of a batch as they were poured, what was found written under each. */
export function LookedOver({ served }: { served: ServedBatch | null }) {
  const { batch, request, plan, choose } = useBatch(served);
  const { data: taken, failed, again } = useCopies();
  const { desk } = useDesk();
  return (
    <div className={styles.stage}>
      <BatchList chosen={batch} choose={choose} />
      <div className={styles.looked}>
        {!batch || !batch.poured ? (
          <p className={styles.teach}>
            When a batch is poured and cured, crouch until your eye is level with the table, go along the row, and note
            under each piece what you see. What was weighed, stirred and read then says why.
          </p>
        ) : failed && !taken ? (
          <NotRead what="The copies could not be read." again={again} />
        ) : !taken || !plan || !request ? (
          <Held label="Reading the pieces" />
        ) : (
          <Row
            key={batch.id}
            batch={batch}
            request={request}
            plan={plan}
            copies={inBenchOrder(
              plan.layers.flatMap(({ cups }) => cups.flatMap(({ pours }) => pours.map(pieceKey))),
              copiesOfDesigns(desk.designs, taken, desk.now).filter(({ held }) => held?.batchId === batch.id),
            )}
          />
        )}
      </div>
    </div>
  );
}

/** Copies as they were poured one after the other. */
const inBenchOrder = (keys: readonly string[], copies: readonly Copy[]): Copy[] => {
  const placeOf = (copy: Copy): number => {
    const at = keys.indexOf(pieceKey(copy));
    return at < 0 ? keys.length : at;
  };
  return [...copies].sort((a, b) => placeOf(a) - placeOf(b));
};

type Seen = Pick<Inspection, 'findings' | 'note' | 'colour'>;
const NOTHING_FOUND: Seen = { findings: [], note: '' };
const BY_KEY = new Map(FINDINGS.map((kind) => [FINDING_KINDS[kind].key, kind]));

interface RowProps {
  batch: BatchRow;
  request: PlanRequest;
  plan: Plan;
  copies: readonly Copy[];
}

function Row({ batch, request, plan, copies }: RowProps) {
  const { desk, edits } = useDesk();
  const [at, setAt] = useState(0);
  const [asked, setAsked] = useState<FindingKind | null>(null);
  const row = useRef<HTMLDivElement>(null);
  const found = useRef<HTMLElement>(null);
  const own = useOwnWords();
  const copy = copies[Math.min(at, copies.length - 1)];
  if (!copy) return <p className={styles.teach}>No piece of this set is in the batch.</p>;
  const nameOf = ({ designId, copy: number }: Pick<Copy, 'designId' | 'copy'>): string =>
    copyName(desk.designs.find(({ id }) => id === designId)?.data.tag ?? '', number);
  const go = (to: number): void => {
    const next = Math.max(0, Math.min(copies.length - 1, to));
    setAt(next);
    setAsked(null);
    row.current?.querySelectorAll<HTMLElement>('button')[next]?.focus();
  };
  const was = (batch.data.inspections ?? []).findLast((one) => pieceKey(one) === pieceKey(copy)) ?? null;
  const seen: Seen = was ?? NOTHING_FOUND;
  const { findings } = seen;
  const say = (inspection: (Seen & Pick<Inspection, 'outcome'>) | null): void => {
    const label = inspection
      ? `${nameOf(copy)}: ${findingWords(inspection.findings) || 'passed'}`.slice(0, 80)
      : `${nameOf(copy)}: not looked over`;
    void edits.run(
      () => ({
        do: 'inspect',
        setId: desk.set.id,
        copies: [{ designId: copy.designId, copy: copy.copy, batchId: batch.id }],
        inspection: inspection && { ...only(inspection), at: desk.now },
        label,
      }),
      label,
    );
  };
  const sayFound = (next: Inspection['findings'], colour = seen.colour): void =>
    say({ ...seen, colour, findings: next, outcome: outcomeOf(was, next) });
  const toggle = (kind: FindingKind): void => {
    const has = findings.some((one) => one.kind === kind);
    const next = has ? findings.filter((one) => one.kind !== kind) : [...findings, { kind }];
    setAsked(has ? null : kind);
    sayFound(next);
  };
  const pass = (): void => {
    if (!was) say({ ...NOTHING_FOUND, outcome: 'pass' });
    go(at + 1);
  };
  const press = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const kind = BY_KEY.get(event.key.toLowerCase());
    const moves: Record<string, () => void> = {
      ArrowLeft: () => go(at - 1),
      ArrowRight: () => go(at + 1),
      Home: () => go(0),
      End: () => go(copies.length - 1),
      Enter: pass,
      ' ': pass,
      Delete: () => was && say(null),
    };
    const act = moves[event.key] ?? (kind && (() => toggle(kind)));
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  const design = desk.designs.find(({ id }) => id === copy.designId)?.data;
  const { levelMm } = request.set;
  const depthMm = plan.pieces.find(({ designId }) => designId === copy.designId)?.water.greatestDepthMm;
  const planned =
    design && depthMm ? lightByDepth(linearFromHex(design.bedColour), tintOfRequest(request))(depthMm) : null;
  const looked = copies.filter(({ held }) => held?.inspection);
  const why = asked && findings.some(({ kind }) => kind === asked) ? asked : (findings[0]?.kind ?? null);
  return (
    <>
      <h2 className={styles.title}>{batch.data.name}</h2>
      <p className={styles.sum}>
        {looked.length} of {copies.length} looked over
        <span className="by-key">: arrows along the row, a letter for what you see, Enter for what passes</span>
      </p>
      <div ref={row} className={styles.row} role="toolbar" aria-label="Pieces along the row" onKeyDown={press}>
        {copies.map((one, i) => (
          <button
            key={pieceKey(one)}
            type="button"
            className={styles.piece}
            tabIndex={i === at ? 0 : -1}
            aria-pressed={i === at}
            aria-label={own(`${nameOf(one)}, ${underWords(one)}, ${copyWords(one)}`)}
            onClick={() => go(i)}
          >
            <CopyCut state={one.state} share={1} />
            <b>{nameOf(one)}</b>
            <small data-found={(one.held?.inspection?.findings.length ?? 0) > 0}>{own(underWords(one))}</small>
          </button>
        ))}
      </div>
      <section ref={found} className={styles.found} aria-label={`What is found on ${nameOf(copy)}`}>
        <div className={styles.head}>
          <h3>
            {nameOf(copy)} <span>{own(copyWords(copy))}</span>
          </h3>
          <PiecePhotos
            key={pieceKey(copy)}
            batch={batch}
            piece={copy}
            name={nameOf(copy)}
            planned={planned}
            colour={seen.colour}
            onColour={(colour) => sayFound(withColour(findings, colour), colour)}
          />
        </div>
        <div className={styles.kinds} role="group" aria-label="Findings" onKeyDown={press}>
          {FINDINGS.map((kind) => (
            <ToggleButton
              key={kind}
              value={kind}
              size="small"
              selected={findings.some((one) => one.kind === kind)}
              onChange={() => toggle(kind)}
              className={styles.kind}
            >
              {FINDING_KINDS[kind].words} <kbd className="by-key">{FINDING_KINDS[kind].key}</kbd>
            </ToggleButton>
          ))}
        </div>
        <div className={styles.more}>
          <MeasureField
            key={pieceKey(copy)}
            label="Water stands at"
            quantity="length"
            value={levelMm + levelOffMm(findings)}
            gaugeMm={levelMm}
            hint={`planned ${levelMm} mm`}
            onCommit={(mm) => sayFound(withLevelOff(findings, mm - levelMm))}
          />
          {findings
            .filter(({ kind }) => FINDING_KINDS[kind].sized)
            .map(({ kind, mm = 0 }) => (
              <MeasureField
                key={kind}
                label={`${FINDING_KINDS[kind].words}, by`}
                quantity="length"
                value={mm}
                onCommit={(by) => sayFound(findings.map((one) => (one.kind === kind ? { kind, mm: by } : one)))}
              />
            ))}
          {was && (
            <WordField
              label="In your words"
              value={seen.note}
              onCommit={(note) => say({ ...seen, note, outcome: was.outcome })}
            />
          )}
        </div>
        <GaugeSource within={found} />
        <div className={styles.outcomes} role="group" aria-label="What comes of it">
          {findings.length === 0 ? (
            <Button variant="contained" onClick={pass}>
              Passes
            </Button>
          ) : (
            <>
              <Button
                variant={was?.outcome === 'mend' ? 'contained' : 'outlined'}
                onClick={() => say({ ...seen, outcome: 'mend' })}
              >
                To mend
              </Button>
              <Button
                variant={was?.outcome === 'pass' ? 'contained' : 'outlined'}
                onClick={() => say({ ...seen, outcome: 'pass' })}
              >
                Passes all the same
              </Button>
              <Button
                variant={was?.outcome === 'remake' ? 'contained' : 'outlined'}
                onClick={() => say({ ...seen, outcome: 'remake' })}
              >
                Make it anew
              </Button>
            </>
          )}
          {was && (
            <Button variant="text" onClick={() => say(null)}>
              Not looked over
            </Button>
          )}
        </div>
      </section>
      {why && (
        <WhyTubes
          key={`${pieceKey(copy)} ${why}`}
          batch={batch}
          piece={copy}
          name={nameOf(copy)}
          finding={why}
          findings={findings.map(({ kind }) => kind)}
          ask={setAsked}
        />
      )}
    </>
  );
}

/** Of what was kept, what is said again: without the piece and the moment. */
const only = ({ findings, note, colour, outcome }: Seen & Pick<Inspection, 'outcome'>) => ({
  findings,
  note,
  outcome,
  ...(colour && { colour }),
});

/** What stands under a piece in the row. */
function underWords({ held, state }: Copy): string {
  const { inspection } = held ?? {};
  if (!inspection) return state === 'cured' || state === 'inspected' ? 'not yet' : 'not cured';
  return findingWords(inspection.findings) || 'passed';
}
