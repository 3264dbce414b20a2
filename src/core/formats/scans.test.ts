import { encode } from 'fast-png';
import fc from 'fast-check';
import { buildBed } from '../bed/buildBed';
import { cellFor } from '../bed/grid';
import { outlineAreaMm2, outlineEdges, outlineSize } from '../bed/outline';
import { sectionProfile } from '../bed/profile';
import type { Feature, Outline, PieceDesign } from '../model/designSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { volumeCurve, volumeMl } from '../bed/volumeCurve';
import { heightField, scanFeature, scanSize, UP_AXES, type UpAxis } from './heightField';
import { bedPng, pictureField, readHeightMap } from './heightMap';
import { bedStl, readStl, type Triangles } from './stl';
import { planSvg, sectionSvg } from './svg';
import { readSvg, svgOutline } from './svgOutline';

type Corner = readonly [number, number, number];
const AS_IS = { unitMm: 1, up: 'z', quarterTurns: 0 } as const;

/** A file in chunks of a size that cuts triangles and lines in two. */
async function* inChunks(bytes: Uint8Array, size = 997): AsyncGenerator<Uint8Array> {
  for (let i = 0; i < bytes.length; i += size) yield bytes.subarray(i, i + size);
}
const read = (bytes: Uint8Array, size?: number): Promise<Triangles> => readStl(inChunks(bytes, size), bytes.length);

function binary(triangles: readonly (readonly [Corner, Corner, Corner])[]): Uint8Array {
  const view = new DataView(new ArrayBuffer(84 + 50 * triangles.length));
  view.setUint32(80, triangles.length, true);
  triangles.forEach((corners, i) =>
    corners.flat().forEach((value, k) => view.setFloat32(84 + 50 * i + 12 + 4 * k, value, true)),
  );
  return new Uint8Array(view.buffer);
}
const text = (triangles: readonly (readonly [Corner, Corner, Corner])[]): Uint8Array =>
  new TextEncoder().encode(
    `solid scan\n${triangles.map((corners) => ` facet normal 0 0 0\n  outer loop\n${corners.map((corner) => `   vertex ${corner.map((value) => value.toExponential(6)).join(' ')}`).join('\n')}\n  endloop\n endfacet`).join('\n')}\nendsolid scan\n`,
  );

/** The surface that is turned about the z axis through (30, 30), by its heights at radii. */
function turnedSurface(
  profile: readonly (readonly [number, number])[],
  steps = 360,
): (readonly [Corner, Corner, Corner])[] {
  const at = (r: number, z: number, k: number): Corner => [
    30 + r * Math.cos((2 * Math.PI * k) / steps),
    30 + r * Math.sin((2 * Math.PI * k) / steps),
    z,
  ];
  return profile.slice(1).flatMap(([r1, z1], i) => {
    const [r0, z0] = profile[i]!;
    return Array.from(
      { length: steps },
      (_, k) =>
        [
          [at(r0, z0, k), at(r1, z1, k), at(r1, z1, k + 1)],
          [at(r0, z0, k), at(r1, z1, k + 1), at(r0, z0, k + 1)],
        ] as const,
    ).flat();
  });
}
const volumeOf = (field: { heightMm: Float32Array; stepMm: number }): number =>
  field.heightMm.reduce((sum, z) => sum + Math.max(0, z), 0) * field.stepMm ** 2;

