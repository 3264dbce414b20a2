import type { Metadata } from 'next';
import { MatchStage } from '@/features/match/MatchStage';

export const metadata: Metadata = { title: 'Match' };

export default function Page() {
  return <MatchStage />;
}
