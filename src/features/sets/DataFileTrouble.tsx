import styles from './Message.module.css';

/** Stands in for every page while the data file cannot be used. */
export function DataFileTrouble({ message }: { message: string }) {
  return (
    <main className={styles.page}>
      <h1>The data file cannot be used</h1>
      <p>{message}</p>
      {/* A full load, not a client navigation: the file is opened anew. */}
      <a href="/">Try again</a>
    </main>
  );
}
