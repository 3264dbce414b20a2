'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { watchedMinutes } from '@/core/records/job';
import { JOB_STAGES, jobSchema, type Job, type JobStage } from '@/core/records/recordSchemas';
import { complaintAt } from '@/core/records/replaceAt';
import { shortTime } from '@/core/time/dayNames';
import { formatMinutes } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { STAGE_WORDS } from './stageWords';
import styles from './JobScreen.module.css';

interface StopWatchProps {
  job: Job;
  now: string;
  onChange: (part: Partial<Job>, label: string) => void;
}

/** The longest that a stop-watch takes: it was forgotten then. */
const MOST_MINUTES = 1440;

/** Hours beside runs and marked steps: one press to start, one to stop; or typed in afterwards. */
export function StopWatch({ job, now, onChange }: StopWatchProps) {
  const [stage, setStage] = useState<JobStage>('bed');
  const { watch, timed = [] } = job;
  const last = timed.at(-1);
  const add = (minutes: number, at: string, of: JobStage): Partial<Job> => ({
    timed: [...timed, { at, stage: of, minutes: Math.min(MOST_MINUTES, Math.max(1, Math.round(minutes))), note: '' }],
  });
  return (
    <section aria-label="Stop-watch" className={styles.watch}>
      <h2>Stop-watch</h2>
      {watch ? (
        <>
          <p>{`${STAGE_WORDS[watch.stage]}, since ${shortTime(watch.since)}.`}</p>
          <Button
            variant="contained"
            onClick={() =>
              onChange(
                { ...add(watchedMinutes(watch.since, now), now, watch.stage), watch: undefined },
                'Stop the watch',
              )
            }
          >
            Stop
          </Button>
          <Button variant="text" onClick={() => onChange({ watch: undefined }, 'Drop the watch')}>
            Drop it
          </Button>
        </>
      ) : (
        <>
          <ChoiceField
            label="For"
            value={stage}
            choices={JOB_STAGES.map((value) => ({ value, label: STAGE_WORDS[value] }))}
            onCommit={setStage}
          />
          <div className={styles.pair}>
            <Button variant="contained" onClick={() => onChange({ watch: { since: now, stage } }, 'Start the watch')}>
              Start
            </Button>
            <MeasureField
              label="or type minutes"
              quantity="number"
              value={0}
              step={5}
              validate={(value) =>
                value === 0
                  ? null
                  : complaintAt(
                      jobSchema,
                      { ...job, timed: [{ at: now, stage, minutes: 1, note: '' }] },
                      ['timed', 0, 'minutes'],
                      value,
                    )
              }
              onCommit={(minutes) => minutes > 0 && onChange(add(minutes, now, stage), 'Add hours')}
            />
          </div>
        </>
      )}
      {last && (
        <p className={styles.how}>
          {`Last: ${formatMinutes(last.minutes)}, ${STAGE_WORDS[last.stage].toLowerCase()}, ${shortTime(last.at)}. `}
          <Button
            variant="text"
            size="small"
            onClick={() => onChange({ timed: timed.slice(0, -1) }, 'Take out timed minutes')}
          >
            Take it out
          </Button>
        </p>
      )}
    </section>
  );
}
