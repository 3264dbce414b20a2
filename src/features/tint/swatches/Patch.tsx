import styles from './SwatchView.module.css';

/** A colour as a small card. */
export const Patch = ({ colour }: { colour: string }) => (
  <span className={styles.patch} style={{ background: colour }} role="img" aria-label={colour} />
);
