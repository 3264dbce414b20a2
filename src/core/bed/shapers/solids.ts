import { turnedBlob } from '../blob';
import type { FeatureOf } from '../../model/designSchema';
import { bedAt, lengthOf, raise, type Shaper } from './carve';

/** Height of a rock over its foot at a distance from its axis; a dome is a spherical cap (a flattened one when wider than high). */
function rockTop(feature: FeatureOf<'rock'>): (dx: number, dy: number) => number {
  const { form, diameterMm, heightMm, seed = 1 } = feature;
  const radius = diameterMm / 2;
  const capRadius = (radius * radius + heightMm * heightMm) / (2 * heightMm);
  const outline = form === 'irregular' ? turnedBlob(feature) : null;
  const ridges = form === 'irregular' ? turnedBlob({ ...feature, seed: seed + 5000 }) : null;
  return (dx, dy) => {
    const r = lengthOf(dx, dy);
    if (outline && ridges) {
      const angle = Math.atan2(dy, dx);
      const ratio = r / (radius * outline(angle));
      return ratio > 1 ? -Infinity : heightMm * Math.sqrt(1 - ratio * ratio) * (1 - ratio * (1 - ridges(angle)));
    }
    if (r > radius) return -Infinity;
    if (form === 'block') return heightMm;
    if (form === 'cone') return heightMm * (1 - r / radius);
    return Math.sqrt(Math.max(0, capRadius * capRadius - r * r)) - (capRadius - heightMm);
  };
}

/** A solid that stands on the bed as it is at its centre. */
export const rock: Shaper<'rock'> = (grid, feature) => {
  const foot = bedAt(grid, feature.xMm, feature.yMm);
  const top = rockTop(feature);
  raise(grid, { ...feature, reachMm: feature.diameterMm / 2 }, (x, y) => foot + top(x - feature.xMm, y - feature.yMm));
};

export const post: Shaper<'post'> = (grid, feature, design) =>
  rock(grid, { ...feature, kind: 'rock', form: 'block' }, design);

/** A flat-topped stone whose top stands at a height over (or under) the water. */
export const stone: Shaper<'stone'> = (grid, { xMm, yMm, diameterMm, topMm }, { drawnLevelMm }) => {
  raise(grid, { xMm, yMm, reachMm: diameterMm / 2 }, (x, y) =>
    lengthOf(x - xMm, y - yMm) <= diameterMm / 2 ? drawnLevelMm + topMm : -Infinity,
  );
};

/** A place in the axes of something that is turned anticlockwise by some degrees. */
function turned(turnDegrees: number, xMm: number, yMm: number): (x: number, y: number) => readonly [number, number] {
  const [cos, sin] = [Math.cos((turnDegrees * Math.PI) / 180), Math.sin((turnDegrees * Math.PI) / 180)];
  return (x, y) => [(x - xMm) * cos + (y - yMm) * sin, (y - yMm) * cos - (x - xMm) * sin];
}

/** A round log lying on the bed at its middle, sunk into it by a little. What its overhang hides counts as solid. */
export const log: Shaper<'log'> = (grid, { xMm, yMm, lengthMm, diameterMm, turnDegrees, sunkMm }) => {
  const radius = diameterMm / 2;
  const axis = bedAt(grid, xMm, yMm) - sunkMm + radius;
  const place = turned(turnDegrees, xMm, yMm);
  raise(grid, { xMm, yMm, reachMm: Math.hypot(lengthMm / 2, radius) }, (x, y) => {
    const [along, across] = place(x, y);
    return Math.abs(along) <= lengthMm / 2 && Math.abs(across) <= radius
      ? axis + Math.sqrt(radius * radius - across * across)
      : -Infinity;
  });
};

/** A block, square to its own axes: a wreck, a jetty's crib, a fallen wall. */
export const wreck: Shaper<'wreck'> = (grid, { xMm, yMm, widthMm, lengthMm, heightMm, turnDegrees }) => {
  const top = bedAt(grid, xMm, yMm) + heightMm;
  const place = turned(turnDegrees, xMm, yMm);
  raise(grid, { xMm, yMm, reachMm: Math.hypot(widthMm, lengthMm) / 2 }, (x, y) => {
    const [across, along] = place(x, y);
    return Math.abs(across) <= widthMm / 2 && Math.abs(along) <= lengthMm / 2 ? top : -Infinity;
  });
};
