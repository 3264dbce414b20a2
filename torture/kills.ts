import { rmSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import type { Dice } from './dice';
import { kill, pause, sendEdit, serve } from './server';
import { plainSet } from './set';

/** What the kills came to. */
export interface KillFigures {
  kills: number;
  acknowledged: number;
  lost: number;
  doubled: number;
  halfWritten: number;
  damaged: number;
  /** Answers that were neither yes nor a plain no. */
  wrongAnswers: string[];
}

/**
 * Clients write without a pause while the server is killed again and again: renames (each client its own set, counting up), sets that
 * are added under a key and sent again after a lost answer, and edits of several records at once. After each kill the file itself
 * is looked at: everything that was acknowledged must be in it, nothing twice, nothing by half.
 */
export async function killLoop(data: string, kills: number, dice: Dice): Promise<KillFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const figures: KillFigures = {
    kills: 0,
    acknowledged: 0,
    lost: 0,
    doubled: 0,
    halfWritten: 0,
    damaged: 0,
    wrongAnswers: [],
  };
  /** How far each client has counted, as acknowledged; what was added, by its name; the last fill written to three copies at once. */
  const counted = new Map<string, number>();
  const added = new Set<string>();
  const unsure: { name: string; key: string }[] = [];
  let fill = 0;
  let fillAcknowledged = 0;
  let designId = '';
  const clients: string[] = [];

  let served = await serve(data);
  for (let i = 0; i < 3; i++) {
    const reply = await sendEdit(
      served.url,
      { do: 'add', kind: 'set', data: { ...plainSet, name: `count ${i} 0` } },
      { view: 'sets' },
    );
    clients.push(reply!.body.id!);
    counted.set(reply!.body.id!, 0);
  }
  const design = await sendEdit(
    served.url,
    { do: 'add', kind: 'design', setId: clients[0], data: { ...HERON_SLACK_DESIGNS[0]!, copies: 3 } },
    { view: 'desk', setId: clients[0] },
  );
  designId = design!.body.id!;

  for (let round = 0; round < kills; round++) {
    const { url } = served;
    let over = false;
    const count = async (id: string, number: number): Promise<void> => {
      let version = versionOf(data, id);
      while (!over) {
        const next = counted.get(id)! + 1;
        const reply = await sendEdit(
          url,
          { do: 'put', kind: 'set', id, version, data: { ...plainSet, name: `count ${number} ${next}` } },
          { view: 'desk', setId: id },
        );
        if (!reply) return;
        if (reply.status === 200) {
          counted.set(id, next);
          version++;
          figures.acknowledged++;
        } else if (reply.status === 409) version = versionOf(data, id);
        else figures.wrongAnswers.push(`${reply.status} ${reply.body.message ?? ''}`);
      }
    };
    const add = async (): Promise<void> => {
      while (!over) {
        const one = unsure.pop() ?? {
          name: `added ${round} ${dice.whole(1e9)}`,
          key: `key-${dice.whole(1e9)}-${dice.whole(1e9)}`,
        };
        const reply = await sendEdit(
          url,
          { do: 'add', kind: 'set', data: { ...plainSet, name: one.name } },
          { view: 'sets' },
          one.key,
        );
        if (!reply) {
          // No answer: it may have been made or not. It is sent again, as it was.
          unsure.push(one);
          return;
        }
        if (reply.status === 200) {
          added.add(one.name);
          figures.acknowledged++;
        } else figures.wrongAnswers.push(`${reply.status} ${reply.body.message ?? ''}`);
        await pause(dice.whole(8));
      }
    };
    let heard = false;
    const together = async (): Promise<void> => {
      while (!over) {
        fill++;
        const edges = { south: { bed: [], levels: [fill / 1000, 15, 15] } };
        const seen = pieceVersions(data, designId);
        const pieces = [1, 2, 3].map((copy) => ({ designId, copy, version: seen.get(copy) ?? null, edges }));
        const reply = await sendEdit(
          url,
          { do: 'measure', setId: clients[0], pieces },
          { view: 'desk', setId: clients[0] },
        );
        if (!reply) return;
        heard = true;
        if (reply.status === 200) {
          fillAcknowledged = fill;
          figures.acknowledged++;
        } else figures.wrongAnswers.push(`${reply.status} ${reply.body.message ?? ''}`);
      }
    };
    const work = [...clients.map(count), add(), together()];
    // Not before edits of each kind go through: the first of a fresh server takes a while.
    const before = figures.acknowledged;
    for (let waited = 0; (figures.acknowledged < before + 3 || !heard) && waited < 8000; waited += 20) await pause(20);
    await pause(dice.whole(260));
    await kill(served);
    over = true;
    await Promise.all(work);
    figures.kills++;
    lookAt(data, { counted, added, fill: fillAcknowledged, designId }, figures);
    // A machine is not always off for long: the next start finds the log as it was left.
    served = await serve(data);
  }
  await kill(served);
  return figures;
}

function versionOf(data: string, id: string): number {
  const file = new Sqlite(data, { readonly: true });
  try {
    return (file.prepare('select version from sets where id = ?').get(id) as { version: number }).version;
  } finally {
    file.close();
  }
}

/** Versions of the measured copies of a design, by their numbers. */
function pieceVersions(data: string, designId: string): Map<number, number> {
  const file = new Sqlite(data, { readonly: true });
  try {
    const rows = file
      .prepare(
        "select version, json_extract(data, '$.copy') as copy from pieces where json_extract(data, '$.designId') = ?",
      )
      .all(designId) as { version: number; copy: number }[];
    return new Map(rows.map(({ version, copy }) => [copy, version]));
  } finally {
    file.close();
  }
}

interface Known {
  counted: ReadonlyMap<string, number>;
  added: ReadonlySet<string>;
  fill: number;
  designId: string;
}

/** Looks at the file after a kill. */
function lookAt(data: string, { counted, added, fill, designId }: Known, figures: KillFigures): void {
  const file = new Sqlite(data);
  try {
    if (file.pragma('integrity_check', { simple: true }) !== 'ok') figures.damaged++;
    if ((file.pragma('foreign_key_check') as unknown[]).length > 0) figures.damaged++;
    const rows = file.prepare('select id, data from sets').all() as { id: string; data: string }[];
    const names = new Map<string, number>();
    for (const { id, data: text } of rows) {
      const { name } = JSON.parse(text) as { name: string };
      names.set(name, (names.get(name) ?? 0) + 1);
      const acknowledged = counted.get(id);
      // One more than acknowledged may be there: its answer was under way.
      if (acknowledged !== undefined && Number(name.split(' ')[2]) < acknowledged) figures.lost++;
    }
    for (const name of added) if (!names.has(name)) figures.lost++;
    for (const count of names.values()) if (count > 1) figures.doubled++;
    const levels = (file.prepare('select data from pieces').all() as { data: string }[])
      .map(({ data: text }) => JSON.parse(text) as { designId: string; edges?: { south?: { levels: number[] } } })
      .filter((piece) => piece.designId === designId)
      .map((piece) => Math.round((piece.edges?.south?.levels[0] ?? 0) * 1000));
    if (levels.length > 0 && (levels.length !== 3 || new Set(levels).size !== 1)) figures.halfWritten++;
    if (fill > 0 && (levels[0] ?? 0) < fill) figures.lost++;
  } finally {
    file.close();
  }
}
