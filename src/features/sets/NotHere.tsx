import Link from 'next/link';
import styles from './Message.module.css';

/** The page for an address that leads nowhere. */
export function NotHere() {
  return (
    <main className={styles.page}>
      <h1>That is not here</h1>
      <p>It may have been removed. Removing can be taken back from the list of sets.</p>
      <Link href="/">All sets</Link>
    </main>
  );
}
