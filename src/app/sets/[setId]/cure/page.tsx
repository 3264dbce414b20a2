import type { Metadata } from 'next';
import { CureStage } from '@/features/cure/CureStage';

export const metadata: Metadata = { title: 'Cure' };

export default function Page() {
  return <CureStage />;
}
