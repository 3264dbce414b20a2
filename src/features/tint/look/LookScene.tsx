'use client';

import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  DataUtils,
  FloatType,
  GLSL3,
  HalfFloatType,
  LinearFilter,
  NearestFilter,
  RGBAFormat,
  RGFormat,
  ShaderMaterial,
  DoubleSide,
  LatheGeometry,
  Vector2,
  type PerspectiveCamera,
} from 'three';
import { cellFor } from '@/core/bed/grid';
import { lookMesh, type LookMesh } from '@/core/picture/lookMesh';
import type { LookPlace } from '@/core/picture/lookPlaces';
import { lightFactors, type Light } from '@/core/tint/lamp';
import { lightAt, lightTable, lightTriple } from '@/core/tint/lut';
import type { WaterTint } from '@/core/tint/waterTint';
import { keptPicture, pictureBed } from '../../desk/pictures';
import { eyeOf } from './view';
import type { ViewStore } from './viewStore';
import { LAND_FRAGMENT, LAND_VERTEX, WATER_FRAGMENT, WATER_VERTEX } from './shaders';

interface LookSceneProps {
  places: readonly LookPlace[];
  tint: WaterTint;
  light: Light;
  views: ViewStore;
  /** True while it is turned. */
  moving: boolean;
  table: string;
  pegs: readonly { xMm: number; yMm: number; zMm: number; tallMm: number }[];
}

type Triple = [number, number, number];
const BODY = lightTriple('#cfc8b8');
const PEG = lightTriple('#8c8478');
const LIGHTS_COUNT = 256;
const GRAIN = 0.16;
/** While it is turned the solids are coarser, and rays take a short cut to the bed: no frame is dropped. */
const MOVING_CELLS = 450;

const attribute = (values: Float32Array): BufferAttribute => new BufferAttribute(values, 3);

function geometryOf(positions: Float32Array, normals?: Float32Array, index?: Uint32Array): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', attribute(positions));
  if (index) geometry.setIndex(new BufferAttribute(index, 1));
  if (normals) geometry.setAttribute('normal', attribute(normals));
  else geometry.computeVertexNormals();
  return geometry;
}

