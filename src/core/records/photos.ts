import { pieceKey, type PieceRef } from '../model/pieceRef';
import type { Batch, CopyPhoto, Photo } from './recordSchemas';

/** A photo that is kept is no longer than this, and no wider or higher. */
export const MOST_PHOTO_BYTES = 3_000_000;
export const MOST_PHOTO_ACROSS = 1600;
/** Where a kept photo is read. */
export const photoAddress = (id: string): string => `/api/photos/${id}`;

/** The photos of a copy, the oldest first. */
export const photosOf = ({ photos = [] }: Pick<Batch, 'photos'>, piece: PieceRef): CopyPhoto[] =>
  photos.filter((photo) => pieceKey(photo) === pieceKey(piece));

/** A batch with a photo of some of its copies put in, or taken away. The same photo of a copy stands once. */
export function withPhoto(
  { photos = [], ...data }: Batch,
  own: readonly Pick<CopyPhoto, 'designId' | 'copy'>[],
  photo: Photo,
  kept: boolean,
): Batch {
  const named = new Set(own.map(pieceKey));
  const next = [
    ...photos.filter((one) => one.photo !== photo.photo || !named.has(pieceKey(one))),
    ...(kept ? own.map(({ designId, copy }) => ({ designId, copy, ...photo })) : []),
  ];
  return { ...data, ...(next.length > 0 && { photos: next }) };
}

/** Which photos some batches name, each once. */
export const photosIn = (batches: readonly { data: Pick<Batch, 'photos'> }[]): string[] => [
  ...new Set(batches.flatMap(({ data }) => (data.photos ?? []).map(({ photo }) => photo))),
];

/** The photo of some copies that was taken last; null where there is none. */
export function newestPhoto(
  batches: readonly { data: Pick<Batch, 'photos'> }[],
  copies: readonly PieceRef[],
): CopyPhoto | null {
  const wanted = new Set(copies.map(pieceKey));
  return batches
    .flatMap(({ data }) => data.photos ?? [])
    .filter((photo) => wanted.has(pieceKey(photo)))
    .reduce<CopyPhoto | null>((newest, photo) => (newest && newest.at > photo.at ? newest : photo), null);
}
