import type { Metadata } from 'next';
import { TintStage } from '@/features/tint/TintStage';

export const metadata: Metadata = { title: 'Tint' };

export default function Page() {
  return <TintStage />;
}