describe('STL', () => {
  const cone = turnedSurface([
    [0, 20],
    [30, 0],
  ]);
  const hemisphere = turnedSurface(
    Array.from({ length: 91 }, (_, i) => [30 * Math.sin((i * Math.PI) / 180), 30 * Math.cos((i * Math.PI) / 180)]),
  );
  test.each([
    ['cone', cone, (Math.PI * 900 * 20) / 3],
    ['hemisphere', hemisphere, (2 / 3) * Math.PI * 27_000],
  ] as const)('a %s, binary and text, in pieces of any size, is right within 0.5 %%', async (_, solid, volume) => {
    for (const bytes of [binary(solid), text(solid)]) {
      const field = heightField(await read(bytes, 4096), AS_IS);
      // The corners of the box lie outside the solid: nothing is above them.
      const heights = field.heightMm.map((z, i) =>
        Math.hypot(
          ((i % field.columns) + 0.5) * field.stepMm - 30,
          (Math.floor(i / field.columns) + 0.5) * field.stepMm - 30,
        ) > 30
          ? 0
          : z,
      );
      expect(Math.abs(volumeOf({ ...field, heightMm: heights }) / volume - 1)).toBeLessThan(0.005);
      expect(field.holes).toBeCloseTo(1 - Math.PI / 4, 2);
    }
  });
  test('the same triangles come out of both forms, however they are cut', () => {
    const corner = fc.tuple(
      ...([0, 1, 2].map(() =>
        fc.double({ min: -50, max: 50, noNaN: true }).map((value) => Math.fround(Number(value.toExponential(6)))),
      ) as [fc.Arbitrary<number>, fc.Arbitrary<number>, fc.Arbitrary<number>]),
    );
    return fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(corner, corner, corner), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 300 }),
        async (triangles, size) => {
          const expected = triangles.flat(2);
          const [fromBinary, fromText] = [await read(binary(triangles), size), await read(text(triangles), size)];
          expect(Array.from(fromBinary)).toEqual(expected);
          fromText.forEach((value, i) => expect(value).toBeCloseTo(expected[i]!, 3));
        },
      ),
      { numRuns: 40 },
    );
  });
  test('whichever way it stands, turned upright it is the same', async () => {
    const standing: Record<UpAxis, (corner: Corner) => Corner> = {
      z: (c) => c,
      '-z': ([x, y, z]) => [x, -y, -z],
      y: ([x, y, z]) => [x, z, -y],
      '-y': ([x, y, z]) => [x, -z, y],
      x: ([x, y, z]) => [z, x, y],
      '-x': ([x, y, z]) => [-z, x, -y],
    };
    const wedge: [Corner, Corner, Corner][] = [
      [
        [0, 0, 0],
        [40, 0, 10],
        [40, 20, 10],
      ],
      [
        [0, 0, 0],
        [40, 20, 10],
        [0, 20, 4],
      ],
    ];
    const upright = heightField(await read(binary(wedge)), AS_IS, undefined, 400);
    for (const up of UP_AXES) {
      const field = heightField(
        await read(
          binary(wedge.map((corners) => corners.map((corner) => standing[up](corner)) as [Corner, Corner, Corner])),
        ),
        { ...AS_IS, up },
        undefined,
        400,
      );
      expect([field.columns, field.rows]).toEqual([upright.columns, upright.rows]);
      field.heightMm.forEach((z, i) => expect(z).toBeCloseTo(upright.heightMm[i]!, 4));
    }
  });
  test('a quarter turn lays what was east to the north; units scale all three', async () => {
    const ramp: [Corner, Corner, Corner][] = [
      [
        [0, 0, 0],
        [4, 0, 1],
        [4, 2, 1],
      ],
      [
        [0, 0, 0],
        [4, 2, 1],
        [0, 2, 0],
      ],
    ];
    const field = heightField(await read(binary(ramp)), { unitMm: 25.4, up: 'z', quarterTurns: 1 }, undefined, 400);
    expect([field.widthMm, field.lengthMm, field.highestMm].map((mm) => Math.round(mm * 10) / 10)).toEqual([
      50.8, 101.6, 25.4,
    ]);
    expect(field.heightMm.at(-1)!).toBeGreaterThan(field.heightMm[0]! + 20);
    expect(scanSize(await read(binary(ramp)))).toEqual([4, 2, 1]);
  });
  test('what overhangs hides what lies under it', async () => {
    const floor: [Corner, Corner, Corner][] = [
      [
        [0, 0, 0],
        [10, 0, 0],
        [10, 10, 0],
      ],
      [
        [0, 0, 0],
        [10, 10, 0],
        [0, 10, 0],
      ],
    ];
    const shelf: [Corner, Corner, Corner][] = [
      [
        [0, 0, 5],
        [5, 0, 5],
        [5, 10, 5],
      ],
      [
        [0, 0, 5],
        [5, 10, 5],
        [0, 10, 5],
      ],
    ];
    const field = heightField(await read(binary([...shelf, ...floor])), AS_IS, undefined, 100);
    expect(new Set(field.heightMm)).toEqual(new Set([5, 0]));
    expect(Math.abs(volumeOf(field) / 250 - 1)).toBeLessThan(0.05);
  });
  const nan = binary([
    [
      [0, 0, 0],
      [NaN, 0, 1],
      [4, 2, 1],
    ],
    [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
    ],
  ]);
  test.each<[string, Uint8Array, RegExp]>([
    ['an empty file', new Uint8Array(0), /empty/],
    ['a few bytes', new TextEncoder().encode('hello'), /too short/],
    ['nonsense', Uint8Array.from({ length: 400 }, (_, i) => (i * 37) % 251), /cut short|too many/],
    ['a binary file cut short', binary(cone).subarray(0, 900), /holds 720 triangles but ends after 16/],
    [
      'a text without triangles',
      new TextEncoder().encode(`solid nothing at all${' '.repeat(90)}\nendsolid\n`),
      /no triangles/,
    ],
    ['a text cut short', text(cone).subarray(0, 5000), /without “endsolid”|corners/],
    ['corners that are no numbers', nan, /One triangle has corners that are not numbers, the first is triangle 1/],
    [
      'words for numbers',
      new TextEncoder().encode(
        String.fromCharCode(
          ...text([
            [
              [0, 0, 0],
              [1, 0, 0],
              [0, 1, 0],
            ],
          ]),
        ).replace('1.000000e+0', 'one'),
      ),
      /not numbers/,
    ],
  ])('%s is explained', async (_, bytes, words) => {
    await expect(read(bytes)).rejects.toThrow(words);
  });
  test('too large in its units, or with no size from above, is explained', async () => {
    const ramp = await read(
      binary([
        [
          [0, 0, 0],
          [40, 0, 1],
          [40, 20, 1],
        ],
        [
          [0, 0, 0],
          [40, 20, 1],
          [0, 20, 0],
        ],
      ]),
    );
    expect(() => heightField(ramp, { ...AS_IS, unitMm: 1000 })).toThrow(/smaller units/);
    const upright = await read(
      binary([
        [
          [0, 0, 0],
          [4, 0, 0],
          [4, 0, 3],
        ],
      ]),
    );
    expect(() => heightField(upright, AS_IS)).toThrow(/no size/);
  });
  test('progress is told, and throwing there stops it', async () => {
    const bytes = binary(
      Array.from(
        { length: 90_000 },
        (_, i) =>
          [
            [0, 0, 0],
            [i, 1, 1],
            [0, 2, 1],
          ] as const,
      ),
    );
    const told: number[] = [];
    const triangles = await readStl(inChunks(bytes, 100_000), bytes.length, (share) => told.push(share));
    expect(told.length).toBeGreaterThan(1);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    expect(() =>
      heightField(triangles, { ...AS_IS, unitMm: 0.01 }, () => {
        throw new Error('stopped');
      }),
    ).toThrow('stopped');
  });
});

