'use client';

import Button from '@mui/material/Button';
import { Canvas } from '@react-three/fiber';
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import { lookExtent, lookPlaces, type LookAt, type LookPlace } from '@/core/picture/lookPlaces';
import { inLight, LIGHTS, type Light } from '@/core/tint/lamp';
import { Toggles } from '@/ui/controls/Toggles';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { saveFile } from '@/ui/saveFile';
import { pictureBed } from '../../desk/pictures';
import { BedThumb } from '../../desk/BedThumb';
import { useDesk, useLiveDesk } from '../../desk/DeskContext';
import { useTint } from '../useTint';
import { LookScene } from './LookScene';
import { FIRST_SHARPNESS, NAMED_VIEWS, nearer, paced, turned, type View } from './view';
import { createViewStore, type ViewStore } from './viewStore';
import styles from './LookView.module.css';

const TABLE = '#d9d6ca';
/** Pixels a screen pixel while it is turned, and at rest. */
/** So many frames tell how quick it is. */
const PACE_FRAMES = 8;
const RESTING_DPR = 2;
const REST_MS = 180;

const canDraw = (): boolean => {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
};

/** How sharply this machine can draw while a view is turned: found out while it is. */
function useSharpness(moving: boolean): number {
  const [sharpness, setSharpness] = useState(FIRST_SHARPNESS);
  useEffect(() => {
    if (!moving) return;
    let count = 0;
    let since = performance.now();
    const tick = (now: number): void => {
      frame = requestAnimationFrame(tick);
      if (++count < PACE_FRAMES) return;
      const frameMs = (now - since) / count;
      setSharpness((current) => paced(current, frameMs));
      count = 0;
      since = now;
    };
    let frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [moving]);
  return sharpness;
}

/** The pieces as they will stand, looked through before a drop is mixed. */
export function LookView() {
  const { desk, openId } = useDesk();
  const { levelMm } = useLiveDesk();
  const { tint, recipe } = useTint();
  const [drawn] = useState(canDraw);
  const [wanted, setWanted] = useState(`piece ${openId ?? ''}`);
  const [light, setLight] = useState<Light>('daylight');
  const [pegged, setPegged] = useState(true);
  const tables = (desk.set.data.tables ?? []).filter(({ laid }) => laid && laid.length > 0);
  const at = useMemo<LookAt>(() => {
    if (wanted.startsWith('table ')) return { kind: 'table', tableId: wanted.slice(6) };
    if (wanted.startsWith('piece ')) return { kind: 'piece', designId: wanted.slice(6) };
    return { kind: 'row' };
  }, [wanted]);
  const places = useMemo(() => {
    const found = lookPlaces(desk, at);
    return found.length > 0 ? found : lookPlaces(desk, { kind: 'row' });
  }, [desk, at]);
  const extent = useMemo(() => lookExtent(places), [places]);
  const first = useMemo(() => viewOf(extent, levelMm), [extent, levelMm]);
  const views = useMemo(() => createViewStore(first), [first]);
  const [moving, setMoving] = useState(false);
  const sharpness = useSharpness(moving);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => () => clearTimeout(timer.current), []);
  const move = (next: View): void => {
    views.set(next);
    setMoving(true);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => setMoving(false), REST_MS);
  };
  const pegs = useMemo(
    () => (pegged ? pegsOf(places, desk.set.data.figureScaleMm) : []),
    [pegged, places, desk.set.data.figureScaleMm],
  );
  const table = inLight(TABLE, light);
  if (desk.designs.length === 0)
    return <p className={styles.told}>Add pieces on the Shape stage first; here they are looked through.</p>;
  if (!drawn)
    return (
      <>
        <p className={styles.told} role="status">
          This browser draws no solid pictures (WebGL 2 is missing or switched off). These plans and the strip above
          show the same colours, flat.
        </p>
        <div className={styles.flat}>
          {desk.designs.map(({ id, data }) => (
            <figure key={id}>
              <BedThumb design={data} levelMm={levelMm} tint={tint} />
              <figcaption>{data.tag}</figcaption>
            </figure>
          ))}
        </div>
      </>
    );
  const onKeyDown = (event: KeyboardEvent): void => {
    const view = views.now();
    const step = event.shiftKey ? 15 : 5;
    const turn = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    const named = NAMED_VIEWS.find(({ key }) => key === event.key);
    if (turn) move(turned(view, turn[0]!, turn[1]!));
    else if (named) move({ ...view, roundDeg: named.roundDeg, upDeg: named.upDeg });
    else if (event.key === '+' || event.key === '=') move(nearer(view, 0.85));
    else if (event.key === '-') move(nearer(view, 1 / 0.85));
    else return;
    event.preventDefault();
  };
  const onPointerMove = ({ buttons, movementX, movementY }: PointerEvent): void => {
    if (buttons === 0) return;
    move(turned(views.now(), -movementX * 0.4, movementY * 0.3));
  };
  const save = (): void => {
    canvas.current?.toBlob((blob) => blob && saveFile(`${desk.set.data.name}-looked-through.png`, blob, 'image/png'));
  };
  return (
    <div className={styles.look}>
      <div
        className={styles.frame}
        tabIndex={0}
        role="application"
        aria-label={`${recipe?.data.name ?? 'Clear'} in ${places.length} ${places.length === 1 ? 'piece' : 'pieces'}, looked through. Arrow keys turn, plus and minus come nearer and go back, Home looks straight down, End from the table’s edge.`}
        style={{ background: table }}
        onKeyDown={onKeyDown}
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={onPointerMove}
        onWheel={({ deltaY }) => move(nearer(views.now(), Math.exp(deltaY * 0.0012)))}
      >
        <Canvas
          ref={canvas}
          frameloop="demand"
          dpr={moving ? sharpness : RESTING_DPR}
          gl={{ antialias: false, preserveDrawingBuffer: true, powerPreference: 'low-power' }}
          camera={{ fov: 26, position: [0, -100, 100] }}
          flat
          linear
        >
          <LookScene
            places={places}
            tint={tint}
            light={light}
            views={views}
            moving={moving}
            table={table}
            pegs={pegs}
          />
        </Canvas>
        <Caption views={views} />
      </div>
      <div className={styles.choices}>
        <ChoiceField
          label="Look at"
          value={wanted}
          choices={[
            { value: 'row', label: 'every design' },
            ...tables.map(({ id, name }) => ({ value: `table ${id}`, label: `the table “${name}”` })),
            ...desk.designs.map(({ id, data }) => ({ value: `piece ${id}`, label: `${data.tag} ${data.name}` })),
          ]}
          onCommit={setWanted}
        />
        <Toggles
          label="Light"
          value={light}
          choices={LIGHTS.map((value) => ({ value, label: value }))}
          onChoose={setLight}
        />
        <div className={styles.named}>
          {NAMED_VIEWS.map(({ name, roundDeg, upDeg }) => (
            <Button key={name} size="small" onClick={() => move({ ...views.now(), roundDeg, upDeg })}>
              {name}
            </Button>
          ))}
          {openId && wanted !== `piece ${openId}` && (
            <Button size="small" variant="text" onClick={() => setWanted(`piece ${openId}`)}>
              The open piece alone
            </Button>
          )}
        </div>
        <Tick label={`A ${desk.set.data.figureScaleMm} mm figure for size`} checked={pegged} onChange={setPegged} />
        <Button size="small" onClick={save}>
          Save the picture
        </Button>
        <p className={styles.small}>
          Drag to turn; wheel or + and − to come nearer. Straight down it shows just what is predicted; from the side
          light crosses more water. Copies that were measured stand at their measured level. An estimate.
        </p>
      </div>
    </div>
  );
}

