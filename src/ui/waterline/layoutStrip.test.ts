import type { StripPiece } from '@/core/picture/strip';
import { bodyPath, layoutStrip, rockPath, rockWaterPath, surfacePath, waterPath, type StripSlot } from './layoutStrip';

const piece = (id: string, lengthMm: number, heights: number[], change: Partial<StripPiece> = {}): StripPiece => ({
  id,
  tag: id,
  name: id,
  copies: 1,
  place: 'south',
  dams: [],
  problem: null,
  profile: { lengthMm, heightMm: heights },
  overMm: null,
  look: { stepMm: 1, colours: ['#ffffff'] },
  rocks: [],
  rockColour: null,
  surface: { leftMm: 15, rightMm: 15 },
  ...change,
});
const numbers = (path: string): number[] => (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
const slot = (of: StripPiece): StripSlot => ({ piece: of, copy: 1, leftPx: 10, widthPx: 100 });

describe('where pieces stand', () => {
  const set = [
    piece('a', 140, [18, 9, 18], { copies: 4 }),
    piece('b', 450, [9, 22], { copies: 2 }),
    piece('c', 32, [18, 12, 18], { copies: 12 }),
  ];
  test('all at one scale, side by side in their order, filling the width', () => {
    const { slots, widthPx, pxPerMm } = layoutStrip(set, 800, false);
    expect(slots.map((each) => each.piece.id)).toEqual(['a', 'b', 'c']);
    expect(widthPx).toBeCloseTo(800, 0);
    for (const {
      piece: { profile },
      widthPx: width,
    } of slots)
      expect(width).toBeCloseTo(profile.lengthMm * pxPerMm, 6);
    slots.slice(1).forEach((each, i) => expect(each.leftPx).toBeGreaterThan(slots[i]!.leftPx + slots[i]!.widthPx));
  });
  test('every piece when asked, copies numbered', () => {
    const { slots } = layoutStrip(set, 1200, true);
    expect(slots).toHaveLength(18);
    expect(slots.filter((each) => each.piece.id === 'c').map(({ copy }) => copy)).toEqual(
      Array.from({ length: 12 }, (_, i) => i + 1),
    );
  });
  test('wider than the window rather than too small to read', () => {
    const many = Array.from({ length: 60 }, (_, i) => piece(`p${i}`, 140, [18, 9, 18]));
    expect(layoutStrip(many, 800, false).widthPx).toBeGreaterThan(800);
  });
  test('a few small pieces are not blown up to fill it', () =>
    expect(layoutStrip([piece('c', 32, [18, 12, 18])], 1200, false).widthPx).toBeLessThan(60));
});

describe('what is drawn of one', () => {
  test('the body follows the bed and closes on the table', () => {
    const path = bodyPath(slot(piece('a', 140, [18, 9, 18])), 200, 5);
    expect(numbers(path)).toEqual([10, 200, 10, 110, 60, 155, 110, 110, 110, 200]);
    expect(path.endsWith('Z')).toBe(true);
  });
  test('water reaches from the level down to the bed, each hollow on its own and no wider than its banks', () => {
    const two = slot(piece('a', 140, [18, 9, 18, 12, 18]));
    // Beds of 9 and 12 mm under a level of 15 mm, five pixels a millimetre; y grows downwards.
    expect(waterPath(two, 200, 5)).toBe('M10 155V125L60 125V155ZM60 140V125L110 125V140Z');
  });
  test('a dry piece has no water and no surface', () => {
    const dry = slot(piece('a', 140, [18, 18]));
    expect([waterPath(dry, 200, 5), surfacePath(dry, 200, 5)]).toEqual(['', '']);
  });
  test('on a tilted bench the surface slants', () => {
    const tilted = slot(piece('a', 140, [9, 9, 9], { surface: { leftMm: 14, rightMm: 16 } }));
    expect(numbers(surfacePath(tilted, 200, 5))).toEqual([10, 130, 110, 120]);
  });
});

describe('rocks of a paint of their own', () => {
  // 100 mm of bed at 5 with a rock from 40 to 60 mm that is 10 high; 1 px a mm, the table at 100 px.
  const stony = slot(piece('r', 100, [5, 5, 5, 5, 10, 10, 10, 5, 5, 5, 5], { rocks: [[40, 60]] }));

  test('show that paint along their face, and nowhere else', () => {
    expect(rockPath(stony, 100, 1)).toBe('M50 90L60 90L70 90');
    expect(rockPath(slot(piece('n', 100, [5, 5])), 100, 1)).toBe('');
  });

  test('have water from the surface down to where the rock is lowest', () => {
    expect(rockWaterPath(stony, 100, 1)).toBe('M50 90V85H70V90Z');
  });

  test('have none where they stand out of it', () => {
    const out = slot(piece('o', 100, [5, 5, 20, 20, 5, 5], { rocks: [[40, 60]] }));
    expect(rockWaterPath(out, 100, 1)).toBe('');
  });
});
