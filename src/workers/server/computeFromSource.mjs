// The compute thread from its TypeScript source, where nothing is bundled: while developing, in tests and benchmarks.
import { register } from 'tsx/esm/api';

register();
export const { amounts, firstSchedule, match, schedule, strip } = await import('./compute.ts');
