import { CLEAR_TINT } from '../tint/waterTint';
import fc from 'fast-check';
import type { Feature, PieceDesign } from '../model/designSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { LEVEL_BENCH, surveyBed } from '../plan';
import { matchSet } from './matchSet';
import { mendSeam, type StandingJoint } from './waysToClose';
import { NO_WISH, SEAM_LIMITS } from '../model/seamSchema';
import { LEAST_FILM_MM, shimRow, topUp, type EndLevels } from './shims';
import { layoutJoints, meetsOf, tableStock } from './tableTiles';
import type { MatchPiece, MatchRequest } from './matchTypes';

const bedOf = (design: PieceDesign) => surveyBed(design, 1);
const board = (tag: string, waterlineMm: number, change: Partial<MatchPiece> = {}): MatchPiece => {
  const design = testDesign([{ ...newFeature('shore', testDesign()), waterlineMm, slope: 8, depthMm: 6 }], {
    tag,
    kind: 'board',
    outline: { kind: 'rectangle', widthMm: 200, lengthMm: 140 },
  });
  return { tag, designId: tag, copy: null, copies: 1, design, edges: {}, ...change };
};
const request = (pieces: MatchPiece[], change: Partial<MatchRequest> = {}): MatchRequest => ({
  pieces,
  levelMm: 15,
  limits: SEAM_LIMITS,
  standards: [],
  tilt: LEVEL_BENCH,
  tint: CLEAR_TINT,
  row: NO_WISH,
  ...change,
});

describe('a rock of its own paint at the deepest place of an edge', () => {
  // A low stone on the floor of a channel, through the edge: the seam is judged over the stone.
  const stone: Feature = { kind: 'rock', id: 's', form: 'block', xMm: 70, yMm: 4, diameterMm: 12, heightMm: 0.1 };
  const channel: Feature = {
    ...(newFeature('channel', testDesign()) as Extract<Feature, { kind: 'channel' }>),
    widthMm: 8,
    depthMm: 5,
    bankSlope: 0,
  };
  const tile = (tag: string, change: Partial<PieceDesign> = {}): MatchPiece => ({
    tag,
    designId: tag,
    copy: null,
    copies: 1,
    edges: {},
    design: testDesign([channel, stone], { tag, ...change }),
  });
  const seamOf = (pieces: MatchPiece[]) => {
    const { seams, edges } = matchSet(request(pieces), bedOf);
    return seams.find(
      ({ a, b }) => edges[a]!.edge === 'south' && edges[b]!.edge === 'south' && edges[a]!.piece !== edges[b]!.piece,
    )!;
  };
  test('is what the colour of its seam is taken over', () => {
    const dark = { rockColour: '#222222' };
    expect(seamOf([tile('A'), tile('B')]).deltaE).toBe(0);
    expect(seamOf([tile('A', dark), tile('B', dark)]).deltaE).toBe(0);
    const apart = seamOf([tile('A', dark), tile('B')]);
    expect(apart.deltaE).toBeGreaterThan(20);
    expect(apart.grades.colour).toBe('shows');
  });
});

