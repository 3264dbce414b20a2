import type { HelpEntry } from './helpTexts';
import styles from './Help.module.css';

/** What things say, one under the other: in the help of a page and in the booklet. */
export const HelpEntries = ({ entries }: { entries: readonly HelpEntry[] }) => (
  <dl className={styles.entries}>
    {entries.map(({ what, says }) => (
      <div key={what}>
        <dt>{what}</dt>
        <dd>{says}</dd>
      </div>
    ))}
  </dl>
);
