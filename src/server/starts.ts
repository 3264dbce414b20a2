import type { OwnStart } from '@/core/bed/starters';
import { listDocuments } from '@/db/documents';
import { withData } from './data';
import { answer } from './respond';

/** More are no choice any more. */
const MOST_STARTS = 60;

/** Pieces of all sets that are offered as a start for others. */
export const startsAnswer = (): Promise<Response> =>
  answer(() =>
    withData((db): OwnStart[] =>
      listDocuments(db, 'set')
        .records.flatMap(({ id, data }) =>
          listDocuments(db, 'design', id)
            .records.filter((design) => design.data.isStart)
            .map((design) => ({ set: data.name, design: design.data })),
        )
        .slice(0, MOST_STARTS),
    ),
  );
