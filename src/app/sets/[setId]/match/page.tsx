import type { Metadata } from 'next';
import { MatchStage } from '@/features/match/MatchStage';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stageMatch } from '@/server/deskFigures';
import { forPage } from '@/server/forPage';
import type { StageProps } from '@/server/stageProps';

export const metadata: Metadata = { title: 'Match' };

export default async function Page({ params }: StageProps) {
  const { setId } = await params;
  const served = await forPage(() => stageMatch(setId));
  return served.ok ? (
    <MatchStage served={served.data} />
  ) : (
    <DataFileTrouble message={served.message} trouble={served.trouble} />
  );
}