describe('there and back again keeps the water within 0.5 %', () => {
  const round: Outline = { kind: 'oval', widthMm: 50, lengthMm: 50 };
  const designs: [string, PieceDesign][] = [
    [
      'tile with a channel',
      testDesign([{ ...newFeature('channel', testDesign()), to: { edge: 'west', positionMm: 70 } }]),
    ],
    ['tile with upright banks', testDesign([{ ...newFeature('channel', testDesign()), widthMm: 58, bankSlope: 0 }])],
    [
      'shore board',
      testDesign(
        [newFeature('shore', testDesign([], { outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 } }))],
        { outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 } },
      ),
    ],
    [
      'base with a pool',
      testDesign([{ ...newFeature('pool', testDesign([], { outline: round })), widthMm: 30, lengthMm: 26 }], {
        outline: round,
      }),
    ],
  ];
  const waterOf = (design: PieceDesign): number => volumeMl(volumeCurve(buildBed(design)), 15);
  const scanned = (design: PieceDesign, feature: Feature): PieceDesign => ({ ...design, features: [feature] });
  test.each(designs)('%s, as STL', async (_, design) => {
    const bytes = bedStl(buildBed(design, cellFor(design.outline, 70_000)), outlineSize(design.outline), design.name);
    const field = heightField(await read(bytes, 1 << 20), AS_IS);
    expect(Math.abs(waterOf(scanned(design, scanFeature(field, 's'))) / waterOf(design) - 1)).toBeLessThan(0.005);
    const size = outlineSize(design.outline);
    expect(Math.abs(field.widthMm - size.widthMm)).toBeLessThan(0.6);
  });
  test.each(designs)('%s, as PNG', (_, design) => {
    const picture = readHeightMap(bedPng(buildBed(design)));
    expect(picture.bits).toBe(16);
    const field = pictureField(picture, picture.scale!);
    expect(Math.abs(waterOf(scanned(design, scanFeature(field, 's'))) / waterOf(design) - 1)).toBeLessThan(0.005);
  });
  test('an exported solid is closed: every edge is shared by two triangles', async () => {
    const triangles = await read(
      bedStl(buildBed(designs[3]![1], 2), outlineSize(designs[3]![1].outline), 'x'),
      1 << 20,
    );
    const edges = new Map<string, number>();
    for (let i = 0; i < triangles.length; i += 9) {
      const corners = [0, 3, 6].map((k) => Array.from(triangles.subarray(i + k, i + k + 3)).join());
      corners.forEach((from, k) => {
        const key = [from, corners[(k + 1) % 3]!].sort().join('|');
        edges.set(key, (edges.get(key) ?? 0) + 1);
      });
    }
    expect([...edges.values()].filter((count) => count % 2 !== 0)).toEqual([]);
  });
});

