import type { Path } from '@/core/records/replaceAt';
import type { PieceDesign } from '@/core/model/designSchema';

/** How the parts of the Measures column read and change a design. */
export interface DesignEditing {
  design: PieceDesign;
  errorAt: (path: Path) => string | null;
  validate: (path: Path) => (value: unknown) => string | null;
  put: (path: Path, value: unknown, label: string) => void;
  change: (make: (data: PieceDesign) => PieceDesign, label: string) => void;
}
