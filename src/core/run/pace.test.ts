import fc from 'fast-check';
import { seeded } from '../chance/random';
import { PER_PIECE_MINUTES } from '../mixing/potLife';
import { forecast, minutesFor, paceSoFar } from './pace';
import type { RunPour } from './runSchema';

const pour = (copy: number, grams: number): RunPour => ({ designId: 't', copy, tag: 'T', grams });
const keys = (pours: readonly RunPour[]): string[] => pours.map(({ copy }) => `${copy}:t`);

/** A maker with a reach and a speed of their own, who is now and then a little quicker or slower. */
const simulatedMaker = (perPiece: number, gramsPerMinute: number, stray: number, seed: number) => {
  const roll = seeded(seed);
  return (grams: number): number => (perPiece + grams / gramsPerMinute) * (1 + (roll() * 2 - 1) * stray);
};

describe('the pace of pouring', () => {
  it('is the usual one before anything is poured, and that of the maker after a while', () => {
    expect(paceSoFar([], 60)).toEqual({ perPieceMinutes: PER_PIECE_MINUTES, gramsPerMinute: 60 });
    const exact = Array.from({ length: 200 }, (_, i) => ({
      grams: 10 + (i % 7) * 5,
      minutes: 0.9 + (10 + (i % 7) * 5) / 35,
    }));
    const pace = paceSoFar(exact, 60);
    expect(pace.perPieceMinutes).toBeCloseTo(0.9, 1);
    expect(Math.abs(pace.gramsPerMinute / 35 - 1)).toBeLessThan(0.02);
  });

  it('foretells the rest of a cup within 10 % once a third of it is poured, by a quick maker and a slow one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 1.2, noNaN: true }),
        fc.double({ min: 25, max: 120, noNaN: true }),
        fc.array(fc.double({ min: 8, max: 50, noNaN: true }), { minLength: 9, maxLength: 15 }),
        fc.nat(10_000),
        (perPiece, speed, grams, seed) => {
          const takes = simulatedMaker(perPiece, speed, 0.06, seed);
          const poured = grams
            .slice(0, Math.ceil(grams.length / 3))
            .map((one) => ({ grams: one, minutes: takes(one) }));
          const rest = grams.slice(poured.length).map((one, i) => pour(i + 1, one));
          const real = rest.reduce((sum, one) => sum + takes(one.grams), 0);
          // Pieces of one size leave reach and speed open, not what the next ones of that size take.
          fc.pre(Math.max(...poured.map((one) => one.grams)) > 0.7 * Math.max(...grams));
          fc.pre(Math.min(...poured.map((one) => one.grams)) < 1.5 * Math.min(...grams));
          const told = forecast(rest, poured, 60, 0, []).restMinutes;
          expect(Math.abs(told / real - 1)).toBeLessThan(0.1);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('what to leave for the next mix', () => {
  const rest = [pour(1, 30), pour(2, 30), pour(3, 30), pour(4, 30)];
  // A minute a piece: 30 g at 60 g/min take half a minute, reaching the rest.
  const poured = Array.from({ length: 50 }, () => ({ grams: 30, minutes: 1 }));

  it('is nothing when all are filled in time', () => {
    expect(forecast(rest, poured, 60, 5, [])).toMatchObject({ inTime: true, leave: [], parts: [] });
  });

  it('is the last of them, as few as it takes', () => {
    expect(forecast(rest, poured, 60, 2.5, []).leave).toEqual(['3:t', '4:t']);
    expect(forecast(rest, poured, 60, -1, []).leave).toEqual(keys(rest));
  });

  it('keeps two together that stand side by side', () => {
    const told = forecast(rest, poured, 60, 2.5, [['2:t', '3:t']]);
    expect(told.leave).toEqual(['2:t', '3:t', '4:t']);
    expect(told.parts).toEqual([]);
  });

  it('says whom it parts where nothing else can be', () => {
    const told = forecast(
      rest,
      poured,
      60,
      2.5,
      [
        ['9:t', '1:t'],
        ['1:t', '2:t'],
        ['2:t', '3:t'],
      ],
      new Set(['9:t']),
    );
    expect(told.leave).toEqual(['3:t', '4:t']);
    expect(told.parts).toEqual([['2:t', '3:t']]);
  });

  it('agrees with trying every cut', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 50, noNaN: true }), { minLength: 1, maxLength: 7 }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.array(fc.nat(6), { maxLength: 4 }),
        (grams, left, joined) => {
          const pours = grams.map((one, i) => pour(i + 1, one));
          const pairs = joined.flatMap((i): [string, string][] =>
            i + 1 < pours.length ? [[`${i + 1}:t`, `${i + 2}:t`]] : [],
          );
          const told = forecast(pours, poured, 60, left, pairs);
          const cuts = Array.from({ length: pours.length + 1 }, (_, cut) => cut).filter(
            (cut) => minutesFor(pours.slice(0, cut), told.pace) <= left + 1e-12,
          );
          const whole = cuts.filter((cut) =>
            pairs.every(([a, b]) => keys(pours).indexOf(a) >= cut === keys(pours).indexOf(b) >= cut),
          );
          // Leaving all of them parts nobody, so that there always is such a cut.
          const best = Math.max(...whole);
          expect(told.leave).toEqual(told.inTime ? [] : keys(pours).slice(best));
        },
      ),
    );
  });
});