describe('grey pictures', () => {
  const scale = { widthMm: 40, blackMm: 2, whiteMm: 12 };
  test('8 bits: black is the lowest, white the highest, north at the top', () => {
    const field = pictureField(
      readHeightMap(encode({ width: 2, height: 2, data: Uint8Array.of(0, 255, 51, 102), channels: 1 })),
      scale,
    );
    expect(field).toMatchObject({ columns: 2, rows: 2, stepMm: 20, widthMm: 40, lengthMm: 40 });
    Array.from(field.heightMm).forEach((height, i) => expect(height).toBeCloseTo([4, 6, 2, 12][i]!, 5));
  });
  test('larger ones are averaged down, their mean kept', () => {
    const data = Uint16Array.from({ length: 600 * 500 }, (_, i) => (i * 7919) % 65_536);
    const field = pictureField(readHeightMap(encode({ width: 600, height: 500, data, depth: 16, channels: 1 })), scale);
    expect(field.columns * field.rows).toBeLessThanOrEqual(160_000);
    const mean = field.heightMm.reduce((sum, z) => sum + z, 0) / field.heightMm.length;
    expect(mean).toBeCloseTo(7, 1);
  });
  test('colours that are all grey will do; a coloured pixel is named', () => {
    expect(
      readHeightMap(
        encode({ width: 2, height: 2, data: Uint8Array.of(9, 9, 9, 80, 80, 80, 5, 5, 5, 0, 0, 0), channels: 3 }),
      ).shares[1],
    ).toBeCloseTo(80 / 255, 6);
    expect(() =>
      readHeightMap(
        encode({ width: 2, height: 2, data: Uint8Array.of(9, 9, 9, 80, 80, 200, 5, 5, 5, 0, 0, 0), channels: 3 }),
      ),
    ).toThrow(/in colour \(pixel 2, 1\)/);
  });
  test('what is no picture, or a damaged one, is explained', () => {
    expect(() => readHeightMap(new TextEncoder().encode('not a picture'))).toThrow(/not a PNG/);
    const whole = encode({ width: 9, height: 9, data: new Uint8Array(81), channels: 1 });
    expect(() => readHeightMap(whole.subarray(0, whole.length - 30))).toThrow(/damaged/);
    expect(() => readHeightMap(encode({ width: 1, height: 1, data: Uint8Array.of(7), channels: 1 }))).toThrow(
      /two pixels/,
    );
  });
});

