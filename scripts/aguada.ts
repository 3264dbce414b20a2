import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { bedCommand } from '../src/core/formats/bedFile';
import { diagnoseCommand } from '../src/core/formats/diagnoseFile';
import { learnCommand } from '../src/core/formats/learnFile';
import { seamsCommand } from '../src/core/formats/matchFile';
import { planCommand, type CommandResult } from '../src/core/formats/planFile';
import { pourCommand } from '../src/core/formats/pourFile';
import { runCommand } from '../src/core/formats/runFile';
import { scheduleCommand, scheduleIcsCommand } from '../src/core/formats/scheduleFile';
import { tintCommand } from '../src/core/formats/tintFile';
import { saveBackup } from '../src/db/backups';
import { logFileParts } from '../src/core/formats/logFile';
import { logAskSchema } from '../src/core/records/workshopLog';
import { dataFilePath, openDataFile, type OpenedDataFile } from '../src/db/dataFile';
import { allEntries } from '../src/db/workshopLog';

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
  aguada diagnose FILE reads a finding and what is known of the piece (JSON) and writes the causes that fit, what speaks
                       for and against each, what is not known, the mends
  aguada learn FILE    reads what is on record (JSON, as the page of what was learnt hands it out) and writes the figures
                       that come of it
  aguada log [WORDS]   writes the log of the workshop (JSON) out of the data file, all of it or what says the words
                       --csv writes a table instead
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
  diagnose: diagnoseCommand,
  learn: learnCommand,
};

/** Does something with the data file; what is wrong with it goes to standard error. */
async function withDataFile(work: (db: OpenedDataFile['db']) => void | Promise<void>): Promise<number> {
  const path = dataFilePath();
  if (!existsSync(path)) {
    process.stderr.write(`There is no data file at ${path}.\n`);
    return 2;
  }
  try {
    const { db, close } = openDataFile(path);
    try {
      await work(db);
    } finally {
      close();
    }
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    return 2;
  }
  return 0;
}

/** Copies the data file by the database's own backup, and looks the copy through. */
const backup = (to: string): Promise<number> =>
  withDataFile(async (db) => {
    await saveBackup(db, resolve(to));
    process.stdout.write(`Copied to ${resolve(to)}, looked through and whole.\n`);
  });

/** Writes the log of the workshop, or what of it says some words. */
const log = (words: string, asCsv: boolean): Promise<number> =>
  withDataFile((db) => {
    const ask = logAskSchema.parse({ words });
    for (const part of logFileParts(allEntries(db, ask), asCsv ? 'csv' : 'json')) process.stdout.write(part);
  });

function main(args: readonly string[]): number | Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    options: {
      ics: { type: 'boolean', default: false },
      csv: { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
    allowPositionals: true,
    strict: false,
  });
  const [command, file] = positionals;
  const asIcs = values.ics === true;
  if (values.help || command === 'help') {
    process.stdout.write(USAGE);
    return 0;
  }
  if (command === 'log') return log(positionals.slice(1).join(' '), values.csv === true);
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
