'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { PieceDesign } from '@/core/model/designSchema';
import { nextTag } from '@/core/bed/starters';
import type { ScanSummary } from '@/core/formats/scanFile';
import type { Stored } from '@/core/model/stored';
import { FileButton } from '@/ui/controls/FileButton';
import { openScanJob, type ScanJob } from '@/workers/scanner';
import { useDesk } from '../../desk/DeskContext';
import { DrawingChoice } from './DrawingChoice';
import { HeightsChoice } from './HeightsChoice';
import styles from './ScanDialog.module.css';
import type { ScanResult } from './scanResult';

type Stage =
  | { at: 'choose'; complaint: string | null }
  | { at: 'reading'; name: string; share: number }
  | { at: 'open'; name: string; summary: ScanSummary; job: ScanJob };

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** What a piece made of a file is called: the file's name without its ending. */
const nameFromFile = (file: string): string =>
  file
    .replace(/\.[^.]*$/, '')
    .replace(/[_-]+/g, ' ')
    .trim()
    .slice(0, 60) || 'Piece from a file';

/** A bed from a scan or a height map, or an outline from a drawing: choose the file, say how to take it, see it, use it. */
export function ScanDialog({ design, onClose }: { design: Stored<PieceDesign> | undefined; onClose: () => void }) {
  const { desk, edits, select, shapeDesign } = useDesk();
  const [stage, setStage] = useState<Stage>({ at: 'choose', complaint: null });
  const [result, setResult] = useState<ScanResult>({ change: null, what: '' });
  const job = useRef<ScanJob | null>(null);
  useEffect(() => () => job.current?.end(), []);

  const read = (file: File): void => {
    job.current?.end();
    setResult({ change: null, what: '' });
    setStage({ at: 'reading', name: file.name, share: 0 });
    const started = openScanJob(file, (share) => setStage((now) => (now.at === 'reading' ? { ...now, share } : now)));
    job.current = started;
    started.summary.then(
      (summary) => job.current === started && setStage({ at: 'open', name: file.name, summary, job: started }),
      (error: unknown) =>
        job.current === started && setStage({ at: 'choose', complaint: `${file.name}: ${messageOf(error)}` }),
    );
  };
  const cancel = (): void => {
    job.current?.end();
    job.current = null;
    setStage({ at: 'choose', complaint: null });
  };
  const use = async (fresh: boolean): Promise<void> => {
    const { change, what } = result;
    if (!change) return;
    if (!fresh && design) {
      shapeDesign(design.id, change, `${what} of ${design.data.tag}`);
      onClose();
      return;
    }
    const levelMm = desk.set.data.levelMm;
    const tag = nextTag(
      'T',
      desk.designs.map(({ data }) => data.tag),
    );
    const blank: PieceDesign = {
      tag,
      name: nameFromFile(stage.at === 'open' ? stage.name : ''),
      kind: 'tile',
      copies: 1,
      outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 },
      landMm: levelMm + 3,
      drawnLevelMm: levelMm,
      features: [],
      bedColour: '#b9a883',
      landColour: '#8d9068',
      dams: {},
      measured: null,
      copyNumbers: null,
    };
    const outcome = await edits.run(
      () => ({ do: 'add', kind: 'design', setId: desk.set.id, data: change(blank), label: `Add ${tag} from a file` }),
      `Added ${tag}`,
    );
    if (outcome.ok && outcome.id) select(outcome.id);
    if (outcome.ok) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="scan-title">
      <DialogTitle id="scan-title">A bed or outline from a file</DialogTitle>
      <DialogContent className={styles.content}>
        <FileButton
          label="Choose a file"
          name="STL scan, grey PNG height map, or SVG drawing of the outline"
          accept=".stl,.png,.svg,model/stl,image/png,image/svg+xml"
          disabled={stage.at === 'reading'}
          onFile={read}
        />
        <p className={styles.kinds}>An STL scan, a grey PNG height map, or an SVG drawing of the outline.</p>
        {stage.at === 'choose' && stage.complaint && (
          <p role="alert" className={styles.complaint}>
            {stage.complaint}
          </p>
        )}
        {stage.at === 'choose' && !stage.complaint && (
          <p className={styles.teach}>
            A scan need not be closed: the bed is what can be seen of it from above. Nothing leaves this computer.
          </p>
        )}
        {stage.at === 'reading' && (
          <div className={styles.reading}>
            <p aria-live="polite">{`Reading ${stage.name}, ${Math.round(stage.share * 100)} %`}</p>
            <LinearProgress variant="determinate" value={stage.share * 100} aria-label={`Reading ${stage.name}`} />
            <Button size="small" onClick={cancel}>
              Stop
            </Button>
          </div>
        )}
        {stage.at === 'open' && stage.summary.kind === 'svg' && (
          <DrawingChoice key={stage.name} summary={stage.summary} job={stage.job} onResult={setResult} />
        )}
        {stage.at === 'open' && stage.summary.kind !== 'svg' && (
          <HeightsChoice key={stage.name} summary={stage.summary} job={stage.job} onResult={setResult} />
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Cancel</Button>
        <Button disabled={!result.change} onClick={() => void use(true)} variant={design ? 'outlined' : 'contained'}>
          Make a new piece of it
        </Button>
        {design && (
          <Button variant="contained" disabled={!result.change} onClick={() => void use(false)}>
            {`Use it for ${design.data.tag}`}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
