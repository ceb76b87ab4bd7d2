/** ./jigsaw demo and ./jigsaw start: the database, then the server; both end together. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { canBeEntered, Refused, startPostgres } from './postgres.mjs';
import { prepareBuild, preparePackages, preparePostgres } from './prepare.mjs';

const stopWithinMs = 10_000;

/** @returns the exit code for the process. */
export async function serve(root, command) {
  const port = Number(process.env.PORT || 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Refused(`PORT is "${process.env.PORT}"; it must be a whole number from 1 to 65535.`);
  await refuseTakenPort(port);
  await preparePackages(root);
  await prepareBuild(root);

  const database = process.env.DATABASE_URL
    ? { url: process.env.DATABASE_URL, folder: undefined, stop: async () => undefined }
    : await localDatabase(root, command);
  const program = command === 'demo' ? 'demo/dist/main.js' : 'server/dist/main.js';
  const server = spawn(process.execPath, [path.join(root, program)], {
    stdio: 'inherit',
    cwd: root,
    env: {
      NODE_ENV: 'production',
      LOG_LEVEL: 'warn',
      ...process.env,
      PORT: String(port),
      DATABASE_URL: database.url,
      JIGSAW_WEB: path.join(root, 'web/dist'),
      ...(database.folder && { JIGSAW_FOLDER: database.folder }),
      // Also beside a database of somebody's own, so that what is mailed can be read.
      MAIL_FOLDER: process.env.MAIL_FOLDER || path.join(database.folder ?? dataFolder(root, command), 'mail'),
    },
  });

  let isStopping = false;
  const stop = () => {
    if (isStopping) return;
    isStopping = true;
    server.kill('SIGTERM');
    setTimeout(() => server.kill('SIGKILL'), stopWithinMs).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('SIGHUP', stop);
  const code = await new Promise((resolve) => server.once('exit', (exitCode) => resolve(exitCode)));
  await database.stop();
  if (isStopping) console.log('Stopped.');
  return isStopping ? 0 : (code ?? 1);
}

/** One running Jigsaw Room a folder; what a killed one left behind is cleared away. */
async function localDatabase(root, command) {
  await preparePostgres();
  const folder = dataFolder(root, command);
  mkdirSync(folder, { recursive: true });
  const lock = path.join(folder, 'running.pid');
  if (existsSync(lock)) {
    const pid = Number(readFileSync(lock, 'utf8'));
    if (isAlive(pid))
      throw new Refused(
        `A Jigsaw Room with the data in ${folder} is running already (process ${pid}). Stop it, or use another folder: JIGSAW_DATA=… ./jigsaw …`,
      );
  }
  try {
    writeFileSync(lock, String(process.pid));
  } catch (error) {
    if (error.code === 'ENOSPC')
      throw new Refused(
        `The disk that holds ${folder} is full. Free some space, or choose another folder with JIGSAW_DATA.`,
      );
    throw error;
  }
  const postgres = await startPostgres({ folder });
  return {
    url: postgres.url,
    folder,
    stop: async () => {
      await postgres.stop();
      rmSync(lock, { force: true });
    },
  };
}

/** Beside the program, unless the account that runs the database cannot get there (a home folder of root's, for instance). */
function dataFolder(root, command) {
  if (process.env.JIGSAW_DATA) return path.resolve(process.env.JIGSAW_DATA, command);
  if (canBeEntered(root)) return path.join(root, '.data', command);
  const elsewhere = path.join(
    '/var/lib/jigsaw-room',
    createHash('sha256').update(root).digest('hex').slice(0, 8),
    command,
  );
  console.log(`The database cannot run below ${root}; its data is kept in ${elsewhere}.`);
  return elsewhere;
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return pid !== process.pid;
  } catch {
    return false;
  }
}

/** Said before anything is installed or started. */
function refuseTakenPort(port) {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', (error) => {
      if (error.code === 'EADDRINUSE')
        reject(
          new Refused(
            `Port ${port} is taken by another program. Choose another one: PORT=${port + 1} ./jigsaw …`,
          ),
        );
      else if (error.code === 'EACCES')
        reject(new Refused(`Port ${port} may not be opened by this account. Choose one above 1023.`));
      else reject(error);
    });
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()));
  });
}