describe('a set', () => {
  test('boards of one drawing close in any order that keeps the land on one side', () => {
    const { row, seams, problems } = matchSet(request([board('A', 60, { copies: 3 })]), bedOf);
    expect(problems).toEqual([]);
    expect(row!.result).toMatchObject({ exact: true, worst: 0 });
    // All three one way, or all three turned: 3! orders each; turned among unturned puts land against water.
    expect([row!.result.passing, row!.result.all]).toEqual([12, 48]);
    expect(row!.seams.map(({ grade }) => grade)).toEqual(['closes', 'closes']);
    expect(row!.lengthMm).toBe(600);
    expect(seams[0]!.grade).toBe('shows');
  });
  test('a measured level makes the step, in the row and in the list', () => {
    const low = board('A #2', 60, {
      designId: 'A',
      copy: 2,
      edges: { west: { bed: [], levels: [14.2, 14.2, 14.2] }, east: { bed: [], levels: [14.4, 14.4, 14.4] } },
    });
    const { row, edges } = matchSet(request([board('A', 60), low]), bedOf);
    expect(row!.result.worst).toBeGreaterThan(1);
    const seam = row!.seams[0]!;
    expect([edges[seam.a]!.piece, edges[seam.b]!.piece].sort()).toEqual(['A', 'A #2']);
    expect(Math.abs(seam.stepMm!)).toBeCloseTo(0.6, 6);
    expect(seam.reason).toBe('the levels differ by 0.6 mm');
  });
  test('a bench out of level puts a step between boards that stand the same way', () => {
    const { row } = matchSet(
      request([board('A', 60, { copies: 2 })], { tilt: { eastMmPerM: 5, northMmPerM: 0 } }),
      bedOf,
    );
    // Each stands 0.5 mm high at its east end and low at its west end: a full millimetre where they meet.
    expect(Math.abs(row!.seams[0]!.stepMm!)).toBeCloseTo(1, 1);
  });
  test('the board that spoils the row is named', () => {
    const { row } = matchSet(request([board('A', 60, { copies: 2 }), board('B', 75), board('C', 60)]), bedOf);
    expect(row!.boards[row!.spoiler!.board]!.name).toBe('B #1');
    expect(row!.spoiler).toMatchObject({ withoutWorst: 0, lacks: 'closing', spoils: 3 });
  });
  test('a board that stands low is told by how much to raise it, and then it spoils none', () => {
    const low = board('B', 60, {
      edges: { west: { bed: [], levels: [13, 13, 13] }, east: { bed: [], levels: [13, 13, 13] } },
    });
    const { row } = matchSet(request([board('A', 60, { copies: 2 }), low]), bedOf);
    expect(row!.spoiler).toMatchObject({ spoils: 2, others: 2, raiseMm: 2, spoilsThen: 0 });
    expect(row!.boards[row!.spoiler!.board]!.name).toBe('B #1');
  });
  test('boards whose water reads one way all read from left to right', () => {
    const flowing = (tag: string, flowsFrom: 'west' | 'east'): MatchPiece => {
      const plain = board(tag, 60);
      return { ...plain, design: { ...plain.design, flowsFrom } };
    };
    const { row } = matchSet(request([flowing('A', 'west'), flowing('B', 'east'), board('C', 60)]), bedOf);
    const turned = new Map(row!.result.places.map((place) => [row!.boards[place.board]!.name, place.turned]));
    expect([turned.get('A #1'), turned.get('B #1')]).toEqual([false, true]);
    // Neither of the two can be turned, the third can: 3! orders, 2 ways.
    expect(row!.result.all).toBe(12);
  });
  test('pins and rules speak of boards by name; one that is gone is told', () => {
    const { row } = matchSet(
      request([board('A', 60, { copies: 2, copyNumbers: [1, 3] }), board('A #2', 60, { copy: 2 })], {
        row: {
          pins: [{ piece: { designId: 'A', copy: 3 }, place: 0 }],
          apart: [
            [
              { designId: 'A', copy: 1 },
              { designId: 'A', copy: 3 },
            ],
          ],
        },
      }),
      bedOf,
    );
    expect(row!.result.places.map(({ board: index }) => row!.boards[index]!.name)).toEqual(['A #3', 'A #2', 'A #1']);
    expect(
      matchSet(
        request([board('A', 60, { copies: 2 })], {
          row: { pins: [{ piece: { designId: 'Z', copy: 1 }, place: 0 }], apart: [] },
        }),
        bedOf,
      ).problems,
    ).toEqual(['A rule speaks of Z #1, which is not in this row. Take it out.']);
  });
  test('shims are laid under the best order, and do not make another of it', () => {
    const low = board('B', 60, {
      edges: { west: { bed: [], levels: [14, 14, 14] }, east: { bed: [], levels: [14, 14, 14] } },
    });
    const [bare, shimmed] = [low, { ...low, shimsMm: [1, 1, 1, 1] as [number, number, number, number] }].map(
      (piece) => matchSet(request([board('A', 60), piece, board('C', 62)]), bedOf).row!,
    );
    expect(shimmed!.result).toEqual(bare!.result);
    expect(shimmed!.ends).toEqual(bare!.ends);
    expect(Math.max(...bare!.seams.map(({ stepMm }) => Math.abs(stepMm!)))).toBeCloseTo(1, 6);
    expect(Math.max(...shimmed!.seams.map(({ stepMm }) => Math.abs(stepMm!)))).toBeCloseTo(0, 6);
  });
  test('of a row and the same row from behind, the one with fewer boards turned', () => {
    const { row } = matchSet(request([board('A', 60), board('B', 60), board('C', 60)]), bedOf);
    expect(row!.result.places.map(({ turned }) => turned)).toEqual([false, false, false]);
  });
  test('the ends of a standing board, from the front of the table to its back', () => {
    // Water stands high at the north: at the back while the board stands as drawn, at the front when turned.
    const tilted = board('A', 60, {
      edges: { west: { bed: [], levels: [15, 15.2, 15.4] }, east: { bed: [], levels: [15, 15.2, 15.4] } },
    });
    const { row } = matchSet(
      request([tilted, board('B', 60)], {
        row: { pins: [{ piece: { designId: 'A', copy: 1 }, place: 0 }], apart: [] },
      }),
      bedOf,
    );
    const [place] = row!.result.places;
    const rising = [15, 15.2, 15.4];
    const [first] = row!.ends;
    expect(first).toEqual({
      left: place!.turned ? [...rising].reverse() : rising,
      right: place!.turned ? [...rising].reverse() : rising,
    });
  });
  test('rules that contradict each other are told, and there is no row', () => {
    const found = matchSet(
      request([board('A', 60, { copies: 3 })], {
        row: {
          pins: [
            { piece: { designId: 'A', copy: 1 }, place: 0 },
            { piece: { designId: 'A', copy: 2 }, place: 0 },
          ],
          apart: [],
        },
      }),
      bedOf,
    );
    expect(found.row).toBeNull();
    expect(found.problems[0]).toMatch(/Two boards are pinned/);
  });
  test('bases have no seams, and nothing is said of them', () => {
    const base: MatchPiece = {
      ...board('B', 60),
      design: testDesign([{ ...newFeature('basin', testDesign()) }], {
        kind: 'base',
        outline: { kind: 'oval', widthMm: 40, lengthMm: 40 },
      }),
    };
    expect(matchSet(request([base]), bedOf)).toMatchObject({
      edges: [],
      seams: [],
      row: null,
      problems: [],
      counts: { meant: 0, meantShows: 0, departs: 0 },
    });
  });
  test('an edge that departs from its standard says where', () => {
    const standard = {
      id: 's',
      name: 'Creek',
      edgeMm: 140,
      portMm: 70,
      widthMm: 40,
      depthMm: 6,
      section: 'trapezoid' as const,
      bankSlope: 0,
      levelMm: 15,
      bankMm: 18,
      toleranceMm: 0.5,
      blendMm: 12,
    };
    const design = testDesign([{ ...newFeature('channel', testDesign()), widthMm: 40, depthMm: 5, bankSlope: 0 }], {
      edgeStandards: { north: 's' },
    });
    const { edges } = matchSet(
      request([{ tag: 'T', designId: 'T', copy: null, copies: 1, design, edges: {} }], { standards: [standard] }),
      bedOf,
    );
    const north = edges.find(({ edge }) => edge === 'north')!;
    expect(north.standard).toBe('Creek');
    expect(north.departs!.offMm).toBeCloseTo(1, 1);
    expect(edges.find(({ edge }) => edge === 'south')!.departs).toBeNull();
  });
});

