import { cleanJpeg, JpegError } from './jpegFile';
import { testJpeg } from './testJpeg';

const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');

test('what a camera writes beside the picture goes, the picture stays byte for byte', () => {
  const camera = testJpeg({ beside: true });
  expect(text(camera)).toContain('PLACE');
  const clean = cleanJpeg(camera);
  expect(text(clean.bytes)).not.toMatch(/PLACE|Exif|Photo|taken/);
  expect(clean.bytes).toEqual(testJpeg());
  expect(clean).toMatchObject({ width: 640, height: 480 });
});

test('what is clean stays as it is, and its size is told', () => {
  const bytes = testJpeg({ width: 1600, height: 1201 });
  expect(cleanJpeg(bytes)).toEqual({ bytes, width: 1600, height: 1201 });
});

test('a progressive picture in several scans, its markers filled up', () => {
  const made = [...testJpeg()];
  const frame = made.indexOf(0xc0);
  made[frame] = 0xc2;
  const second = [0xff, 0xff, 0xda, 0, 8, 1, 1, 0, 1, 5, 0, 9, 9];
  const bytes = Uint8Array.from([...made.slice(0, -2), ...second, ...made.slice(-2)]);
  expect(cleanJpeg(bytes).bytes).toEqual(bytes);
});

test.each([
  ['nothing', new Uint8Array()],
  ['another kind of picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10])],
  ['text', Uint8Array.from(Buffer.from('not a photo at all'))],
])('%s is no photo', (_, bytes) => {
  expect(() => cleanJpeg(bytes)).toThrow(new JpegError('This is no photo.'));
});

test('one that was cut short is refused wherever it was cut', () => {
  const whole = testJpeg({ beside: false });
  for (let length = 2; length < whole.length; length++)
    expect(() => cleanJpeg(whole.subarray(0, length))).toThrow(JpegError);
});

test('one without a picture, or with one of no size, is damaged', () => {
  expect(() => cleanJpeg(Uint8Array.from([0xff, 0xd8, 0xff, 0xd9]))).toThrow('This photo is damaged.');
  expect(() => cleanJpeg(testJpeg({ width: 0 }))).toThrow('This photo is damaged.');
  const twisted = testJpeg();
  twisted[2] = 0x12;
  expect(() => cleanJpeg(twisted)).toThrow('This photo is damaged.');
});
