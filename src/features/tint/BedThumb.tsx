'use client';

import { useEffect, useRef } from 'react';
import { outlineSize } from '@/core/bed/outline';
import type { PieceDesign } from '@/core/bed/schema';
import type { RecipeDose } from '@/core/tint/doses';
import { waterLook } from '@/core/tint/waterLook';
import { paintBed } from '@/ui/plan/paintBed';
import { levelledPicture } from '../desk/useBed';

interface BedThumbProps {
  design: PieceDesign;
  levelMm: number;
  recipe: readonly RecipeDose[];
}

/** One piece from above in the recipe's colour: small, to be compared side by side. */
export function BedThumb({ design, levelMm, recipe }: BedThumbProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { widthMm, lengthMm } = outlineSize(design.outline);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const { grid, lowestMm } = levelledPicture(design, levelMm, true);
    element.width = grid.columns;
    element.height = grid.rows;
    const deepestMm = Math.max(0.1, levelMm - lowestMm);
    element
      .getContext('2d')
      ?.putImageData(paintBed(grid, levelMm, design.landColour, waterLook(design, recipe, deepestMm)), 0, 0);
  }, [design, levelMm, recipe]);
  const scale = Math.min(0.5, 110 / Math.max(widthMm, lengthMm));
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${design.tag} from above`}
      style={{ width: Math.max(22, widthMm * scale), height: Math.max(22, lengthMm * scale) }}
    />
  );
}
