'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { MOST_PHOTO_ACROSS, photoAddress, photosOf } from '@/core/records/photos';
import type { CopyPhoto, Inspection, Photo } from '@/core/records/recordSchemas';
import type { BatchRow } from '@/core/records/views';
import type { PieceRef } from '@/core/model/pieceRef';
import { hexFromLinear, linearFromHex, type LinearRgb } from '@/core/tint/colour';
import { deltaE } from '@/core/tint/difference';
import { shortTime } from '@/core/time/dayNames';
import { FileButton } from '@/ui/controls/FileButton';
import { openPhoto, PhotoError, smallPhoto } from '@/workers/photos';
import { useDesk } from '../desk/DeskContext';
import { differenceWords } from '../desk/differenceWords';
import { PhotoPick } from '../desk/photo/PhotoPick';
import styles from './PiecePhotos.module.css';

interface PiecePhotosProps {
  batch: BatchRow;
  piece: PieceRef & { copy: number };
  name: string;
  /** The recipe’s water over the deepest place of the piece; null where that is not known. */
  planned: LinearRgb | null;
  /** The colour that was found before. */
  colour: Inspection['colour'] | undefined;
  onColour: (colour: NonNullable<Inspection['colour']>) => void;
}

const UNANSWERED = 'Aguada does not answer. The photo is still in your camera.';

/** Sends a photo to be kept. Throws a PhotoError that says why it was not. */
async function keepPhoto(file: File): Promise<Photo> {
  const small = await smallPhoto(file);
  const response = await fetch('/api/photos', {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg' },
    body: small,
  }).catch(() => {
    throw new PhotoError(UNANSWERED);
  });
  const body = await (response.json() as Promise<Photo | { message: string }>).catch(() => ({ message: UNANSWERED }));
  if ('message' in body) throw new PhotoError(body.message);
  return body;
}

/** Photos of one piece: taken by the camera or out of a file, looked at, and their colour held against the recipe. */
export function PiecePhotos({ batch, piece, name, planned, colour, onColour }: PiecePhotosProps) {
  const { desk, edits } = useDesk();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [open, setOpen] = useState<CopyPhoto | null>(null);
  const photos = photosOf(batch.data, piece);
  const put = (photo: Photo, wanted: boolean): ReturnType<typeof edits.run> => {
    const { photo: id, at, width, height } = photo;
    const label = wanted ? `Photo of ${name}` : `Take a photo of ${name} away`;
    return edits.run(
      () => ({
        do: 'photo',
        setId: desk.set.id,
        copies: [{ designId: piece.designId, copy: piece.copy, batchId: batch.id }],
        photo: { photo: id, at, width, height },
        wanted,
        label,
      }),
      label,
    );
  };
  const take = async (file: File): Promise<void> => {
    setTrouble(null);
    setBusy(true);
    try {
      await put(await keepPhoto(file), true);
    } catch (error) {
      if (!(error instanceof PhotoError)) throw error;
      setTrouble(error.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className={styles.photos} role="group" aria-label={`Photos of ${name}`}>
      {photos.map((photo) => (
        <button
          key={photo.photo}
          type="button"
          className={styles.photo}
          aria-label={`Photo of ${name}, ${shortTime(photo.at)}`}
          onClick={() => setOpen(photo)}
        >
          <img src={photoAddress(photo.photo)} alt="" loading="lazy" width={photo.width} height={photo.height} />
        </button>
      ))}
      <FileButton
        name={`Photo of ${name}`}
        label={busy ? 'Making it small…' : photos.length > 0 ? 'Another photo' : 'Photo'}
        accept="image/*"
        disabled={busy}
        onFile={(file) => void take(file)}
      />
      {colour && (
        <p className={styles.colour}>
          <span style={{ background: colour.seen }} aria-hidden />
          {`Against the recipe: ${differenceWords(colour.apart)}.`}
        </p>
      )}
      {trouble && (
        <p role="alert" className={styles.trouble}>
          {trouble}
        </p>
      )}
      {open && (
        <PhotoDialog
          photo={open}
          name={name}
          planned={planned}
          onColour={onColour}
          onAway={() => {
            setOpen(null);
            void put(open, false);
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </div>
  );
}

interface PhotoDialogProps extends Pick<PiecePhotosProps, 'name' | 'planned' | 'onColour'> {
  photo: CopyPhoto;
  onAway: () => void;
  onClose: () => void;
}

function PhotoDialog({ photo, name, planned, onColour, onAway, onClose }: PhotoDialogProps) {
  const [missing, setMissing] = useState(false);
  const [picking, setPicking] = useState<ImageBitmap | null>(null);
  const [seen, setSeen] = useState<string | null>(null);
  const address = photoAddress(photo.photo);
  const pick = async (): Promise<void> => {
    const response = await fetch(address).catch(() => null);
    if (response?.ok) setPicking(await openPhoto(await response.blob(), MOST_PHOTO_ACROSS));
    else setMissing(true);
  };
  const apart = seen && planned ? deltaE(linearFromHex(seen), planned) : null;
  return (
    <Dialog open onClose={onClose} maxWidth="lg" aria-labelledby="photo-title">
      <DialogTitle id="photo-title">{`${name}, ${shortTime(photo.at)}`}</DialogTitle>
      <DialogContent>
        {missing ? (
          <p role="alert">
            This photo cannot be read. It may not have come along with the set, or Aguada does not answer.
          </p>
        ) : picking ? (
          <div className={styles.pick}>
            <p>First the white card, then the water over its deepest place, away from shine.</p>
            <PhotoPick
              opened={picking}
              picks={[{ value: 'water', label: 'the water' }]}
              onPick={(_, hex) => setSeen(hex)}
            />
            {seen && planned && apart !== null && (
              <p role="status" className={styles.colour}>
                <span style={{ background: seen }} aria-hidden />
                <span style={{ background: hexFromLinear(planned) }} aria-hidden />
                {`In the photo, and by the recipe: ${differenceWords(apart)}. An estimate: a photo tells colours to about ΔE 3.`}
              </p>
            )}
          </div>
        ) : (
          <img
            className={styles.large}
            src={address}
            alt={`${name} as it was photographed`}
            width={photo.width}
            height={photo.height}
            onError={() => setMissing(true)}
          />
        )}
        <div className={styles.presses}>
          {planned && !missing && !picking && (
            <Button variant="outlined" onClick={() => void pick()}>
              Its colour against the recipe
            </Button>
          )}
          {seen && apart !== null && (
            <Button
              variant="contained"
              onClick={() => {
                onColour({ seen, apart: Math.round(apart * 10) / 10 });
                onClose();
              }}
            >
              Note it down
            </Button>
          )}
          <Button variant="text" onClick={onAway}>
            Take it away
          </Button>
          <Button variant="text" onClick={onClose}>
            Close
          </Button>
        </div>
      </DialogContent>
    </Dialog>
  );
}
