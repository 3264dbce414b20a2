'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import type { PieceDesign } from '@/core/model/designSchema';
import { planSvg } from '@/core/formats/svg';
import { saveFile } from '@/ui/saveFile';
import { exportBed } from '@/workers/scanner';
import { pictureBed } from '../desk/pictures';
import styles from './ShapeStage.module.css';

/** The bed on screen as files for other tools: a solid, a height map, a drawing at 1:1. */
export function BedFiles({ design, levelMm }: { design: PieceDesign; levelMm: number }) {
  const [busy, setBusy] = useState<string | null>(null);
  const save = async (as: 'stl' | 'png'): Promise<void> => {
    setBusy(`Working out the ${as.toUpperCase()}…`);
    try {
      saveFile(`${design.tag}.${as}`, await exportBed(design, as), as === 'stl' ? 'model/stl' : 'image/png');
      setBusy(null);
    } catch (error) {
      setBusy(`The ${as.toUpperCase()} could not be made: ${error instanceof Error ? error.message : String(error)}`);
    }
  };
  return (
    <p className={styles.files}>
      <span>Save the bed:</span>
      <Button size="small" variant="text" onClick={() => void save('stl')}>
        solid, STL
      </Button>
      <Button size="small" variant="text" onClick={() => void save('png')}>
        heights, PNG
      </Button>
      <Button
        size="small"
        variant="text"
        onClick={() =>
          saveFile(`${design.tag}.svg`, planSvg(design, pictureBed(design, false).grid, levelMm), 'image/svg+xml')
        }
      >
        drawing at 1:1, SVG
      </Button>
      <span role="status">{busy}</span>
    </p>
  );
}
