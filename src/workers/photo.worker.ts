import { expose, transfer } from 'comlink';

/** How good a kept photo is, 0 to 1: below this, fine bubbles go. */
const QUALITY = 0.85;

/** A picture file upright and no larger than so many pixels across; rejects for what the browser cannot open. */
async function upright(file: Blob, mostAcross: number): Promise<ImageBitmap> {
  const whole = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const scale = Math.min(1, mostAcross / Math.max(whole.width, whole.height));
  const size = (pixels: number): number => Math.max(1, Math.round(pixels * scale));
  try {
    return await createImageBitmap(whole, {
      resizeWidth: size(whole.width),
      resizeHeight: size(whole.height),
      resizeQuality: 'medium',
    });
  } finally {
    whole.close();
  }
}

/** What the worker does with photos: they are decoded and made small off the page. */
export const photographer = {
  upright: async (file: Blob, mostAcross: number): Promise<ImageBitmap> => {
    const bitmap = await upright(file, mostAcross);
    return transfer(bitmap, [bitmap]);
  },
  /** Drawn anew as a JPEG: of what stood in the file, only the picture is left. */
  jpeg: async (file: Blob, mostAcross: number): Promise<Blob> => {
    const bitmap = await upright(file, mostAcross);
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    const drawing = canvas.getContext('2d', { alpha: false })!;
    // What a picture with holes lies on.
    drawing.fillStyle = '#fff';
    drawing.fillRect(0, 0, bitmap.width, bitmap.height);
    drawing.drawImage(bitmap, 0, 0);
    bitmap.close();
    return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
  },
};
export type Photographer = typeof photographer;

expose(photographer);
