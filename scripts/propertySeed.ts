// Properties are tried on the same cases every time, so that a run can be repeated; PROPERTY_SEED=random looks for new ones.
import fc from 'fast-check';

const seed = process.env['PROPERTY_SEED'] ?? '20261125';
if (seed !== 'random') fc.configureGlobal({ seed: Number(seed) });