describe('SVG outlines', () => {
  const drawing = (body: string, attributes = 'width="100mm" height="80mm" viewBox="0 0 200 160"'): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
  const outlineOf = (svg: string): Outline => {
    const { shapes, mmPerUnit } = readSvg(svg);
    return svgOutline(shapes[0]!, mmPerUnit!);
  };
  test('sizes in mm hold; the largest closed shape is the outline, north at the drawing’s top', () => {
    const outline = outlineOf(
      drawing('<rect x="0" y="0" width="10" height="10"/><path d="M20 20h120v40l-60 40h-60z"/>'),
    );
    expect(outlineSize(outline)).toEqual({ widthMm: 60, lengthMm: 40 });
    expect(outlineAreaMm2(outline)).toBeCloseTo(60 * 20 + ((60 + 30) / 2) * 20, 6);
    expect(outlineEdges(outline)).toContain('north');
  });
  test('circles, arcs and curves keep their area within 0.1 %', () => {
    expect(
      Math.abs(outlineAreaMm2(outlineOf(drawing('<circle cx="100" cy="80" r="60"/>'))) / (Math.PI * 900) - 1),
    ).toBeLessThan(0.002);
    expect(
      Math.abs(
        outlineAreaMm2(outlineOf(drawing('<path d="M40 80a60 40 0 1 1 120 0a60 40 0 1 1 -120 0z"/>'))) /
          (Math.PI * 30 * 20) -
          1,
      ),
    ).toBeLessThan(0.002);
  });
  test('transforms of groups add up', () =>
    expect(
      outlineSize(
        outlineOf(
          drawing(
            '<g transform="translate(10 5) scale(2)"><g transform="rotate(90)"><rect width="30" height="10"/></g></g>',
          ),
        ),
      ),
    ).toEqual({ widthMm: 10, lengthMm: 30 }));
  test('without a size in mm the drawing’s size must be asked', () => {
    const { mmPerUnit, shapes } = readSvg(drawing('<rect width="50" height="20"/>', 'width="300" height="200"'));
    expect(mmPerUnit).toBeNull();
    expect(outlineSize(svgOutline(shapes[0]!, 120 / shapes[0]!.widthUnits))).toEqual({ widthMm: 120, lengthMm: 48 });
  });
  test.each<[string, string, RegExp]>([
    [
      'open paths',
      drawing('<path id="bank" d="M0 0h100v50"/><polyline points="0,0 5,5 9,0"/>'),
      /Open: bank, polyline 2\. Join/,
    ],
    ['no shapes', drawing('<text>hello</text>'), /no paths or shapes/],
    ['no drawing', '<html></html>', /no drawing/],
    ['no SVG', 'M0 0h10', /no SVG/],
    ['a broken path', drawing('<path id="bad" d="M0 0 L 5 x 7z"/>'), /“bad” cannot be read/],
  ])('%s are explained', (_, svg, words) => expect(() => outlineOf(svg)).toThrow(words));
  test('a path whose ends meet is closed without saying so', () =>
    expect(outlineAreaMm2(outlineOf(drawing('<path d="M0 0h100v50h-100v-50"/>')))).toBeCloseTo(50 * 25, 6));
  test('a drawn plan comes back as the outline it was drawn from', () => {
    const hexagon: Outline = { kind: 'regular', sides: 6, acrossMm: 120 };
    const design = testDesign([newFeature('channel', testDesign([], { outline: hexagon }))], { outline: hexagon });
    const { shapes, mmPerUnit } = readSvg(planSvg(design, buildBed(design, 1), 15));
    const outline = svgOutline(
      shapes.find(({ name }) => name === 'outline')!,
      mmPerUnit!,
    );
    expect(Math.abs(outlineAreaMm2(outline) / outlineAreaMm2(hexagon) - 1)).toBeLessThan(0.001);
  });
});

test('drawings are at true size, with a bar to check the print by', () => {
  const design = testDesign([newFeature('channel', testDesign())]);
  const bed = buildBed(design, 1);
  const plan = planSvg(design, bed, 15);
  expect(plan).toMatch(/^<svg [^>]*width="164mm" height="174mm" viewBox="0 0 164 174">/);
  expect(plan).toContain('50 mm when printed at true size');
  const section = sectionSvg(design, sectionProfile(bed, 0, 70, 140, 70), 15);
  expect(section).toMatch(/id="bed" d="M0 23L0 5L/);
  expect(section).toContain('M0 8H140');
});

describe('what would take more than a file of its kind may', () => {
  test('a picture is refused by what it says of its size, before room is made for it', () => {
    const bytes = Uint8Array.from(encode({ width: 2, height: 2, data: new Uint8Array(4), depth: 8, channels: 1 }));
    new DataView(bytes.buffer).setUint32(16, 4294967295);
    expect(() => readHeightMap(bytes)).toThrow('4294967295 × 2 pixels are too many');
    expect(() => readHeightMap(bytes.subarray(0, 20))).toThrow('ends before its size is said');
  });
  test('a path of 200,000 arcs is refused before one of them is drawn', () => {
    const svg = `<svg><path d="M0 0${'a1 1 0 0 1 1 1'.repeat(60_000)}Z"/></svg>`;
    expect(() => readSvg(svg)).toThrow('more than 20000 segments');
    const long = `<svg><path d="M0 0${'a1 1 0 0 1 1 1'.repeat(200_000)}Z"/></svg>`;
    expect(() => readSvg(long)).toThrow('more than 20000 segments');
  });
  test('a text STL of one line without an end is refused while it is read', async () => {
    let read = 0;
    const endless = async function* (): AsyncGenerator<Uint8Array> {
      yield new TextEncoder().encode(`solid x\n${' '.repeat(100)}`);
      for (; read < 1000; read++) yield new TextEncoder().encode('vertex 0 0 0 '.repeat(2000));
    };
    await expect(readStl(endless(), 26_000_000)).rejects.toThrow('no text STL');
    expect(read).toBeLessThan(10);
  });
});
