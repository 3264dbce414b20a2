'use client';

import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { withMark } from '@/core/schedule/kept';
import { pourStep } from '@/core/schedule/routes';
import { oftenKey, TYPICAL_WEIGHTS, weightsSchema, type Weights } from '@/core/findings/diagnose';
import { complaintAt } from '@/core/records/replaceAt';
import { Fold } from '@/ui/controls/Fold';
import { MeasureField } from '@/ui/measure/MeasureField';
import { FINDING_KINDS, type FindingKind } from '@/core/findings/findingKinds';
import type { Taken } from '@/core/records/mendCost';
import type { Why } from '@/core/records/why';
import { formatMeasure, formatMinutes, formatMoney, type UnitPreferences } from '@/core/units/formatMeasure';
import type { Copy } from '@/core/records/copies';
import type { BatchRow } from '@/core/records/views';
import { Toggles } from '@/ui/controls/Toggles';
import { Held } from '@/ui/held/Held';
import { NotRead } from '@/ui/held/NotRead';
import { useFetched } from '@/ui/useFetched';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import { reminded } from '@/core/records/nextTime';
import type { NextTime } from '@/core/records/recordSchemas';
import { useDesk } from '../desk/DeskContext';
import styles from './WhyTubes.module.css';

interface WhyProps {
  batch: BatchRow;
  piece: Pick<Copy, 'designId' | 'copy'>;
  name: string;
  finding: FindingKind;
  findings: readonly FindingKind[];
  ask: (kind: FindingKind) => void;
}

/** More causes than these are one in a hundred. */
const MOST_TUBES = 6;
const percent = (share: number): string => `${Math.round(100 * share)} %`;
const WAYS = { for: '↑', against: '↓', neither: '·' } as const;

/** Causes of a finding in glass tubes: each as high as the record speaks for it, a line where it stood before anything was known. */
export function WhyTubes({ batch, piece, name, finding, findings, ask }: WhyProps) {
  const { desk, edits } = useDesk();
  const router = useRouter();
  const address = new URLSearchParams({ batch: batch.id, design: piece.designId, copy: String(piece.copy), finding });
  const {
    data: why,
    failed,
    again,
  } = useFetched<Why>(`/api/why?${address.toString()}`, `${batch.version} ${desk.shelf.settings.version}`);
  /** The layer on top failed: its repair comes into the calendar, which opens. */
  const repair = async (): Promise<void> => {
    const { begun } = batch.poured!;
    const words = FINDING_KINDS[finding].short;
    const course = withMark(batch.data.course ?? { marks: [] }, pourStep(begun), {
      failed: { at: desk.now, why: `${words}, ${name}` },
    });
    const label = `Mend ${name}: ${words}`.slice(0, 80);
    const outcome = await edits.run(
      () => ({ do: 'course', label, batches: [{ id: batch.id, version: batch.version, course }] }),
      label,
    );
    if (outcome.ok) router.push(`/sets/${desk.set.id}/cure`);
  };
  return (
    <section className={styles.why} aria-label={`Why ${name} is so`}>
      <h2>
        Why is {name} {FINDING_KINDS[finding].short}?
      </h2>
      {findings.length > 1 && (
        <Toggles
          label="Finding to explain"
          value={finding}
          choices={findings.map((kind) => ({ value: kind, label: FINDING_KINDS[kind].short }))}
          onChoose={ask}
        />
      )}
      {failed && !why ? (
        <NotRead what="What is on record could not be read." again={again} />
      ) : !why ? (
        <Held label="Reading what is on record" />
      ) : (
        <Found why={why} name={`${FINDING_KINDS[finding].short}, ${name}`} repair={() => void repair()} />
      )}
    </section>
  );
}

