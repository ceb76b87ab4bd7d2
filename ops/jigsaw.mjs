/** What ./jigsaw does. Everything that can go wrong for a person ends in one sentence and a non-zero exit. */
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Refused } from './postgres.mjs';
import { refuseWrongNode } from './node.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const usage = `Use: ./jigsaw demo    the sample course, ready to look at (--large: a course of 640, with data of its own)
     ./jigsaw start   an empty Jigsaw Room, or the one that is there
     ./jigsaw backup FILE, ./jigsaw restore FILE: everything that is kept, into one file and from it
     ./jigsaw test    everything that is tested, from nothing
     ./jigsaw mutants small sabotages of the code, and which of them no test notices (part of a path: only those)

Settings, from the environment: PORT (3000), JIGSAW_DATA (folder of the database, .data),
DATABASE_URL (a PostgreSQL of your own), PUBLIC_URL, JIGSAW_LARGEST_FILE_MB (250)`;

try {
  refuseWrongNode(process.versions.node);
  const command = process.argv[2];
  if (command === 'demo' || command === 'start') {
    const { serve } = await import('./serve.mjs');
    const isLarge = command === 'demo' && process.argv[3] === '--large';
    process.exitCode = await serve(root, command, { isLarge });
  } else if (command === 'test') {
    const { test } = await import('./test.mjs');
    process.exitCode = await test(root, process.argv.slice(3));
  } else if (command === 'backup' || command === 'restore') {
    const ways = await import('./backup.mjs');
    process.exitCode = await ways[command](root, process.argv[3]);
  } else if (command === 'mutants') {
    const { mutants } = await import('./mutants.mjs');
    process.exitCode = await mutants(root, process.argv.slice(3));
  } else {
    process.stderr.write(`${usage}\n`);
    process.exitCode = command === undefined || command === 'help' || command === '--help' ? 0 : 2;
  }
} catch (error) {
  process.stderr.write(`${error instanceof Refused ? error.message : error.stack}\n`);
  process.exitCode = 1;
}
