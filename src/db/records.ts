import type { RecordKind } from '@/core/records/schema';
import { DOCUMENT_KINDS, documentStorage } from './documents';
import { batchStorage, pourStorage } from './batches';
import type { Storage } from './images';

const documents = Object.fromEntries(DOCUMENT_KINDS.map((kind) => [kind, documentStorage(kind)]));

/** How records of each kind are kept: documents, batches as rows, poured layers as entries. */
export const STORAGE = { ...documents, batch: batchStorage, pour: pourStorage } as Record<RecordKind, Storage>;
