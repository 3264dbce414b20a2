import type { Unreadable } from '@/core/records/views';
import { SeverityMark } from '@/ui/mark/Problems';
import styles from './EditNotices.module.css';

/** Records that cannot be read: each is told, and nothing else is spoilt by it. */
export function UnreadableNotice({ unreadable }: { unreadable: readonly Unreadable[] }) {
  if (unreadable.length === 0) return null;
  return (
    <ul className={styles.unreadable} aria-label="Cannot be read">
      {unreadable.map(({ kind, id, message }) => (
        <li key={`${kind}${id}`}>
          <SeverityMark severity="warn" /> {message}
        </li>
      ))}
    </ul>
  );
}
