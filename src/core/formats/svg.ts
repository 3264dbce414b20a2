import { contours } from 'd3-contour';
import { channelCentreline, forkCentrelines } from '../bed/centreline';
import type { BedGrid } from '../bed/grid';
import { outlinePolygon, outlineSize, type PointMm } from '../bed/outline';
import { sectionProfile, type BedProfile } from '../bed/profile';
import { FEATURE_NAMES, type PieceDesign } from '../model/designSchema';
import { waterlinePoints } from '../bed/waterline';

/** Room round a drawing, and the length of the bar by which a print is checked, mm. */
const MARGIN_MM = 12;
const CHECK_BAR_MM = 50;
const LINE = 'fill="none" stroke="#111" stroke-width="0.3"';
const THIN = 'fill="none" stroke="#111" stroke-width="0.15"';

const n = (value: number): string => String(Math.round(value * 1000) / 1000);
/** Text that may stand in an SVG. */
export const escaped = (text: string): string =>
  text.replace(/[<>&"]/g, (sign) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' })[sign]!);

/** A drawing at 1:1: sizes in mm, a bar to check the print by, a title. y runs downwards in `body`. */
export function drawingSheet(widthMm: number, heightMm: number, title: string, body: string): string {
  const [w, h] = [widthMm + 2 * MARGIN_MM, heightMm + 2 * MARGIN_MM + 10];
  const bar = Math.min(CHECK_BAR_MM, widthMm);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="0 0 ${n(w)} ${n(h)}">
<title>${escaped(title)}</title>
<g transform="translate(${MARGIN_MM} ${MARGIN_MM})">
${body}
</g>
<g id="check-bar" transform="translate(${MARGIN_MM} ${n(h - 10)})"><path d="M0 0h${n(bar)}M0 -1.5v3M${n(bar)} -1.5v3" ${LINE}/><text x="0" y="6" font-size="4" font-family="sans-serif">${n(bar)} mm when printed at true size · ${escaped(title)}</text></g>
</svg>
`;
}

/** Outline and features of a design seen from above, 1:1 in mm: the outline, the waterline, contours every mm, centrelines of channels. */
export function planSvg(design: PieceDesign, grid: BedGrid, levelMm: number): string {
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const flip = (x: number, y: number): string => `${n(x)} ${n(lengthMm - y)}`;
  const path = (line: ArrayLike<number>, closed: boolean): string =>
    `M${Array.from({ length: line.length / 2 }, (_, i) => flip(line[2 * i]!, line[2 * i + 1]!)).join('L')}${closed ? 'Z' : ''}`;
  const trace = contours().size([grid.columns, grid.rows]).smooth(true);
  const heights = Array.from(grid.heightMm, (z, i) => (grid.coverage[i]! > 0 ? z : levelMm + 1000));
  const deepest = levelMm - heights.reduce((a, b) => Math.min(a, b), Infinity);
  const depths = Array.from({ length: Math.max(0, Math.ceil(deepest)) }, (_, depth) => depth);
  const lines = depths.map((depthMm) => {
    const d = trace
      .contour(heights, levelMm - depthMm)
      .coordinates.flat()
      .map((ring) => `M${ring.map(([x, y]) => flip(x! * grid.cellMm, y! * grid.cellMm)).join('L')}Z`)
      .join('');
    return `<path id="${depthMm === 0 ? 'waterline' : `depth-${depthMm}-mm`}" d="${d}" ${depthMm === 0 ? LINE : THIN}/>`;
  });
  const drawn = design.features.flatMap((feature) => {
    const ways =
      feature.kind === 'channel'
        ? [channelCentreline(design.outline, feature, 0).line]
        : feature.kind === 'fork'
          ? forkCentrelines(design.outline, feature, 0).map(({ line }) => line)
          : feature.kind === 'shore'
            ? [waterlinePoints(design.outline, feature)]
            : [];
    return ways.map(
      (line) =>
        `<path data-feature="${escaped(FEATURE_NAMES[feature.kind])}" d="${path(line, false)}" ${THIN} stroke-dasharray="2 1.5" clip-path="url(#piece)"/>`,
    );
  });
  const outline = path(outlinePolygon(design.outline), true);
  return drawingSheet(
    widthMm,
    lengthMm,
    `${design.tag} ${design.name}`,
    [
      `<clipPath id="piece"><path d="${outline}"/></clipPath>`,
      `<path id="outline" d="${outline}" ${LINE}/>`,
      `<g clip-path="url(#piece)">${lines.join('')}</g>`,
      ...drawn,
    ].join('\n'),
  );
}

/** A cut through a bed at 1:1: the bed from the underside up, and the level. */
export function sectionSvg(design: Pick<PieceDesign, 'tag' | 'name'>, profile: BedProfile, levelMm: number): string {
  const top =
    Math.max(
      levelMm,
      profile.heightMm.reduce((a, b) => Math.max(a, b), 0),
    ) + 5;
  const bed = Array.from(profile.heightMm, (z, i) => `${n(i * profile.stepMm)} ${n(top - z)}`).join('L');
  const body = `<path id="bed" d="M0 ${n(top)}L${bed}L${n(profile.lengthMm)} ${n(top)}Z" ${LINE}/>\n<path id="level" d="M0 ${n(top - levelMm)}H${n(profile.lengthMm)}" ${THIN} stroke-dasharray="3 2"/>`;
  return drawingSheet(profile.lengthMm, top, `${design.tag} ${design.name}, section`, body);
}

/** The bed under a cut between two points. */
export const cutProfile = (grid: BedGrid, from: PointMm, to: PointMm): BedProfile =>
  sectionProfile(grid, from.xMm, from.yMm, to.xMm, to.yMm);
