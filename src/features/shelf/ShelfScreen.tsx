'use client';
import type { ShelfView } from '@/core/records/views';
export function ShelfScreen({ initial }: { initial: ShelfView }) { return <p>{initial.products.length}</p>; }
