'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { hexFromLinear } from '@/core/tint/colour';
import { againstWhite, pixelLight } from '@/core/tint/photoColour';
import { FileButton } from '@/ui/controls/FileButton';
import { Toggles } from '@/ui/controls/Toggles';
import { openPhoto, PhotoError } from '@/workers/photos';
import styles from './PhotoPick.module.css';

interface PhotoPickProps {
  /** What is picked besides the white card, in words: `the water`. */
  picks: readonly { value: string; label: string }[];
  onPick: (what: string, hex: string) => void;
  /** A photo that is open already; else one is asked for. */
  opened?: ImageBitmap;
}

interface Place {
  x: number;
  y: number;
}

const WHITE = 'white';
/** A photo is looked at no larger than this: more pixels tell nothing more of a colour. */
const MOST_PIXELS_ACROSS = 1400;
/** A place is the mean of a square of so many pixels to each side. */
const RADIUS = 6;

/** Colours out of a photo: first its white card, which takes the light out, then the places. The photo never leaves the browser. */
export function PhotoPick({ picks, onPick, opened }: PhotoPickProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [photo, setPhoto] = useState<ImageBitmap | null>(opened ?? null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [what, setWhat] = useState(WHITE);
  const [cursor, setCursor] = useState<Place>({ x: (opened?.width ?? 0) / 2, y: (opened?.height ?? 0) / 2 });
  const [places, setPlaces] = useState<Record<string, Place>>({});
  useEffect(() => {
    if (!photo || !canvas.current) return;
    canvas.current.width = photo.width;
    canvas.current.height = photo.height;
    canvas.current.getContext('2d', { willReadFrequently: true })?.drawImage(photo, 0, 0);
  }, [photo]);

  const open = async (file: File): Promise<void> => {
    setTrouble(null);
    try {
      const shown = await openPhoto(file, MOST_PIXELS_ACROSS);
      setPhoto(shown);
      setPlaces({});
      setWhat(WHITE);
      setCursor({ x: Math.round(shown.width / 2), y: Math.round(shown.height / 2) });
    } catch (error) {
      if (!(error instanceof PhotoError)) throw error;
      setTrouble(error.message);
    }
  };
  const lightAt = ({ x, y }: Place): ReturnType<typeof pixelLight> | null => {
    const image = canvas.current?.getContext('2d')?.getImageData(0, 0, canvas.current.width, canvas.current.height);
    return image ? pixelLight(image, Math.round(x), Math.round(y), RADIUS) : null;
  };
  const take = (place: Place): void => {
    const there = lightAt(place);
    if (!there) return;
    setTrouble(null);
    if (what === WHITE) {
      if (there.burnt)
        return setTrouble('The white card is burnt out here: nothing can be told from it. Take a darker photo.');
      if (!againstWhite(there.light, there.light)) return setTrouble('That is too dark for a white card.');
      setPlaces({ white: place });
      return setWhat(picks[0]!.value);
    }
    const white = places[WHITE] ? lightAt(places[WHITE]) : null;
    const colour = white ? againstWhite(there.light, white.light) : there.light;
    if (!colour) return;
    setPlaces({ ...places, [what]: place });
    onPick(what, hexFromLinear(colour));
    const next = picks[picks.findIndex(({ value }) => value === what) + 1];
    if (next) setWhat(next.value);
  };
  const placeOf = ({ clientX, clientY }: PointerEvent<HTMLElement>): Place => {
    const { left, top, width, height } = canvas.current!.getBoundingClientRect();
    return {
      x: ((clientX - left) / width) * canvas.current!.width,
      y: ((clientY - top) / height) * canvas.current!.height,
    };
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = event.shiftKey ? 40 : 8;
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (event.key === 'Enter' || event.key === ' ') take(cursor);
    else if (!move || !photo) return;
    else
      setCursor({
        x: Math.min(photo.width - 1, Math.max(0, cursor.x + move[0]!)),
        y: Math.min(photo.height - 1, Math.max(0, cursor.y + move[1]!)),
      });
    event.preventDefault();
  };
  const percent = ({ x, y }: Place): React.CSSProperties => ({
    left: `${(100 * x) / (photo?.width ?? 1)}%`,
    top: `${(100 * y) / (photo?.height ?? 1)}%`,
  });
  return (
    <div className={styles.photo}>
      {!opened && (
        <FileButton
          name="Photo with a white card"
          label={photo ? 'Another photo' : 'From a photo'}
          accept="image/*"
          onFile={(file) => void open(file)}
        />
      )}
      {!photo && (
        <p className={styles.small}>With a white card or sheet in it, in the same light. It stays in this browser.</p>
      )}
      {trouble && (
        <p role="alert" className={styles.trouble}>
          {trouble}
        </p>
      )}
      {photo && (
        <>
          <Toggles
            label="Pick"
            shown
            value={what}
            choices={[{ value: WHITE, label: 'the white card' }, ...picks]}
            onChoose={setWhat}
          />
          <div
            className={styles.frame}
            tabIndex={0}
            role="application"
            aria-label={`Photo. Arrow keys move the cross, Enter picks ${what === WHITE ? 'the white card' : (picks.find(({ value }) => value === what)?.label ?? '')}`}
            onKeyDown={onKeyDown}
            onPointerDown={(event) => {
              const place = placeOf(event);
              setCursor(place);
              take(place);
            }}
          >
            <canvas ref={canvas} />
            <span className={styles.cross} style={percent(cursor)} />
            {Object.entries(places).map(([name, place]) => (
              <span key={name} className={styles.place} style={percent(place)}>
                {name === WHITE ? 'white' : (picks.find(({ value }) => value === name)?.label ?? '')}
              </span>
            ))}
          </div>
          {!places[WHITE] && what !== WHITE && (
            <p className={styles.small}>Without a white card the light of the photo stays in the colour.</p>
          )}
        </>
      )}
    </div>
  );
}