describe('shims', () => {
  const level = fc.integer({ min: 130, max: 170 }).map((tenths) => tenths / 10);
  const end = fc.tuple(level, level, level);
  const flat = level.map((mm) => [mm, mm, mm] as const);
  type Corners = readonly [number, number, number, number];
  const liftLeft = ({ left: [f, m, b] }: EndLevels, [fl, bl]: Corners): number[] => [f + fl, m + (fl + bl) / 2, b + bl];
  const liftRight = ({ right: [f, m, b] }: EndLevels, [, , fr, br]: Corners): number[] => [
    f + fr,
    m + (fr + br) / 2,
    b + br,
  ];
  const worstOf = (row: readonly EndLevels[], lifts: readonly Corners[]): number =>
    row
      .slice(1)
      .reduce(
        (worst, right, i) =>
          Math.max(
            worst,
            ...liftRight(row[i]!, lifts[i]!).map((mm, k) => Math.abs(mm - liftLeft(right, lifts[i + 1]!)[k]!)),
          ),
        0,
      );
  const brute = (row: readonly EndLevels[], ways: readonly Corners[], lifts: Corners[] = []): number =>
    lifts.length === row.length
      ? worstOf(row, lifts)
      : Math.min(...ways.map((way) => brute(row, ways, [...lifts, way])));
  const chosen = (plan: ReturnType<typeof shimRow>): Corners[] =>
    plan.shims.map(
      ({ frontLeft, backLeft, frontRight, backRight }) =>
        [frontLeft.raiseMm, backLeft.raiseMm, frontRight.raiseMm, backRight.raiseMm] as const,
    );
  const keeps = (row: readonly EndLevels[], plan: ReturnType<typeof shimRow>): void => {
    expect(worstOf(row, chosen(plan))).toBeCloseTo(plan.worstMm, 9);
    expect(plan.worstMm).toBeLessThanOrEqual(plan.beforeMm + 1e-9);
    for (const corners of plan.shims)
      for (const { raiseMm, strips } of Object.values(corners))
        expect(strips.reduce((a: number, b: number) => a + b, 0)).toBeCloseTo(raiseMm, 9);
  };
  test('under whole boards: the worst step is what brute force leaves', () => {
    const boards = fc.array(fc.record({ left: flat, right: flat }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(
        boards,
        fc.uniqueArray(fc.constantFrom(0.3, 0.5, 1, 1.5), { minLength: 1, maxLength: 2 }),
        (row, strips) => {
          const sums = [
            ...new Set([0, ...strips, ...strips.flatMap((a) => strips.map((b) => Math.round((a + b) * 1000) / 1000))]),
          ];
          const plan = shimRow(row, strips);
          expect(plan.worstMm).toBeCloseTo(
            brute(
              row,
              sums.map((mm) => [mm, mm, mm, mm] as const),
            ),
            9,
          );
          keeps(row, plan);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('under corners: the worst step is what brute force over all planes leaves', () => {
    const boards = fc.array(fc.record({ left: end, right: end }), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(boards, fc.constantFrom(0.5, 1), (row, strip) => {
        const sums = [0, strip];
        const planes = sums.flatMap((fl) =>
          sums.flatMap((bl) =>
            sums.flatMap((fr) =>
              sums.flatMap((br) => (Math.abs(fl + br - bl - fr) < 1e-9 ? [[fl, bl, fr, br] as const] : [])),
            ),
          ),
        );
        const plan = shimRow(row, [strip], { perCorner: true, mostStrips: 1 });
        expect(plan.worstMm).toBeCloseTo(brute(row, planes), 9);
        keeps(row, plan);
        expect(plan.worstMm).toBeLessThanOrEqual(shimRow(row, [strip], { mostStrips: 1 }).worstMm + 1e-9);
      }),
      { numRuns: 60 },
    );
  });
  test('many strips at corners: fewer are laid on one another, and it says so', () => {
    const row: EndLevels[] = [15, 14, 15.3, 14.6].map((mm) => ({ left: [mm, mm, mm], right: [mm, mm, mm] }));
    const plan = shimRow(row, [0.25, 0.4, 0.5, 0.75, 1, 1.5, 2, 3], { perCorner: true });
    expect(plan.mostStrips).toBe(1);
    keeps(row, plan);
  });
  test('no strips, nothing to do', () =>
    expect(
      shimRow(
        [
          { left: [15, 15, 15], right: [15, 15, 15] },
          { left: [14, 14, 14], right: [14, 14, 14] },
        ],
        [],
      ),
    ).toMatchObject({ worstMm: 1, beforeMm: 1 }));
});

describe('what closes a step', () => {
  const low = board('L', 60, {
    edges: { west: { bed: [], levels: [14, 14, 14] }, east: { bed: [], levels: [14.2, 14.2, 14.2] } },
  });
  const { edges } = matchSet(request([board('A', 60), low, board('C', 60)]), bedOf);
  const at = (piece: string, edge: string): number =>
    edges.findIndex((one) => one.piece === piece && one.edge === edge);
  const joints: StandingJoint[] = [
    { a: at('A', 'east'), b: at('L', 'west'), placeA: 0, placeB: 1 },
    { a: at('L', 'east'), b: at('C', 'west'), placeA: 1, placeB: 2 },
  ];
  const mends = mendSeam(edges, joints[0]!, SEAM_LIMITS, joints);
  const by = (kind: string): (typeof mends)[number] => mends.find((mend) => mend.kind === kind)!;
  test('a shim under the low piece closes the step, and moves its other seam with it', () => {
    expect(by('shim')).toMatchObject({ piece: 'L', byMm: [1, 1] });
    expect(by('shim').after.stepMm).toBeCloseTo(0, 6);
    // L's east end stood 0.8 low against C and now stands 0.2 high.
    expect(by('shim').others).toHaveLength(1);
    expect(Math.abs(by('shim').others[0]!.before.stepMm!)).toBeCloseTo(0.8, 6);
    expect(by('shim').others[0]!.after.stepMm).toBeCloseTo(0.2, 6);
  });
  test('under two corners only this edge rises', () => {
    expect(by('shim corners').after.stepMm).toBeCloseTo(0, 6);
    expect(by('shim corners').others[0]!.after.stepMm).toBeCloseTo(-0.8, 6);
  });
  test('a top-up lifts water and not the bed, and at least a film', () => {
    expect(by('top up').after.gapMm).toBeCloseTo(by('top up').others[0]!.before.gapMm, 6);
    expect(by('top up').others[0]!.after.stepMm).toBeCloseTo(0.2, 6);
    const slight = mendSeam(edges, joints[1]!, SEAM_LIMITS, null).find(({ kind }) => kind === 'top up')!;
    expect(slight.byMm[0]).toBeCloseTo(LEAST_FILM_MM, 9);
  });
  test('sanding takes the high piece down and leaves the low one', () => {
    expect(by('sand down')).toMatchObject({ piece: 'A', byMm: [1, 1], others: [] });
    expect(by('sand down').after.stepMm).toBeCloseTo(0, 6);
  });
  test('a step that differs from end to end: each corner by its own, the whole piece by the middle', () => {
    const skew = board('K', 60, { edges: { west: { bed: [], levels: [14, 14.5, 15] } } });
    const found = matchSet(request([board('A', 60), skew]), bedOf).edges;
    const [east, west] = ['A east', 'K west'].map((name) =>
      found.findIndex((one) => `${one.piece} ${one.edge}` === name),
    ) as [number, number];
    const ways = mendSeam(found, { a: east, b: west }, SEAM_LIMITS, null);
    expect(ways.find(({ kind }) => kind === 'shim')!.byMm[0]).toBeCloseTo(0.5, 6);
    // Seen from within, the left end of a west edge is its south.
    expect(ways.find(({ kind }) => kind === 'shim corners')!.byMm).toEqual([
      expect.closeTo(1, 6),
      expect.closeTo(0, 6),
    ]);
    expect(ways.find(({ kind }) => kind === 'shim corners')!.after.stepMm).toBeCloseTo(0, 6);
  });
  test('without an arrangement it counts what the other edges could meet', () => {
    const { possible } = mendSeam(edges, joints[0]!, SEAM_LIMITS, null).find(({ kind }) => kind === 'shim')!;
    expect(possible!.of).toBeGreaterThan(2);
    expect(possible!.passThen).toBeGreaterThanOrEqual(possible!.passNow);
  });
});

test('a top-up is area × rise × density, and too thin below a film', () => {
  expect(topUp(80, 1.2, 1.09, 0.015).grams).toBeCloseTo((80 * 0.12 * 1.09) / 0.985, 9);
  expect(topUp(80, LEAST_FILM_MM - 0.1, 1, 0).tooThin).toBe(true);
  expect(topUp(80, LEAST_FILM_MM, 1, 0).tooThin).toBe(false);
});

describe('tiles for a table', () => {
  const tile = (tag: string, sizeMm: number, change: Partial<PieceDesign> = {}): MatchPiece => {
    const outline = { kind: 'rectangle', widthMm: sizeMm, lengthMm: sizeMm } as const;
    const channel = {
      ...newFeature('channel', testDesign([], { outline })),
      from: { edge: 'south' as const, positionMm: sizeMm / 2 },
      to: { edge: 'north' as const, positionMm: sizeMm / 2 },
      widthMm: 40,
      depthMm: 5,
    };
    const design = testDesign([channel as PieceDesign['features'][number]], { tag, outline, ...change });
    return { tag, designId: tag, copy: null, copies: 2, design, edges: {} };
  };
  test('are those of the size that most have; the others are told what to change', () => {
    const pieces = [
      tile('A', 100),
      tile('B', 100, { flowsFrom: 'north' }),
      tile('C', 120),
      {
        ...tile('D', 100),
        design: testDesign([], { tag: 'D', outline: { kind: 'rectangle', widthMm: 100, lengthMm: 140 } }),
      },
    ];
    const stock = tableStock(pieces, matchSet(request(pieces), bedOf))!;
    expect(stock.tiles.map(({ tag, wet, from }) => [tag, wet, from])).toEqual([
      ['A', [true, false, true, false], undefined],
      ['B', [true, false, true, false], 2],
    ]);
    expect(stock.leftOut).toEqual([
      'C is 120 × 120 mm: make it 100 × 100 mm, as most tiles are, to lay it here.',
      'D is 100 × 140 mm: make it 100 × 100 mm, as most tiles are, to lay it here.',
    ]);
  });
  test('only sides whose seam passes may meet, and the joints of a layout are edges of the set', () => {
    const low = { bed: [], levels: [11, 11, 11] as [number, number, number] };
    const pieces = [tile('A', 100), { ...tile('A #2', 100), copies: 1, edges: { north: low } }];
    const match = matchSet(request(pieces), bedOf);
    const stock = tableStock(pieces, match)!;
    const meet = meetsOf(stock);
    expect([meet(0, 0, 0, 2), meet(0, 0, 1, 2), meet(0, 0, 1, 0), meet(0, 1, 0, 3)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
    const [joint] = layoutJoints(
      [
        { column: 0, row: 0, tile: 0, turns: 0 },
        { column: 0, row: 1, tile: 1, turns: 0 },
      ],
      stock,
      'square',
    );
    expect([match.edges[joint!.a], match.edges[joint!.b]].map((edge) => `${edge!.piece} ${edge!.edge}`)).toEqual([
      'A north',
      'A #2 south',
    ]);
    expect([joint!.placeA, joint!.placeB]).toEqual([0, 1]);
  });
  test('a set without square tiles has no table', () =>
    expect(tableStock([board('B', 60)], matchSet(request([board('B', 60)]), bedOf))).toBeNull());
});
