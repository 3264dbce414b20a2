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
  type PerspectiveCamera,
} from 'three';
import { lookMesh, type LookMesh } from '@/core/picture/lookMesh';
import type { LookPlace } from '@/core/picture/lookPlaces';
import { lightFactors, type Light } from '@/core/tint/lamp';
import { lightTable, lightTriple } from '@/core/tint/lut';
import type { WaterTint } from '@/core/tint/waterTint';
import { pictureOf } from '../../desk/pictures';
import { eyeOf, type View } from './view';
import { FACE_FRAGMENT, LAND_FRAGMENT, LAND_VERTEX, WATER_FRAGMENT, WATER_VERTEX } from './shaders';

interface LookSceneProps {
  places: readonly LookPlace[];
  tint: WaterTint;
  light: Light;
  view: View;
  table: string;
  pegs: readonly { xMm: number; yMm: number; zMm: number; tallMm: number }[];
}

const BODY = '#cfc8b8';
const PEG = '#8c8478';
const LIGHTS_COUNT = 256;
const GRAIN = 0.16;

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

function lightsTexture(table: Float32Array): DataTexture {
  const texture = new DataTexture(table, table.length / 4, 1, RGBAFormat, FloatType);
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

/** What all copies of one design at one surface share: its solid, its field, its water. */
function partsOf(place: LookPlace, tint: WaterTint, light: Light, table: string) {
  const { design, surfaceMm } = place;
  const { grid } = pictureOf(design, surfaceMm, tint, true);
  const mesh = lookMesh(grid, surfaceMm);
  const deepest = Math.max(0.1, surfaceMm - mesh.lowestMm);
  const lights = lightsTexture(lightTable(design, tint, deepest, LIGHTS_COUNT));
  const field = fieldTexture(mesh);
  const width = mesh.columns * mesh.cellMm;
  const length = mesh.rows * mesh.cellMm;
  const lightFactor = factors(light);
  const [x, y] = [width / 2, length / 2];
  const sheet = Float32Array.from([
    ...[-x, -y, surfaceMm, x, -y, surfaceMm, x, y, surfaceMm],
    ...[-x, -y, surfaceMm, x, y, surfaceMm, -x, y, surfaceMm],
  ]);
  const common = { lightFactor, lights, deepest, surface: surfaceMm };
  return {
    bed: geometryOf(mesh.positions, mesh.normals, mesh.triangles),
    sides: geometryOf(mesh.sides),
    faces: geometryOf(mesh.faces),
    sheet: geometryOf(sheet),
    land: material(LAND_FRAGMENT, { lightFactor, colour: lightTriple(design.landColour), grain: GRAIN }),
    body: material(LAND_FRAGMENT, { lightFactor, colour: lightTriple(BODY), grain: 0 }),
    face: material(FACE_FRAGMENT, common),
    water: material(
      WATER_FRAGMENT,
      {
        ...common,
        ...{ field, size: [width, length], lowest: mesh.lowestMm, cell: mesh.cellMm },
        sky: lightTriple(table).map((value) => Math.min(1, value * 1.05)),
      },
      true,
    ),
    dispose(): void {
      lights.dispose();
      field.dispose();
      for (const part of [this.bed, this.sides, this.faces, this.sheet, this.land, this.body, this.face, this.water])
        part.dispose();
    },
  };
}

/** The pieces on their table, drawn when something changes and at no other time. */
export function LookScene({ places, tint, light, view, table, pegs }: LookSceneProps) {
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
    const { position, up, target } = eyeOf(view);
    const { invalidate } = get();
    const perspective = get().camera as PerspectiveCamera;
    perspective.up.set(...up);
    perspective.position.set(...position);
    perspective.lookAt(...target);
    perspective.fov = FOV;
    perspective.near = Math.max(1, view.distanceMm * 0.05);
    perspective.far = view.distanceMm * 4 + 2000;
    perspective.aspect = size.width / size.height;
    perspective.updateProjectionMatrix();
    invalidate();
  }, [get, view, size, parts]);
  const pegLook = useMemo(
    () => material(LAND_FRAGMENT, { lightFactor: factors(light), colour: lightTriple(PEG), grain: 0 }),
    [light],
  );
  return (
    <>
      {places.map((place) => {
        const part = parts.get(partKey(place))!;
        return (
          <group key={place.key} position={[place.xMm, place.yMm, 0]} rotation={[0, 0, place.turnRad]}>
            <mesh geometry={part.bed} material={part.land} frustumCulled={false} />
            <mesh geometry={part.sides} material={part.body} frustumCulled={false} />
            <mesh geometry={part.faces} material={part.face} frustumCulled={false} />
            <mesh geometry={part.sheet} material={part.water} frustumCulled={false} />
          </group>
        );
      })}
      {pegs.map(({ xMm, yMm, zMm, tallMm }, i) => (
        <group key={i} position={[xMm, yMm, zMm]} rotation={[Math.PI / 2, 0, 0]}>
          <mesh material={pegLook} position={[0, tallMm * 0.04, 0]}>
            <cylinderGeometry args={[tallMm * 0.4, tallMm * 0.4, tallMm * 0.08, 28]} />
          </mesh>
          <mesh material={pegLook} position={[0, tallMm * 0.48, 0]}>
            <cylinderGeometry args={[tallMm * 0.13, tallMm * 0.17, tallMm * 0.8, 18]} />
          </mesh>
          <mesh material={pegLook} position={[0, tallMm * 0.98, 0]}>
            <sphereGeometry args={[tallMm * 0.11, 18, 12]} />
          </mesh>
        </group>
      ))}
    </>
  );
}

const partKey = ({ designId, surfaceMm }: LookPlace): string => `${designId} ${surfaceMm.toFixed(2)}`;

const FOV = 26;
