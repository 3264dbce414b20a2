import { readFileSync } from 'node:fs';
import { bedCommand } from '../src/core/formats/bedFile';
import { seamsCommand } from '../src/core/formats/matchFile';
import { planCommand, type CommandResult } from '../src/core/formats/planFile';

const USAGE = `Aguada without its screens.

  aguada plan FILE     reads a plan request (JSON) and writes the whole plan (JSON)
  aguada bed FILE      reads one piece and a level (JSON) and writes its areas, volume curve, pools, dams and edges
  aguada seams FILE    reads pieces and their edges (JSON) and writes seams with grades, the best row, shims, a layout
  FILE may be -        standard input

Errors go to standard error, one line each, naming the field; exit 2.
The files are described in docs/formats.md.
`;

const COMMANDS: Record<string, (text: string) => CommandResult> = {
  plan: planCommand,
  bed: bedCommand,
  seams: seamsCommand,
};

function main([command, file]: readonly string[]): number {
  if (command === '--help' || command === 'help') {
    process.stdout.write(USAGE);
    return 0;
  }
  const work = COMMANDS[command ?? ''];
  if (!work || !file) {
    process.stderr.write(USAGE);
    return 2;
  }
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    process.stderr.write(`(file): ${file} cannot be read: ${error instanceof Error ? error.message : String(error)}\n`);
    return 2;
  }
  const { output, errors, exitCode } = work(text);
  process.stdout.write(output);
  process.stderr.write(errors);
  return exitCode;
}

process.exitCode = main(process.argv.slice(2));
