'use client';

import Button from '@mui/material/Button';
import type { JobFigures } from '@/core/records/job';
import type { Job } from '@/core/records/recordSchemas';
import { dayWithYear } from '@/core/time/dayNames';
import { formatMoney } from '@/core/units/formatMeasure';
import { LineForm } from '@/ui/controls/LineForm';
import { Tick } from '@/ui/controls/Tick';
import { useUnits } from '@/ui/measure/UnitsContext';
import styles from './JobScreen.module.css';

interface AgreedProps {
  job: Job;
  today: string;
  now: string;
  figures: JobFigures | null;
  /** Every copy is delivered. */
  finished: boolean;
  onChange: (part: Partial<Job>, label: string) => void;
}

/** What was quoted, against what it comes to; and what the customer has to agree to. */
export function Agreed({ job, today, now, figures, finished, onChange }: AgreedProps) {
  const units = useUnits();
  const money = (value: number): string => formatMoney(value, units);
  const { quoted, approvals = [] } = job;
  const hours = (value: number): string => `${value.toFixed(1)} h`;
  return (
    <>
      <section aria-label="Quote" className={styles.agreed}>
        <h2>Quote</h2>
        {figures && (
          <table>
            <thead>
              <tr>
                <td />
                {quoted && <th scope="col">{dayWithYear(quoted.at.slice(0, 10))}</th>}
                <th scope="col">{finished ? 'real' : 'as it stands'}</th>
              </tr>
            </thead>
            <tbody>
              {(
                [
                  ['Hours', quoted && hours(quoted.hours.likely), hours(figures.hours.likely)],
                  ['Cost', quoted && money(quoted.money.likely), money(figures.money.likely)],
                  ['Price', quoted && money(quoted.price.likely), money(figures.price.likely)],
                  [
                    'between',
                    quoted && `${money(quoted.price.low)}, ${money(quoted.price.high)}`,
                    `${money(figures.price.low)}, ${money(figures.price.high)}`,
                  ],
                ] as const
              ).map(([what, then, real]) => (
                <tr key={what}>
                  <th scope="row">{what}</th>
                  {quoted && <td>{then}</td>}
                  <td>{real}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {figures && quoted && (
          <p className={styles.how}>
            {`At the price that was quoted ${money(Math.abs(quoted.price.likely - figures.money.likely))} ${quoted.price.likely >= figures.money.likely ? 'are earned' : 'are lost'}.`}
          </p>
        )}
        <Button
          variant="text"
          size="small"
          disabled={!figures}
          onClick={() =>
            figures &&
            onChange(
              {
                quoted: {
                  at: now,
                  hours: cases(figures.hours),
                  money: cases(figures.money),
                  price: cases(figures.price),
                },
              },
              'Keep the quote',
            )
          }
        >
          {quoted ? 'Quote anew as it stands' : 'Keep this as the quote'}
        </Button>
      </section>
      <section aria-label="Approvals" className={styles.agreed}>
        <h2>To be approved</h2>
        {approvals.map(({ what, given }, i) => (
          <p key={what} className={styles.approval}>
            <Tick
              label={given ? `${what}, ${dayWithYear(given)}` : what}
              checked={given !== null}
              onChange={(wanted) =>
                onChange(
                  { approvals: approvals.map((one, k) => (k === i ? { ...one, given: wanted ? today : null } : one)) },
                  `${wanted ? 'Approve' : 'Not approved'}: ${what}`.slice(0, 80),
                )
              }
            />
            <Button
              variant="text"
              size="small"
              aria-label={`Take out ${what}`}
              onClick={() => onChange({ approvals: approvals.filter((_, k) => k !== i) }, 'Take out an approval')}
            >
              Take out
            </Button>
          </p>
        ))}
        <LineForm
          label="Such as: photos before delivery"
          press="Add"
          most={80}
          send={(what) => {
            if (approvals.some((one) => one.what === what)) return 'This is on the list';
            if (approvals.length >= 20) return 'At most 20';
            onChange({ approvals: [...approvals, { what, given: null }] }, 'Add an approval');
            return null;
          }}
          className={styles.line}
          field={{ size: 'small' }}
        />
      </section>
    </>
  );
}

const cases = ({ low, likely, high }: { low: number; likely: number; high: number }) => ({ low, likely, high });
