// The compute thread from its TypeScript source, where nothing is bundled: while developing, in tests and benchmarks.
import { register } from 'tsx/esm/api';

register();
export const { amounts, firstSchedule, lowestBed, match, pieces, schedule, strip, together, warmUp } =
  await import('./compute.ts');
