import type { PieceDesign } from '../model/designSchema';

const WORDS = { tile: ['tile', 'tiles'], board: ['board', 'boards'], base: ['base', 'bases'] } as const;

/** `10 tiles, 4 boards, 24 bases`. */
export const countPieces = (designs: readonly Pick<PieceDesign, 'kind' | 'copies'>[]): string =>
  (['tile', 'board', 'base'] as const)
    .map((kind) => ({
      kind,
      count: designs.filter((design) => design.kind === kind).reduce((sum, { copies }) => sum + copies, 0),
    }))
    .filter(({ count }) => count > 0)
    .map(({ kind, count }) => `${count} ${WORDS[kind][count === 1 ? 0 : 1]}`)
    .join(', ');