/** Half numbers can be smoothed by every graphics processor; full ones only by some. */
function fieldTexture({ field, columns, rows }: LookMesh): DataTexture {
  const texture = new DataTexture(
    Uint16Array.from(field, (value) => DataUtils.toHalfFloat(value)),
    columns,
    rows,
    RGFormat,
    HalfFloatType,
  );
  texture.minFilter = texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** Two rows: what is seen over the bed, and over rock. */
function lightsTexture(bed: Float32Array, rock: Float32Array): DataTexture {
  const both = new Float32Array(bed.length * 2);
  both.set(bed);
  both.set(rock, bed.length);
  const texture = new DataTexture(both, bed.length / 4, 2, RGBAFormat, FloatType);
  texture.minFilter = texture.magFilter = NearestFilter;
  texture.needsUpdate = true;
  return texture;
}

const factors = (light: Light): [number, number, number] => {
  const { red, green, blue } = lightFactors(light);
  return [red, green, blue];
};

const material = (fragmentShader: string, uniforms: Record<string, unknown>, water = false): ShaderMaterial =>
  new ShaderMaterial({
    glslVersion: GLSL3,
    vertexShader: water ? WATER_VERTEX : LAND_VERTEX,
    fragmentShader,
    side: DoubleSide,
    uniforms: Object.fromEntries(Object.entries(uniforms).map(([name, value]) => [name, { value }])),
  });

/** A solid with its paint: the bed, the cut sides and the water's open faces drawn in one go, each draw costs a frame's time. */
function solidOf(mesh: LookMesh, paint: { land: Triple; rock: Triple; face: (zMm: number) => Triple }): BufferGeometry {
  const bed = geometryOf(mesh.positions, mesh.normals, mesh.triangles).toNonIndexed();
  const walls = [mesh.sides, mesh.faces].map((positions) => geometryOf(positions));
  const all = [bed, ...walls];
  const counts = all.map((part) => part.getAttribute('position').count);
  const colours = new Float32Array(counts.reduce((sum, count) => sum + count, 0) * 4);
  let at = 0;
  all.forEach((part, i) => {
    const positions = part.getAttribute('position');
    for (let k = 0; k < positions.count; k++, at += 4) {
      const land = i === 0 && mesh.rockCorners[mesh.triangles[k]!] ? paint.rock : paint.land;
      const colour = i === 0 ? land : i === 1 ? BODY : paint.face(positions.getZ(k));
      colours.set([...colour, i === 0 ? GRAIN : 0], at);
    }
  });
  const joined = new BufferGeometry();
  for (const name of ['position', 'normal']) {
    const values = new Float32Array(colours.length * 0.75);
    let from = 0;
    for (const part of all) {
      values.set(part.getAttribute(name).array as Float32Array, from);
      from += part.getAttribute(name).array.length;
    }
    joined.setAttribute(name, attribute(values));
  }
  joined.setAttribute('paint', new BufferAttribute(colours, 4));
  for (const part of all) part.dispose();
  return joined;
}

/** The open face of water: looked into from the side there is no bed behind the surface, only more water. */
const FACE_FROM = 0.55;

/** What all copies of one design at one surface share: its solid, its field, its water. */
function partsOf(place: LookPlace, tint: WaterTint, light: Light, table: string) {
  const { design, surfaceMm } = place;
  const fine = lookMesh(pictureBed(design, true).grid, surfaceMm);
  const coarse = lookMesh(keptPicture(design, cellFor(design.outline, MOVING_CELLS)).grid, surfaceMm);
  const deepest = Math.max(0.1, surfaceMm - fine.lowestMm);
  const lightsOf = lightTable(design, tint, deepest, LIGHTS_COUNT);
  const paint = {
    land: lightTriple(design.landColour),
    rock: lightTriple(design.rockColour ?? design.landColour),
    face: (zMm: number): Triple => {
      const share = Math.min(1, Math.max(0, (surfaceMm - zMm) / deepest));
      const { red, green, blue } = lightAt(lightsOf, deepest, deepest * (FACE_FROM + (1 - FACE_FROM) * share));
      return [red, green, blue];
    },
  };
  const rockLights = design.rockColour
    ? lightTable({ bedColour: design.rockColour }, tint, deepest, LIGHTS_COUNT)
    : lightsOf;
  const lights = lightsTexture(lightsOf, rockLights);
  const field = fieldTexture(fine);
  const [width, length] = [fine.columns * fine.cellMm, fine.rows * fine.cellMm];
  const lightFactor = factors(light);
  const [x, y] = [width / 2, length / 2];
  const sheet = Float32Array.from([
    -x,
    -y,
    surfaceMm,
    x,
    -y,
    surfaceMm,
    x,
    y,
    surfaceMm,
    -x,
    -y,
    surfaceMm,
    x,
    y,
    surfaceMm,
    -x,
    y,
    surfaceMm,
  ]);
  return {
    resting: solidOf(fine, paint),
    moving: solidOf(coarse, paint),
    sheet: geometryOf(sheet),
    solid: material(LAND_FRAGMENT, { lightFactor }),
    water: material(
      WATER_FRAGMENT,
      {
        lightFactor,
        lights,
        deepest,
        surface: surfaceMm,
        field,
        size: [width, length],
        fine: true,
        lowest: fine.lowestMm,
        cell: fine.cellMm,
        sky: lightTriple(table).map((value) => Math.min(1, value * 1.05)),
      },
      true,
    ),
    dispose(): void {
      lights.dispose();
      field.dispose();
      for (const part of [this.resting, this.moving, this.sheet, this.solid, this.water]) part.dispose();
    },
  };
}

/** The pieces on their table, drawn when something changes and at no other time. */
export function LookScene({ places, tint, light, views, moving, table, pegs }: LookSceneProps) {
  const get = useThree((state) => state.get);
  const size = useThree((state) => state.size);
  const parts = useMemo(() => {
    const made = new Map<string, ReturnType<typeof partsOf>>();
    for (const place of places) {
      const key = partKey(place);
      if (!made.has(key)) made.set(key, partsOf(place, tint, light, table));
    }
    return made;
  }, [places, tint, light, table]);
  useEffect(() => () => parts.forEach((part) => part.dispose()), [parts]);
  useEffect(() => {
    const look = (): void => {
      const { camera, invalidate } = get();
      const view = views.now();
      const { position, up, target } = eyeOf(view);
      const perspective = camera as PerspectiveCamera;
      perspective.up.set(...up);
      perspective.position.set(...position);
      perspective.lookAt(...target);
      perspective.fov = FOV;
      perspective.near = Math.max(1, view.distanceMm * 0.05);
      perspective.far = view.distanceMm * 4 + 2000;
      perspective.aspect = size.width / size.height;
      perspective.updateProjectionMatrix();
      invalidate();
    };
    look();
    return views.subscribe(look);
  }, [get, views, size, parts]);
  useEffect(() => {
    for (const { water } of parts.values()) water.uniforms['fine']!.value = !moving;
    get().invalidate();
  }, [get, parts, moving]);
  const pegLook = useMemo(() => material(LAND_FRAGMENT, { lightFactor: factors(light) }), [light]);
  const peg = useMemo(() => pegGeometry(), []);
  return (
    <>
      {places.map((place) => {
        const part = parts.get(partKey(place))!;
        return (
          <group key={place.key} position={[place.xMm, place.yMm, 0]} rotation={[0, 0, place.turnRad]}>
            <mesh geometry={moving ? part.moving : part.resting} material={part.solid} frustumCulled={false} />
            <mesh geometry={part.sheet} material={part.water} frustumCulled={false} />
          </group>
        );
      })}
      {pegs.map(({ xMm, yMm, zMm, tallMm }, i) => (
        <mesh
          key={i}
          geometry={peg}
          material={pegLook}
          position={[xMm, yMm, zMm]}
          rotation={[Math.PI / 2, 0, 0]}
          scale={tallMm}
        />
      ))}
    </>
  );
}

const partKey = ({ designId, surfaceMm }: LookPlace): string => `${designId} ${surfaceMm.toFixed(2)}`;

const FOV = 26;

/** A figure one high: a base, a body, a head. */
function pegGeometry(): BufferGeometry {
  const line = [
    [0, 0],
    [0.4, 0],
    [0.4, 0.08],
    [0.16, 0.08],
    [0.12, 0.8],
    [0.06, 0.86],
    [0.11, 0.93],
    [0.09, 1.02],
    [0, 1.07],
  ].map(([x, y]) => new Vector2(x, y));
  const geometry = new LatheGeometry(line, 20);
  const paint = new Float32Array(geometry.getAttribute('position').count * 4);
  for (let i = 0; i < paint.length; i += 4) paint.set([...PEG, 0], i);
  geometry.setAttribute('paint', new BufferAttribute(paint, 4));
  return geometry;
}
