'use client';

import Link from 'next/link';
import { JOB_STAGES, jobSchema, type Job } from '@/core/records/recordSchemas';
import { TYPICAL_WORK } from '@/core/money/quote';
import { explainHours, explainMoney } from '@/core/records/explainJob';
import type { JobFigures, JobView, JobWorkedOut } from '@/core/records/job';
import { complaintAt } from '@/core/records/replaceAt';
import { formatMoney } from '@/core/units/formatMeasure';
import { DateField } from '@/ui/controls/MomentField';
import { Held } from '@/ui/held/Held';
import { NotRead } from '@/ui/held/NotRead';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { useFetched } from '@/ui/useFetched';
import { pageWith } from '../edits/applyChanges';
import type { Changed } from '../edits/editQueue';
import { useEdits } from '../edits/useEdits';
import { PageFrame } from '../PageFrame';
import { Agreed } from './Agreed';
import { Jar } from './Jar';
import { STAGE_WORDS } from './stageWords';
import { StopWatch } from './StopWatch';
import styles from './JobScreen.module.css';

const NO_JOB: Job = { customer: '', due: null, budget: null };
const jobWith = (view: JobView, changed: Changed): JobView => {
  const set = changed.changes.find(({ kind, id }) => kind === 'set' && id === view.set.id)?.row;
  return pageWith(set ? { ...view, set: set as JobView['set'] } : view, changed);
};

/** A job: money and hours as two jars, what they are made up of, what was agreed, and what goes along with the pieces. */
export function JobScreen({ initial }: { initial: JobView }) {
  const edits = useEdits(initial, { view: 'desk', setId: initial.set.id }, jobWith);
  const { view } = edits;
  const { name } = view.set.data;
  const job = view.set.data.job ?? NO_JOB;
  const worked = useFetched<JobWorkedOut>(
    `/api/sets/${encodeURIComponent(view.set.id)}/job`,
    `${view.set.version} ${view.settings.version}`,
  );
  const change = (part: Partial<Job>, label: string): void =>
    void edits.run(({ set: { id, version, data } }) => {
      const next = { ...(data.job ?? NO_JOB), ...part };
      for (const key of ['watch', 'quoted'] as const) if (next[key] === undefined) delete next[key];
      return { do: 'put', kind: 'set', id, version, data: { ...data, job: next }, label };
    }, label);
  const figures = worked.data?.figures ?? null;
  const validate = (key: keyof Job) => (value: number) => complaintAt(jobSchema, job, [key], value);
  return (
    <PageFrame
      edits={edits}
      title={`Job: ${name}`}
      page="job"
      ways={[
        { href: `/sets/${view.set.id}/pour`, words: 'The set' },
        { href: '/', words: 'All sets' },
      ]}
      widthPx={1240}
    >
      <div className={styles.parts}>
        <div>
          {worked.failed ? (
            <NotRead what="The job could not be summed up." again={worked.again} />
          ) : !worked.data || !figures ? (
            <Held label="The job is being summed up" rows={9} height={40} />
          ) : (
            <Summed
              figures={figures}
              open={worked.data.open}
              setId={view.set.id}
              ratePerHour={(view.settings.data.work ?? TYPICAL_WORK).ratePerHour}
            />
          )}
        </div>
        <aside className={styles.aside} aria-label="What was agreed">
          <WordField
            label="Customer, or own"
            value={job.customer}
            validate={(value) => complaintAt(jobSchema, job, ['customer'], value)}
            onCommit={(customer) => change({ customer }, 'Change the customer')}
          />
          <DateField
            label="Due"
            value={job.due ?? ''}
            onCommit={(value) => change({ due: value === '' ? null : value }, 'Change the due date')}
          />
          <div className={styles.pair}>
            <MeasureField
              label={`Budget, ${view.settings.data.units.currency}`}
              quantity="number"
              value={job.budget ?? 0}
              step={5}
              hint={job.budget ? undefined : 'none'}
              validate={validate('budget')}
              onCommit={(value) => change({ budget: value > 0 ? value : null }, 'Change the budget')}
            />
            <MeasureField
              label="Hours it may take"
              quantity="number"
              value={job.hours ?? 0}
              step={1}
              hint={job.hours ? undefined : 'none'}
              validate={validate('hours')}
              onCommit={(value) => change({ hours: value > 0 ? value : null }, 'Change the hours')}
            />
          </div>
          <StopWatch job={job} now={view.now} onChange={change} />
          <Agreed
            job={job}
            today={view.now.slice(0, 10)}
            now={view.now}
            figures={figures}
            onChange={change}
            finished={worked.data?.designs.every(({ copies, delivered }) => copies === delivered) ?? false}
          />
          <p className={styles.files}>
            <Link href={`/job/${view.set.id}/sheet`}>Delivery sheet</Link>
            <a href={`/api/sets/${encodeURIComponent(view.set.id)}/invoice`} download>
              Invoice lines (CSV)
            </a>
          </p>
        </aside>
      </div>
    </PageFrame>
  );
}

