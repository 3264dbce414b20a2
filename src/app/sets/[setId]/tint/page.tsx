import type { Metadata } from 'next';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { TintStage } from '@/features/tint/TintStage';
import { forPage } from '@/server/forPage';
import type { StageProps } from '@/server/stageProps';
import { setsBeside } from '@/server/views';

export const metadata: Metadata = { title: 'Tint' };

export default async function Page({ params }: StageProps) {
  const { setId } = await params;
  const sets = await forPage(() => setsBeside(setId));
  return sets.ok ? (
    <TintStage otherSets={sets.data} />
  ) : (
    <DataFileTrouble message={sets.message} trouble={sets.trouble} />
  );
}
