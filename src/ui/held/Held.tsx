import Skeleton from '@mui/material/Skeleton';

interface HeldProps {
  /** What is on its way, in words. */
  label: string;
  rows?: number;
  height?: number;
}

/** Holds the shape of figures that are on their way. Without script the page asks again until they are there. */
export function Held({ label, rows = 6, height = 34 }: HeldProps) {
  return (
    <div role="status" aria-label={label} aria-busy="true">
      {Array.from({ length: rows }, (_, i) => (
        <Skeleton key={i} variant="text" animation={false} height={height} width={`${92 - (i % 3) * 11}%`} />
      ))}
      <noscript>
        <meta httpEquiv="refresh" content="1" />
      </noscript>
    </div>
  );
}