/** From how high it is looked at. */
function Caption({ views }: { views: ViewStore }) {
  const upDeg = useSyncExternalStore(
    views.subscribe,
    () => Math.round(views.now().upDeg),
    () => 0,
  );
  return <span className={styles.caption}>{`${upDeg}° over the table`}</span>;
}

/** Far enough to see all of it from a seat at the table. */
const viewOf = ({ xMm, yMm, radiusMm }: ReturnType<typeof lookExtent>, levelMm: number): View => ({
  roundDeg: 22,
  upDeg: 34,
  distanceMm: Math.max(90, radiusMm * 2.75),
  target: [xMm, yMm, levelMm * 0.6],
});

/** A figure on the highest ground of every third piece. */
function pegsOf(
  places: readonly LookPlace[],
  tallMm: number,
): { xMm: number; yMm: number; zMm: number; tallMm: number }[] {
  return places
    .filter((_, i) => i % 3 === 0)
    .slice(0, 6)
    .map(({ design, xMm, yMm, turnRad }) => {
      const { grid } = pictureBed(design, true);
      // Its base stands within the piece: a fifth of the way in from each side.
      let best = { z: -1, x: 0, y: 0 };
      for (let row = Math.floor(grid.rows * 0.2); row < grid.rows * 0.8; row += 3)
        for (let column = Math.floor(grid.columns * 0.2); column < grid.columns * 0.8; column += 3) {
          const z = grid.heightMm[row * grid.columns + column]!;
          if (grid.coverage[row * grid.columns + column]! > 0.5 && z > best.z + 0.01)
            best = { z, x: (column - grid.columns / 2) * grid.cellMm, y: (row - grid.rows / 2) * grid.cellMm };
        }
      const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
      return { xMm: xMm + best.x * cos - best.y * sin, yMm: yMm + best.x * sin + best.y * cos, zMm: best.z, tallMm };
    });
}
