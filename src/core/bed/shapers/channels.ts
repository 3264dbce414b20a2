import { alongLine, channelCentreline, forkCentrelines } from '../centreline';
import { ovalPolygon } from '../outline';
import type { PieceDesign } from '../../model/designSchema';
import { sectionReachMm, type CrossSection } from '../section';
import { carveAlong, carveChanging, type Shaper } from './carve';

const crossSection = (
  design: PieceDesign,
  feature: { widthMm: number; depthMm: number; bankSlope: number },
  section: CrossSection['section'],
): CrossSection => ({
  section,
  widthMm: feature.widthMm,
  depthMm: feature.depthMm,
  bankSlope: feature.bankSlope,
  levelMm: design.drawnLevelMm,
});

export const channel: Shaper<'channel'> = (grid, feature, design) => {
  const { via = [], endsInside = false } = feature;
  const cut = crossSection(design, feature, feature.section);
  const far = endsInside
    ? []
    : [{ widthMm: feature.toWidthMm ?? feature.widthMm, depthMm: feature.toDepthMm ?? feature.depthMm }];
  const measures = [feature, ...via, ...far];
  const most = { ...cut, widthMm: Math.max(...measures.map(({ widthMm }) => widthMm ?? 0)) };
  const centreline = channelCentreline(design.outline, feature, sectionReachMm(most, design.landMm) + 1);
  if (
    measures.every(
      ({ widthMm, depthMm }) =>
        (widthMm ?? feature.widthMm) === feature.widthMm && (depthMm ?? feature.depthMm) === feature.depthMm,
    )
  ) {
    carveAlong(grid, centreline.line, false, cut, design.landMm);
    return;
  }
  carveChanging(
    grid,
    centreline.line,
    alongLine(
      centreline,
      measures.map(({ widthMm }) => widthMm),
    ),
    alongLine(
      centreline,
      measures.map(({ depthMm }) => depthMm),
    ),
    cut,
    design.landMm,
  );
};

/** Both arms have the stem's width where they part and their own at their ports. */
export const fork: Shaper<'fork'> = (grid, feature, design) => {
  const cut = crossSection(design, feature, feature.section);
  const reach = sectionReachMm({ ...cut, widthMm: Math.max(feature.widthMm, feature.armWidthMm) }, design.landMm) + 1;
  for (const centreline of forkCentrelines(design.outline, feature, reach)) {
    const depths = new Float32Array(centreline.line.length / 2).fill(feature.depthMm);
    carveChanging(
      grid,
      centreline.line,
      alongLine(centreline, [feature.widthMm, feature.widthMm, feature.armWidthMm]),
      depths,
      cut,
      design.landMm,
    );
  }
};

export const ring: Shaper<'ring'> = (grid, feature, design) => {
  const cut = crossSection(design, { ...feature, widthMm: feature.ringMm }, 'trapezoid');
  const line = ovalPolygon(
    feature.xMm,
    feature.yMm,
    (feature.widthMm - feature.ringMm) / 2,
    (feature.lengthMm - feature.ringMm) / 2,
    128,
  );
  carveAlong(grid, line, true, cut, design.landMm);
};
