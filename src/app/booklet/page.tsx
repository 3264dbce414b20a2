import type { Metadata } from 'next';
import { Booklet } from '@/features/help/Booklet';

export const metadata: Metadata = { title: 'Working with Aguada' };
export const dynamic = 'force-dynamic';

export default function Page() {
  return <Booklet />;
}
