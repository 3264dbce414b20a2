'use client';

import { SOLID_KINDS, type PieceDesign } from '@/core/model/designSchema';
import type { Stored } from '@/core/model/stored';
import { hexFromLinear, linearFromHex } from '@/core/tint/colour';
import { ColourField } from '@/ui/controls/ColourField';
import { Tick } from '@/ui/controls/Tick';
import { useAwake } from '@/ui/useAwake';
import { useDesk } from '../desk/DeskContext';
import styles from './Measures.module.css';

type PaintKey = 'bedColour' | 'landColour' | 'shoreColour' | 'deepColour' | 'rockColour';

/** A bed painted with depth begins with this share of its light at the deepest. */
const DEEP_SHARE = 0.35;
const darker = (hex: string): string => {
  const { red, green, blue } = linearFromHex(hex);
  return hexFromLinear({ red: red * DEEP_SHARE, green: green * DEEP_SHARE, blue: blue * DEEP_SHARE });
};

/** The paint of a bed and its land; from the shore to the deep where the maker paints it so. */
export function Paint({ design: { id, data } }: { design: Stored<PieceDesign> }) {
  const { shapeDesign } = useDesk();
  const colour = (label: string, key: PaintKey): React.ReactNode => (
    <ColourField
      label={label}
      value={data[key] ?? data.bedColour}
      onCommit={(hex) =>
        shapeDesign(id, (newest) => ({ ...newest, [key]: hex }), `Change the ${label.toLowerCase()} of ${data.tag}`)
      }
    />
  );
  const graded = data.shoreColour !== undefined || data.deepColour !== undefined;
  const awake = useAwake();
  const solid = data.features.some(({ kind }) => SOLID_KINDS.has(kind) && kind !== 'debris');
  const rocksApart = data.rockColour !== undefined;
  return (
    <div className={`${styles.grid} ${styles.wide}`}>
      {colour(graded ? 'Bed on the slope' : 'Bed', 'bedColour')}
      {colour('Land', 'landColour')}
      {graded && colour('Bed at the shore', 'shoreColour')}
      {graded && colour('Bed at the deepest', 'deepColour')}
      {rocksApart && colour('Rocks', 'rockColour')}
      <div className={styles.paint}>
        <Tick
          label="Bed painted darker with depth"
          checked={graded}
          onChange={(wanted) =>
            shapeDesign(
              id,
              ({ shoreColour: _, deepColour: __, ...newest }) =>
                wanted ? { ...newest, deepColour: darker(newest.bedColour) } : newest,
              wanted ? `Paint ${data.tag} darker with depth` : `Paint ${data.tag} in one colour`,
            )
          }
        />
        {awake && (solid || rocksApart) && (
          <Tick
            label="Rocks in a colour of their own"
            checked={rocksApart}
            onChange={(wanted) =>
              shapeDesign(
                id,
                ({ rockColour: _, ...newest }) => (wanted ? { ...newest, rockColour: newest.landColour } : newest),
                wanted ? `Paint the rocks of ${data.tag}` : `Paint the rocks of ${data.tag} as its bed`,
              )
            }
          />
        )}
      </div>
    </div>
  );
}
