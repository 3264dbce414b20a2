const segment = (marker: number, ...body: number[]): number[] => {
  const length = body.length + 2;
  return [0xff, marker, length >> 8, length & 0xff, ...body];
};
const ascii = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0));

interface MadeJpeg {
  width?: number;
  height?: number;
  /** What stands beside the picture, as a camera writes it. */
  beside?: boolean;
  /** Makes pictures differ. */
  seed?: number;
}

/** The bones of a JPEG: markers in their order round a coded picture that stands for nothing. */
export const testJpeg = ({ width = 640, height = 480, beside = false, seed = 0 }: MadeJpeg = {}): Uint8Array =>
  Uint8Array.from([
    0xff,
    0xd8,
    ...segment(0xe0, ...ascii('JFIF\0'), 1, 1, 0, 0, 1, 0, 1, 0, 0),
    ...(beside
      ? [
          ...segment(0xe1, ...ascii('Exif\0\0 PLACE 12.3456')),
          ...segment(0xe1, ...ascii('http://ns/xap\0 PLACE')),
          ...segment(0xed, ...ascii('Photo 3.0 PLACE')),
          ...segment(0xfe, ...ascii('taken at PLACE')),
        ]
      : []),
    ...segment(0xdb, 0, ...Array<number>(64).fill(3)),
    ...segment(0xc0, 8, height >> 8, height & 0xff, width >> 8, width & 0xff, 1, 1, 0x11, 0),
    ...segment(0xc4, 0, ...Array<number>(16).fill(0)),
    ...segment(0xda, 1, 1, 0, 0, 63, 0),
    ...[seed & 0x7f, 0x12, 0xff, 0x00, 0x34, 0xff, 0xd0, 0x56, 0xff, 0x00],
    0xff,
    0xd9,
    ...(beside ? ascii('PLACE after the end') : []),
  ]);
