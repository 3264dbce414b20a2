'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useId } from 'react';
import type { CupPlan, LayerPlan } from '@/core/plan';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MenuButton } from '@/ui/controls/MenuButton';
import { useUnits } from '@/ui/measure/UnitsContext';
import styles from './ArrangeCups.module.css';

type Pour = CupPlan['pours'][number];

interface ArrangeCupsProps {
  layer: LayerPlan;
  mostGrams: number;
  /** A piece is put into another cup; one more than there are is a cup of its own. */
  onMove: (pour: Pour, cup: number) => void;
}

const nameOf = ({ tag, copy }: Pour): string => `${tag} #${copy}`;
const idOf = (cup: number, { designId, copy }: Pour): string => `${cup} ${copy} ${designId}`;

/** The cups of a layer with every piece by itself: dragged to another cup, or sent there from its menu. */
export function ArrangeCups({ layer, mostGrams, onMove }: ArrangeCupsProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor),
  );
  const pours = new Map(layer.cups.flatMap((cup) => cup.pours.map((pour) => [idOf(cup.number, pour), pour] as const)));
  // A piece larger than a cup stands in several of them: its portions stay.
  const isFixed = (pour: Pour): boolean =>
    layer.cups.filter((cup) => cup.pours.some((other) => nameOf(other) === nameOf(pour))).length > 1;
  const cupOf = (id: unknown): string =>
    id === 'new' ? 'a cup of its own' : `cup ${String(id).replace('cup ', '').split(' ')[0]}`;
  const said = (id: unknown): string => (pours.get(String(id)) ? nameOf(pours.get(String(id))!) : '');
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${said(active.id)} lifted out of ${cupOf(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${said(active.id)} over ${cupOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => `${said(active.id)} put into ${over ? cupOf(over.id) : 'the cup it came from'}.`,
    onDragCancel: ({ active }) => `${said(active.id)} stays in ${cupOf(active.id)}.`,
  };
  const drop = ({ active, over }: DragEndEvent): void => {
    const pour = pours.get(String(active.id));
    if (!pour || !over) return;
    const to = over.id === 'new' ? layer.cups.length + 1 : Number(String(over.id).replace('cup ', ''));
    if (to !== Number(String(active.id).split(' ')[0])) onMove(pour, to);
  };
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements }}
      onDragEnd={drop}
    >
      <ol className={styles.cups}>
        {layer.cups.map((cup) => (
          <CupBox
            key={cup.number}
            cup={cup}
            count={layer.cups.length}
            mostGrams={mostGrams}
            isFixed={isFixed}
            onMove={onMove}
          />
        ))}
        <OwnCup />
      </ol>
    </DndContext>
  );
}

function CupBox({
  cup,
  count,
  mostGrams,
  isFixed,
  onMove,
}: {
  cup: CupPlan;
  count: number;
  mostGrams: number;
  isFixed: (pour: Pour) => boolean;
  onMove: ArrangeCupsProps['onMove'];
}) {
  const units = useUnits();
  const { setNodeRef, isOver } = useDroppable({ id: `cup ${cup.number}` });
  const full = cup.mixGrams > mostGrams + 0.05;
  return (
    <li ref={setNodeRef} className={styles.cup} data-over={isOver || undefined} aria-label={`Cup ${cup.number}`}>
      <p>
        <b>Cup {cup.number}</b>{' '}
        <span data-full={full || undefined}>
          {formatMeasure(cup.mixGrams, 'mass', units)} of {formatMeasure(mostGrams, 'mass', units, 0)}
          {full && ', too full'}
        </span>
      </p>
      <div className={styles.chips}>
        {cup.pours.map((pour) => (
          <Chip
            key={idOf(cup.number, pour)}
            cup={cup.number}
            count={count}
            pour={pour}
            fixed={isFixed(pour)}
            onMove={onMove}
          />
        ))}
      </div>
    </li>
  );
}

function OwnCup() {
  const { setNodeRef, isOver } = useDroppable({ id: 'new' });
  return (
    <li ref={setNodeRef} className={styles.cup} data-over={isOver || undefined} data-new>
      <p>A cup of its own</p>
    </li>
  );
}

function Chip({
  cup,
  count,
  pour,
  fixed,
  onMove,
}: {
  cup: number;
  count: number;
  pour: Pour;
  fixed: boolean;
  onMove: ArrangeCupsProps['onMove'];
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: idOf(cup, pour), disabled: fixed });
  return (
    <span
      ref={setNodeRef}
      className={styles.chip}
      data-dragging={isDragging || undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      onPointerDown={listeners?.['onPointerDown'] as React.PointerEventHandler | undefined}
    >
      <MenuButton
        label={nameOf(pour)}
        name={`Move ${nameOf(pour)}`}
        variant="text"
        disabled={fixed}
        choices={[
          ...Array.from({ length: count }, (_, i) => i + 1)
            .filter((number) => number !== cup)
            .map((number) => ({ key: String(number), label: `to cup ${number}`, onPick: () => onMove(pour, number) })),
          { key: 'new', label: 'to a cup of its own', onPick: () => onMove(pour, count + 1) },
        ]}
      />
    </span>
  );
}
