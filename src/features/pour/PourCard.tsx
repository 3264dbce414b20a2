import type { BatchPlanView } from '@/core/records/views';
export function PourCard({ batch }: BatchPlanView) { return <p>{batch.data.name}</p>; }
