import type { Page } from '@playwright/test';

/** An EXIF segment as a phone writes it: turned a quarter, with a place. */
function exif(orientation: number): Buffer {
  const entry = (tag: number, type: number, count: number, value: number): Buffer => {
    const bytes = Buffer.alloc(12);
    bytes.writeUInt16BE(tag, 0);
    bytes.writeUInt16BE(type, 2);
    bytes.writeUInt32BE(count, 4);
    if (type === 3) bytes.writeUInt16BE(value, 8);
    else bytes.writeUInt32BE(value, 8);
    return bytes;
  };
  const PLACE_AT = 38;
  const tiff = Buffer.concat([
    Buffer.from('MM\0*', 'latin1'),
    Buffer.from([0, 0, 0, 8, 0, 2]),
    entry(0x0112, 3, 1, orientation),
    entry(0x8825, 4, 1, PLACE_AT),
    Buffer.alloc(4),
    // The place: made up, in the middle of a sea.
    Buffer.from([0, 1]),
    entry(1, 2, 2, 0x4e000000),
    Buffer.alloc(4),
    Buffer.from('PLACE 12.3456 -34.5678', 'latin1'),
  ]);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

/**
 * A photo as a phone would take it of a tile on the bench, with a white card in it: made up, drawn, noisy. It lies on its side in the
 * file, says so, and says where it was taken.
 */
export async function madeUpPhoto(page: Page, width: number, height: number, water: string): Promise<Buffer> {
  const text = await page.evaluate(
    async ([across, up, colour]) => {
      const canvas = document.createElement('canvas');
      canvas.width = up;
      canvas.height = across;
      const drawing = canvas.getContext('2d')!;
      // Drawn upright, in a file that is turned.
      drawing.translate(0, across);
      drawing.rotate(-Math.PI / 2);
      const shine = drawing.createLinearGradient(0.24 * across, 0, 0.56 * across, 0);
      shine.addColorStop(0, 'rgba(255,255,255,0.28)');
      shine.addColorStop(0.2, 'rgba(255,255,255,0)');
      // The bench, its edge, the tile's rim, its bank, the water, what shines on it, the card.
      for (const [style, x, y, w, h] of [
        ['#8a7660', 0, 0, 1, 1],
        ['#5d4c3b', 0, 0.74, 1, 0.26],
        ['#4b3f2f', 0.12, 0.2, 0.6, 0.6],
        ['#87764f', 0.15, 0.24, 0.54, 0.52],
        [colour, 0.24, 0.24, 0.32, 0.52],
        [shine, 0.24, 0.24, 0.32, 0.52],
        ['#ded9cc', 0.78, 0.3, 0.16, 0.24],
      ] as const) {
        drawing.fillStyle = style;
        drawing.fillRect(x * across, y * up, w * across, h * up);
      }
      const grain = document.createElement('canvas');
      grain.width = grain.height = 256;
      const pixels = grain.getContext('2d')!.createImageData(256, 256);
      let seed = 7;
      for (let i = 0; i < pixels.data.length; i += 4) {
        seed = (seed * 1103515245 + 12345) % 2147483648;
        const grey = 96 + (seed % 64);
        pixels.data.set([grey, grey, grey, 26], i);
      }
      grain.getContext('2d')!.putImageData(pixels, 0, 0);
      drawing.fillStyle = drawing.createPattern(grain, 'repeat')!;
      drawing.fillRect(0, 0, across, up);
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.92));
      const bytes = new Uint8Array(await blob!.arrayBuffer());
      let binary = '';
      for (let i = 0; i < bytes.length; i += 32_768) binary += String.fromCharCode(...bytes.subarray(i, i + 32_768));
      return btoa(binary);
    },
    [width, height, water] as const,
  );
  const drawn = Buffer.from(text, 'base64');
  // Seen from the file, the picture is turned a quarter: 6 says so.
  return Buffer.concat([drawn.subarray(0, 2), exif(6), drawn.subarray(2)]);
}
