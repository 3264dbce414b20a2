import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { bedCommand } from '../src/core/formats/bedFile';
import { seamsCommand } from '../src/core/formats/matchFile';
import { planCommand, type CommandResult } from '../src/core/formats/planFile';
import { pourCommand } from '../src/core/formats/pourFile';
import { runCommand } from '../src/core/formats/runFile';
import { scheduleCommand, scheduleIcsCommand } from '../src/core/formats/scheduleFile';
import { tintCommand } from '../src/core/formats/tintFile';
import { saveBackup } from '../src/db/backups';
import { dataFilePath, openDataFile } from '../src/db/dataFile';

const USAGE = `Aguada without its screens.

  aguada plan FILE     reads a plan request (JSON) and writes the whole plan (JSON)
  aguada bed FILE      reads one piece and a level (JSON) and writes its areas, volume curve, pools, dams and edges
  aguada seams FILE    reads pieces and their edges (JSON) and writes seams with grades, the best row, shims, a layout
  aguada tint FILE     reads colourants, a bed and a recipe (JSON) and writes colours by depth, recipes found, doses, a rescue
  aguada pour FILE     reads a batch and what stands on the shelf (JSON) and writes mixes, readings, what to buy, a quote
  aguada schedule FILE reads batches with their steps, makers, places and the room (JSON) and writes when each step is done
                       --ics writes a calendar file instead
  aguada run FILE      plays presses and readings (JSON) against a plan and writes what the bench would have said,
                       where the grams went and what the log takes
  aguada backup FILE   copies the data file (AGUADA_DATA, or data/aguada.db) to FILE, while Aguada is running or not
  FILE may be -        standard input

Errors go to standard error, one line each, naming the field; exit 2.
The files are described in docs/formats.md.
`;

const COMMANDS: Record<string, (text: string) => CommandResult> = {
  plan: planCommand,
  bed: bedCommand,
  seams: seamsCommand,
  tint: tintCommand,
  pour: pourCommand,
  schedule: scheduleCommand,
  run: runCommand,
};

/** Copies the data file by the database's own backup, and looks the copy through. */
async function backup(to: string): Promise<number> {
  const path = dataFilePath();
  if (!existsSync(path)) {
    process.stderr.write(`There is no data file at ${path}.\n`);
    return 2;
  }
  try {
    const { db, close } = openDataFile(path);
    try {
      await saveBackup(db, resolve(to));
    } finally {
      close();
    }
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    return 2;
  }
  process.stdout.write(`Copied to ${resolve(to)}, looked through and whole.\n`);
  return 0;
}

function main(args: readonly string[]): number | Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    options: { ics: { type: 'boolean', default: false }, help: { type: 'boolean', default: false } },
    allowPositionals: true,
    strict: false,
  });
  const [command, file] = positionals;
  const asIcs = values.ics === true;
  if (values.help || command === 'help') {
    process.stdout.write(USAGE);
    return 0;
  }
  if (command === 'backup' && file && file !== '-') return backup(file);
  const work = asIcs && command === 'schedule' ? scheduleIcsCommand : asIcs ? undefined : COMMANDS[command ?? ''];
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

process.exitCode = await main(process.argv.slice(2));
