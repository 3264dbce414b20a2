// Run by the build: what the sample's plans come to is worked out here, not by whoever waits for the first page.
import { writeFileSync } from 'node:fs';
import { openDataFile } from '../src/db/dataFile';
import { stockShelf } from '../src/db/defaults';
import { plannedSample, PLANNED_AT_BUILD } from '../src/db/demo/heronSlack';

const now = '2026-01-01T12:00';
const { db, close } = openDataFile(':memory:');
stockShelf(db, now);
writeFileSync(PLANNED_AT_BUILD, JSON.stringify(plannedSample(db, now)));
close();