function Found({ why, name, repair }: { why: Why; name: string; repair: () => void }) {
  /** The core speaks in °C and mm. */
  const own = useOwnWords();
  const units = useUnits();
  const [likeliest] = why.causes;
  return (
    <>
      {why.early && <p className={styles.early}>{why.early}</p>}
      <p className={styles.said}>
        {why.enough && likeliest
          ? `What is on record speaks for: ${likeliest.words}.`
          : 'Not enough is recorded to say: the tubes stand where they stood before.'}{' '}
        {why.neighbours}
      </p>
      <div className={styles.parts}>
        <ul className={styles.tubes} aria-label="Causes that fit, the likeliest first">
          {why.causes.slice(0, MOST_TUBES).map(({ id, words, before, now, evidence }) => (
            <li key={id}>
              <svg
                viewBox="0 0 100 200"
                className={styles.tube}
                role="img"
                aria-label={`${words}: ${percent(now)}, before anything was known ${percent(before)}`}
              >
                <rect x="1" y="0" width="62" height="200" className={styles.glass} />
                <rect x="2" y={200 - 190 * now} width="60" height={190 * now} className={styles.water} />
                <line x1="2" x2="62" y1={200 - 190 * now} y2={200 - 190 * now} className={styles.level} />
                <line x1="-4" x2="70" y1={200 - 190 * before} y2={200 - 190 * before} className={styles.before} />
                <path d="M1 0V199H63V0" className={styles.wall} />
                <text x="70" y={Math.max(14, 204 - 190 * now)} className={styles.share}>
                  {percent(now)}
                </text>
              </svg>
              <b>{words}</b>
              <ul className={styles.evidence}>
                {evidence.map((one) => (
                  <li key={one.words} data-way={one.way}>
                    <span aria-label={one.way === 'neither' ? 'neither way' : one.way}>{WAYS[one.way]}</span>{' '}
                    {own(one.words)}
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
        <div className={styles.beside}>
          <section>
            <h3>Mend it</h3>
            <p>Made anew, it takes about {takenWords(why.anew, units)}; its body comes on top.</p>
            <ul>
              {why.mends.map(({ words, care, takes, inCalendar }) => (
                <li key={words}>
                  <b>{words}</b> {own(care)}
                  {(takes !== null || inCalendar) && (
                    <div className={styles.takes}>
                      {takes && <span>Takes about {takenWords(takes, units)}</span>}
                      {inCalendar && (
                        <Button size="small" onClick={repair}>
                          Into the calendar
                        </Button>
                      )}
                    </div>
                  )}
                </li>
              ))}
            </ul>
            <Fold summary="Another product over it">
              {typeof why.over === 'string' ? (
                <p>{why.over}</p>
              ) : (
                <ul>
                  {why.over.map((one) => (
                    <li key={one.name}>
                      <b>{one.name}</b> {one.words}
                    </li>
                  ))}
                </ul>
              )}
            </Fold>
          </section>
          {why.enough && likeliest && (
            <section>
              <h3>Next time</h3>
              <p>{likeliest.next}</p>
              <NextTimePress cause={likeliest.id} words={likeliest.next} why={`${likeliest.words}: ${name}`} />
            </section>
          )}
          {why.unknown.length > 0 && (
            <section>
              <h3>What is not known</h3>
              <ul>
                {why.unknown.map(({ words, findOut }) => (
                  <li key={words}>
                    <b>{words}</b> {own(findOut)}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Fold summary="How it is weighed">
            <WeightFields why={why} />
          </Fold>
          <p className={styles.how}>
            An estimate: how often each cause is behind this finding, times what each fact on record and the neighbours
            make of it. The dashed line is before anything was known. A mend is counted as a film over the piece’s
            water, {own('1 mm')} or what is missing, with what stays in its cup, abraded first, set up for by itself;
            made anew as its share of the batch, its route gone through alone.
          </p>
        </div>
      </div>
    </>
  );
}

/** `9 g, 0.40 €, 25 min`. */
const takenWords = ({ grams, price, minutes }: Taken, units: UnitPreferences): string =>
  `${formatMeasure(grams, 'mass', units, 0)}, ${formatMoney(price, units)}, ${formatMinutes(minutes)} at the bench`;

const WEIGHTS: readonly { key: Exclude<keyof Weights, 'often'>; label: string }[] = [
  { key: 'strongly', label: 'A fact speaks strongly for it: times' },
  { key: 'speaks', label: 'A fact speaks for it: times' },
  { key: 'against', label: 'A fact speaks against it: times' },
  { key: 'neighboursFor', label: 'Neighbours speak for it: times' },
  { key: 'neighboursAgainst', label: 'Neighbours speak against it: times' },
];

/** What to do otherwise, as a reminder before every run; pressed again it is taken off. */
function NextTimePress(reminder: NextTime) {
  const { desk, edits } = useDesk();
  const stands = desk.shelf.settings.data.nextTime?.some(({ cause }) => cause === reminder.cause) ?? false;
  const said = stands ? 'Taken off' : 'Said before every run from now on';
  return (
    <Button
      size="small"
      variant={stands ? 'text' : 'outlined'}
      onClick={() =>
        void edits.run(({ shelf: { settings } }) => {
          const { id, version, data } = settings;
          return { do: 'put', kind: 'settings', id, version, data: reminded(data, reminder, !stands), label: said };
        }, said)
      }
    >
      {stands ? 'Take it off the runs' : 'Remind me before each run'}
    </Button>
  );
}

/** How often each cause is behind the finding, and how many times as likely each fact makes it: the maker’s own, in the workshop’s settings. */
function WeightFields({ why }: { why: Why }) {
  const { desk, edits } = useDesk();
  const own = desk.shelf.settings.data.causeWeights;
  const weights = own ?? TYPICAL_WEIGHTS;
  const put = (next: Weights | undefined): void =>
    void edits.run(({ shelf }) => {
      const { id, version, data } = shelf.settings;
      const { causeWeights: _, ...rest } = data;
      const label = 'Weigh causes otherwise';
      return {
        do: 'put',
        kind: 'settings',
        id,
        version,
        data: { ...rest, ...(next && { causeWeights: next }) },
        label,
      };
    }, 'Weigh causes otherwise');
  return (
    <>
      {WEIGHTS.map(({ key, label }) => (
        <MeasureField
          key={key}
          label={label}
          quantity="number"
          decimals={2}
          value={weights[key]}
          validate={(value) => complaintAt(weightsSchema, weights, [key], value)}
          onCommit={(value) => put({ ...weights, [key]: value })}
        />
      ))}
      <p className={styles.how}>How often each is behind it before anything is known, against the others:</p>
      {why.causes.map(({ id, words, often }) => (
        <MeasureField
          key={id}
          label={`How often: ${words}`}
          quantity="number"
          value={often}
          validate={(value) => complaintAt(weightsSchema, { ...weights, often: { [id]: often } }, ['often', id], value)}
          onCommit={(value) => put({ ...weights, often: { ...weights.often, [oftenKey(why.finding, id)]: value } })}
        />
      ))}
      {own && (
        <Button variant="text" size="small" onClick={() => put(undefined)}>
          Typical figures again
        </Button>
      )}
    </>
  );
}