const hours = (value: number): string => `${value.toFixed(1)} h`;

/** The jars, what they say in a sentence, what would bring the job back, and its stages. */
interface SummedProps {
  figures: JobFigures;
  open: number;
  setId: string;
  ratePerHour: number;
}

function Summed({ figures, open, setId, ratePerHour }: SummedProps) {
  const units = useUnits();
  const money = (value: number): string => formatMoney(value, units);
  const { stages, ways, spread, timedHours } = figures;
  const shown = JOB_STAGES.flatMap((stage) => stages.find((one) => one.stage === stage) ?? []);
  const most = Math.max(...shown.map(({ spentMoney, toComeMoney }) => spentMoney + toComeMoney), 1e-9);
  return (
    <>
      <p className={styles.lead} role="status">
        {leadOf(figures, money)}
      </p>
      <div className={styles.jars}>
        <Jar
          label="Money"
          jar={figures.money}
          words={money}
          explain={(which) => explainMoney(figures, which, ratePerHour, money)}
        />
        <Jar label="Hours" jar={figures.hours} words={hours} explain={(which) => explainHours(figures, which)} />
      </div>
      {ways.length > 0 && (
        <section aria-label="What would bring it back" className={styles.ways}>
          <h2>What would bring it back</h2>
          <ul>
            {ways.map(({ what, batch, batchId, hours: saved, money: saves, enough }) => (
              <li key={`${batch} ${what}`}>
                <Link href={batchId ? `/sets/${setId}/cure?batch=${batchId}` : `/sets/${setId}/cure`}>{batch}</Link>
                {`: ${what}. ${hours(saved)} and ${money(saves)} less${enough ? ', enough by itself' : ''}.`}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="Stage by stage" className={styles.stages}>
        <h2>Stage by stage</h2>
        <ul>
          {shown.map(({ stage, spentHours, toComeHours, spentMoney, toComeMoney }) => (
            <li key={stage}>
              <span>{STAGE_WORDS[stage]}</span>
              <span className={styles.bar} aria-hidden>
                <i style={{ width: `${(100 * spentMoney) / most}%` }} />
                <i data-to-come style={{ width: `${(100 * toComeMoney) / most}%` }} />
              </span>
              <span className={styles.figures}>
                {`${hours(spentHours)} of ${hours(spentHours + toComeHours)}, ${money(spentMoney)} of ${money(spentMoney + toComeMoney)}`}
              </span>
            </li>
          ))}
        </ul>
        <p className={styles.how}>
          {`Hours are taken from runs, marked steps and the stop-watch: ${hours(timedHours)} of ${hours(figures.hours.spent)} by the clock, the rest as reckoned. ${
            spread.batches > 0
              ? `What is still to come is reckoned × ${spread.likely.toFixed(2)}, between × ${spread.low.toFixed(2)} and × ${spread.high.toFixed(2)}, as ${spread.batches} batches turned out.`
              : 'What is still to come may take a fifth less or two fifths more: fewer than three batches were timed.'
          } Money is what left the bottles, the material that is still to go in, and hours at your rate.${
            open > 0
              ? ` ${open} ${open === 1 ? 'copy is' : 'copies are'} in no batch yet, and counted as one more batch.`
              : ''
          } An estimate.`}
        </p>
      </section>
    </>
  );
}

/** The job in a sentence. */
function leadOf({ hours: time, money: cost, price }: JobFigures, money: (value: number) => string): string {
  const over = [
    cost.over > 0 && `${money(cost.over)} over its budget`,
    time.over > 0 && `${hours(time.over)} over its hours`,
  ]
    .filter(Boolean)
    .join(' and ');
  const end = `It is likely to come to ${money(cost.likely)} and ${hours(time.likely)}`;
  if (over) return `${end}: ${over}.`;
  if (cost.may || time.may) return `${end}; if it goes badly it runs over.`;
  if (cost.limit === null && time.limit === null) return `${end}. Ask ${money(price.likely)} for it.`;
  return `${end}, within what was agreed.`;
}
