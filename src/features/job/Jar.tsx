'use client';

import type { Explanation } from '@/core/plan';
import type { JarFigure } from '@/core/records/explainJob';
import type { Jar as JarFigures } from '@/core/records/job';
import { HowPress } from '@/ui/reading/HowPress';
import styles from './JobScreen.module.css';

const WIDE = 150;
const HIGH = 250;
const TOP = 26;
const FOOT = 242;
const LEFT = 14;
const RIGHT = 136;

interface JarProps {
  label: string;
  jar: JarFigures;
  words: (value: number) => string;
  explain: (which: JarFigure) => Explanation;
}

/**
 * A jar that fills with what is spent, stands as high as the end is likely to be, and has a brim where the limit is. What runs over stands
 * above it in pencil.
 */
export function Jar({ label, jar, words, explain }: JarProps) {
  const how = (name: string, which: JarFigure) => (
    <HowPress label={name} figure={words(jar[which])} explain={() => explain(which)} />
  );
  const { spent, likely, low, high, limit, over, may } = jar;
  const most = Math.max(high, (limit ?? 0) * 1.12, 1e-9);
  const y = (value: number): number => FOOT - ((FOOT - TOP) * value) / most;
  const brim = limit === null ? null : y(limit);
  const band = (from: number, to: number): { y: number; height: number } => ({
    y: y(to),
    height: Math.max(0, y(from) - y(to)),
  });
  const within = limit === null ? likely : Math.min(likely, limit);
  const verdict =
    limit === null
      ? 'no limit set'
      : over > 0
        ? `${words(over)} over`
        : may
          ? `${words(limit - likely)} left, over if it goes badly`
          : `${words(limit - likely)} left`;
  return (
    <figure className={styles.jar} aria-label={label}>
      <svg viewBox={`0 0 ${WIDE} ${HIGH}`} aria-hidden>
        <path
          className={styles.glass}
          d={`M${LEFT} ${brim ?? TOP}V${FOOT - 10}Q${LEFT} ${FOOT} ${LEFT + 12} ${FOOT}H${RIGHT - 12}Q${RIGHT} ${FOOT} ${RIGHT} ${FOOT - 10}V${brim ?? TOP}`}
        />
        <rect className={styles.spent} x={LEFT + 3} width={RIGHT - LEFT - 6} {...band(0, Math.min(spent, within))} />
        <rect className={styles.toCome} x={LEFT + 3} width={RIGHT - LEFT - 6} {...band(spent, within)} />
        {over > 0 && limit !== null && (
          <rect className={styles.over} x={LEFT + 3} width={RIGHT - LEFT - 6} {...band(limit, likely)} />
        )}
        <line className={styles.high} x1={LEFT - 8} x2={RIGHT + 8} y1={y(high)} y2={y(high)} />
        <line className={styles.likely} x1={LEFT - 8} x2={RIGHT + 8} y1={y(likely)} y2={y(likely)} />
        {brim !== null && (
          <path className={styles.brim} d={`M${LEFT - 8} ${brim}H${LEFT}M${RIGHT} ${brim}H${RIGHT + 8}`} />
        )}
      </svg>
      <figcaption>
        <b>{label}</b>
        <dl>
          <div>
            <dt>{how('spent', 'spent')}</dt>
            <dd>{words(spent)}</dd>
          </div>
          <div>
            <dt>{how('in the end, likely', 'likely')}</dt>
            <dd>{words(likely)}</dd>
          </div>
          <div>
            <dt>
              {how('between', 'low')} {how('and', 'high')}
            </dt>
            <dd>{`${words(low)} and ${words(high)}`}</dd>
          </div>
          <div>
            <dt>the brim</dt>
            <dd>{limit === null ? '–' : words(limit)}</dd>
          </div>
        </dl>
        <p className={over > 0 ? styles.isOver : may ? styles.mayBe : undefined}>{verdict}</p>
      </figcaption>
    </figure>
  );
}
