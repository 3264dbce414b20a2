import type { RecordKind } from '@/core/records/recordSchemas';
import { DOCUMENT_KINDS, documentStorage } from './documents';
import { batchStorage } from './batches';
import { pourStorage } from './pourStorage';
import type { Storage } from './storage';
import { lotStorage, movementStorage } from './stock';

const documents = Object.fromEntries(DOCUMENT_KINDS.map((kind) => [kind, documentStorage(kind)]));

/** How records of each kind are kept: documents, batches and lots as rows, poured layers and movements as entries. */
export const STORAGE = {
  ...documents,
  batch: batchStorage,
  pour: pourStorage,
  lot: lotStorage,
  movement: movementStorage,
} as Record<RecordKind, Storage>;
