import type { KeptTable } from '@/core/model/tableSchema';
import { emptyWish } from '@/core/seams/table';

/** Two tables that Heron Slack is laid on: a creek that forks, and a shorter one round a hill. */
export const HERON_SLACK_TABLES: KeptTable[] = [
  {
    id: 'club-night',
    name: 'Club night',
    laid: null,
    wish: {
      ...emptyWish(5, 3),
      openings: [
        { column: 0, row: 1, side: 3 },
        { column: 4, row: 1, side: 1 },
        { column: 2, row: 0, side: 0 },
      ],
      forks: [{ column: 2, row: 1 }],
      blocked: [{ column: 3, row: 2 }],
    },
  },
  {
    id: 'hill',
    name: 'Round the hill',
    laid: null,
    wish: {
      ...emptyWish(3, 3),
      openings: [
        { column: 0, row: 0, side: 3 },
        { column: 2, row: 2, side: 1 },
      ],
      blocked: [{ column: 1, row: 1 }],
      anyPond: true,
    },
  },
];
