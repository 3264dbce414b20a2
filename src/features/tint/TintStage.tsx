'use client';

import { useAwake } from '@/ui/useAwake';
import { lazy, Suspense } from 'react';
import { useSearchParams } from 'next/navigation';
import { TabRow } from '@/ui/controls/TabRow';
import { useDesk } from '../desk/DeskContext';
import { CupsView } from './CupsView';
import { FindView } from './FindView';
import { RecipeView } from './RecipeView';
import { useTint } from './useTint';
import styles from './TintStage.module.css';

const Look = lazy(async () => ({ default: (await import('./look/LookView')).LookView }));
const Pours = lazy(async () => ({ default: (await import('./pours/PoursView')).PoursView }));
const Swatches = lazy(async () => ({ default: (await import('./swatches/SwatchView')).SwatchView }));

/** The parts of the Tint stage. */
const VIEWS = [
  { show: 'recipe', name: 'Recipe' },
  { show: 'look', name: 'Look through it' },
  { show: 'find', name: 'Find a colour' },
  { show: 'pours', name: 'Pour by pour' },
  { show: 'cups', name: 'Cups and drops' },
  { show: 'swatches', name: 'Swatches' },
] as const;

/** Tint: the colour of the water before it is poured, in drops that can be counted again. */
export function TintStage() {
  const { desk } = useDesk();
  const { recipe } = useTint();
  const awake = useAwake();
  const asked = useSearchParams().get('show');
  const view = VIEWS.find(({ show }) => show === asked)?.show ?? 'recipe';
  if (!recipe)
    return <p className={styles.teach}>This set’s recipe is no longer on the shelf. Choose another in the set.</p>;
  return (
    <div className={styles.tint}>
      <TabRow
        label="Parts of Tint"
        value={view}
        tabs={VIEWS.map(({ show, name }) => ({
          value: show,
          href: `/sets/${desk.set.id}/tint${show === 'recipe' ? '' : `?show=${show}`}`,
          label: name,
        }))}
      />
      {view === 'recipe' && <RecipeView recipe={recipe} />}
      {view === 'find' && <FindView />}
      {view === 'cups' && <CupsView recipe={recipe} />}
      <Suspense fallback={null}>
        {/* Whether this browser draws solid pictures only itself can say. */}
        {view === 'look' && awake && <Look />}
        {view === 'pours' && <Pours recipe={recipe} />}
        {view === 'swatches' && <Swatches />}
      </Suspense>
    </div>
  );
}
