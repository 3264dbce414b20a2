import type { PieceDesign } from '../model/designSchema';
import type { WaterLook } from '../tint/waterLook';
import { longHeights, shortHeights } from '../bed/shortHeights';
import { STRIP_TICK_MM, type StripDam, type StripPiece } from './strip';

/** A strip on its way to the browser: what the documents do not say already, and each look of the water once. */
export interface PackedStrip {
  looks: WaterLook[];
  pieces: {
    id: string;
    place: StripPiece['place'];
    lengthMm: number;
    heights: string;
    over: string | null;
    look: number;
    rocks?: StripPiece['rocks'];
    dams: [StripDam['method'], fromMm: number, toMm: number, topMm: number, stripMm: number][];
  }[];
}

/** A strip without what its set's documents say: unpacked it is the same again. */
export function packStrip(strip: readonly StripPiece[]): PackedStrip {
  const looks = new Map<string, { look: WaterLook; place: number }>();
  const placeOf = (look: WaterLook): number => {
    const key = JSON.stringify(look);
    const known = looks.get(key) ?? { look, place: looks.size };
    looks.set(key, known);
    return known.place;
  };
  const pieces = strip.map(({ id, place, profile, overMm, look, rocks, dams }) => ({
    id,
    place,
    lengthMm: profile.lengthMm,
    heights: shortHeights(profile.heightMm, STRIP_TICK_MM),
    over: overMm && shortHeights(overMm, STRIP_TICK_MM),
    look: placeOf(look),
    ...(rocks.length > 0 && { rocks }),
    dams: dams.map(({ method, fromMm, toMm, topMm, stripMm }): PackedStrip['pieces'][number]['dams'][number] => [
      ...([method, fromMm, toMm, topMm, stripMm] as const),
    ]),
  }));
  return { looks: [...looks.values()].map(({ look }) => look), pieces };
}

/** The strip again, with the designs that it was drawn from. */
export function unpackStrip(
  { looks, pieces }: PackedStrip,
  designs: readonly { id: string; data: Pick<PieceDesign, 'tag' | 'name' | 'copies' | 'rockColour'> }[],
  levelMm: number,
): StripPiece[] {
  const byId = new Map(designs.map(({ id, data }) => [id, data]));
  return pieces.flatMap(({ id, place, lengthMm, heights, over, look, rocks = [], dams }) => {
    const data = byId.get(id);
    if (!data) return [];
    return {
      id,
      tag: data.tag,
      name: data.name,
      copies: data.copies,
      place,
      profile: { lengthMm, heightMm: longHeights(heights, STRIP_TICK_MM) },
      look: looks[look]!,
      rocks,
      rockColour: data.rockColour ?? null,
      surface: { leftMm: levelMm, rightMm: levelMm },
      overMm: over === null ? null : longHeights(over, STRIP_TICK_MM),
      dams: dams.map(([method, fromMm, toMm, topMm, stripMm]) => ({ method, fromMm, toMm, topMm, stripMm })),
      problem: null,
    };
  });
}
