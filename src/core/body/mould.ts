import { BODY_MATERIALS } from '../model/bodyMaterials';
import type { Mould } from '../model/bodySchema';

/** The thing that is cast: its foot, its height, what it takes up. */
export interface Master {
  widthMm: number;
  lengthMm: number;
  heightMm: number;
  areaMm2: number;
  perimeterMm: number;
  ml: number;
}

/** A mould as it is made: the box inside, the rubber, the sheets, and what happens to the masters in it. */
export interface MouldPlan {
  columns: number;
  rows: number;
  boxWidthMm: number;
  boxLengthMm: number;
  boxHeightMm: number;
  rubberMl: number;
  rubberGrams: number;
  /** What one cavity takes. */
  castMl: number;
  /** Added by the draft. */
  draftMl: number;
  /** By how much each master would float up in the liquid rubber, g; 0 when it stays down. */
  liftGrams: number;
  sheets: { count: number; lengthMm: number; heightMm: number }[];
}

/** How far the box stands over the rubber. */
const FREEBOARD_MM = 10;

/** What leaning sides add to a solid with upright ones, ml: perimeter·t·h²/2 + π·t²·h³/3, t the draft's tangent; exact for convex feet. */
export function draftMl(
  { perimeterMm, heightMm }: Pick<Master, 'perimeterMm' | 'heightMm'>,
  draftDegrees: number,
): number {
  const t = Math.tan((draftDegrees * Math.PI) / 180);
  return ((perimeterMm * t * heightMm ** 2) / 2 + (Math.PI * t * t * heightMm ** 3) / 3) / 1000;
}

/** The mould for so many of one master, cavities in the rows that need least rubber. */
export function planMould(master: Master, mould: Mould): MouldPlan {
  const lean = 2 * master.heightMm * Math.tan((mould.draftDegrees * Math.PI) / 180);
  const [w, l] = [master.widthMm + lean, master.lengthMm + lean];
  const sideOf = (count: number, size: number): number => count * size + (count - 1) * mould.gapMm + 2 * mould.wallMm;
  const arrangements = Array.from({ length: mould.cavities }, (_, i) => ({
    columns: i + 1,
    rows: Math.ceil(mould.cavities / (i + 1)),
  }));
  const { columns, rows } = arrangements.reduce((a, b) =>
    sideOf(b.columns, w) * sideOf(b.rows, l) < sideOf(a.columns, w) * sideOf(a.rows, l) - 1e-9 ? b : a,
  );
  const [boxWidthMm, boxLengthMm, boxHeightMm] = [sideOf(columns, w), sideOf(rows, l), master.heightMm + mould.floorMm];
  const added = draftMl(master, mould.draftDegrees);
  const castMl = master.ml + added;
  const rubberMl = (boxWidthMm * boxLengthMm * boxHeightMm) / 1000 - mould.cavities * castMl;
  const density = BODY_MATERIALS[mould.masterMaterial].densityGPerMl;
  const sheetHeight = boxHeightMm + FREEBOARD_MM;
  return {
    columns,
    rows,
    boxWidthMm,
    boxLengthMm,
    boxHeightMm,
    rubberMl,
    castMl,
    draftMl: added,
    rubberGrams: rubberMl * mould.rubberDensity,
    liftGrams: Math.max(0, (mould.rubberDensity - density) * castMl),
    sheets: [
      { count: 2, lengthMm: boxWidthMm + 2 * mould.sheetMm, heightMm: sheetHeight },
      { count: 2, lengthMm: boxLengthMm, heightMm: sheetHeight },
      { count: 1, lengthMm: boxWidthMm + 2 * mould.sheetMm, heightMm: boxLengthMm + 2 * mould.sheetMm },
    ],
  };
}
