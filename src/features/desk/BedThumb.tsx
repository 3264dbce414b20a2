'use client';

import { useEffect, useRef } from 'react';
import { outlineSize } from '@/core/bed/outline';
import type { PieceDesign } from '@/core/model/designSchema';
import type { WaterTint } from '@/core/tint/waterTint';
import { paintBed } from '@/ui/plan/paintBed';
import { pictureOf } from './pictures';
import { whenIdle } from '@/ui/whenIdle';

interface BedThumbProps {
  design: PieceDesign;
  levelMm: number;
  tint: WaterTint;
  /** Fills what it lies in, instead of being drawn to the scale of a list. */
  filling?: boolean;
}

/** One piece from above in the recipe's colour: small, to be compared side by side. */
export function BedThumb({ design, levelMm, tint, filling = false }: BedThumbProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const drawn = useRef(false);
  useEffect(() => {
    const draw = (): void => {
      const element = canvas.current;
      if (!element) return;
      const { grid, look } = pictureOf(design, levelMm, tint, true);
      element.width = grid.columns;
      element.height = grid.rows;
      element.getContext('2d')?.putImageData(paintBed(grid, levelMm, design.landColour, look), 0, 0);
      drawn.current = true;
    };
    // What is dragged is followed in the same frame; a first picture waits until the page it is on stands.
    return drawn.current ? draw() : whenIdle(draw);
  }, [design, levelMm, tint]);
  const scale = Math.min(0.5, 110 / Math.max(widthMm, lengthMm));
  const size = filling
    ? { width: '100%', height: '100%', display: 'block' }
    : { width: Math.max(22, widthMm * scale), height: Math.max(22, lengthMm * scale) };
  return <canvas ref={canvas} role="img" aria-label={`${design.tag} from above`} style={size} />;
}
