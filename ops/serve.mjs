/** ./jigsaw demo and ./jigsaw start: the database, then the server; both end together, however they end. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { hold } from './lock.mjs';
import { canBeEntered, Refused, startPostgres } from './postgres.mjs';
import { preparePostgres, prepareTree } from './prepare.mjs';

const stopWithinMs = 10_000;
/** A server that ends by itself is started again, but not for ever. */
const mostEndings = 3;
const endingsWithinMs = 60_000;
/** So long the server of a killed command may take to let go of its port. */
const letGoWithinMs = 5_000;

/** @returns the exit code for the process. */
export async function serve(root, command, { isLarge = false } = {}) {
  const port = Number(process.env.PORT || 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Refused(`PORT is "${process.env.PORT}"; it must be a whole number from 1 to 65535.`);
  const asked = stopAsked();
  const kept = isLarge ? `${command}-large` : command;
  const folder = process.env.DATABASE_URL ? undefined : dataFolder(root, kept);
  const before = folder ? await holdFolder(folder) : null;
  await refuseTakenPort(port, before?.wasKilled ? letGoWithinMs : 0);
  let database = null;
  try {
    await prepareTree(root, asked.signal);
    if (folder) await preparePostgres();
    asked.signal.throwIfAborted();
    database = folder ? await startPostgres({ folder }) : null;
    asked.signal.throwIfAborted();
    const program = command === 'demo' ? 'demo/dist/main.js' : 'server/dist/main.js';
    return await keepServing([path.join(root, program), ...(isLarge ? ['--large'] : [])], asked, {
      cwd: root,
      env: {
        NODE_ENV: 'production',
        LOG_LEVEL: 'warn',
        ...process.env,
        PORT: String(port),
        DATABASE_URL: database?.url ?? process.env.DATABASE_URL,
        JIGSAW_WEB: path.join(root, 'web/dist'),
        ...(folder && { JIGSAW_FOLDER: folder }),
        // Also beside a database of someone's own, so that what is mailed can be read.
        MAIL_FOLDER: process.env.MAIL_FOLDER || path.join(folder ?? dataFolder(root, kept), 'mail'),
      },
    });
  } catch (error) {
    if (!asked.signal.aborted) throw error;
    return 0;
  } finally {
    await database?.stop();
    before?.letGo();
    if (asked.signal.aborted) console.log('Stopped.');
  }
}

/** The first press of Ctrl-C, or a signal, asks for an orderly end; the second does not wait for requests that go on. */
function stopAsked() {
  const first = new AbortController();
  const second = new AbortController();
  const onSignal = () => {
    if (first.signal.aborted) return second.abort();
    first.abort();
    if (process.stdout.isTTY) console.log('\nStopping. Press Ctrl-C again to stop without waiting.');
  };
  for (const name of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(name, onSignal);
  return { signal: first.signal, atOnce: second.signal };
}

/** @returns the exit code: 0 if it was asked to stop, otherwise that of a server which cannot be kept up. */
async function keepServing(program, asked, options) {
  const endedAt = [];
  for (;;) {
    const { hasServed, code, signal } = await oneServer(program, asked, options);
    if (asked.signal.aborted) return 0;
    if (!hasServed) return code || 1; // it has said why
    const now = Date.now();
    endedAt.push(now);
    const how = signal ? `by ${signal}` : `with code ${code}`;
    if (endedAt.filter((at) => at > now - endingsWithinMs).length > mostEndings) {
      console.error(
        `The server ended ${endedAt.length} times in a minute, last ${how}. What was kept is safe. Look at the lines above, then start again.`,
      );
      return 1;
    }
    console.error(`The server ended by itself (${how}). What was kept is safe; it starts again.`);
  }
}

/** Runs one server process to its end. The channel between us ends with us, and the server with the channel. */
function oneServer(program, asked, options) {
  const server = spawn(process.execPath, program, {
    ...options,
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
  });
  let hasServed = false;
  server.on('message', () => (hasServed = true));
  const stop = () => {
    server.kill('SIGTERM');
    setTimeout(() => server.kill('SIGKILL'), stopWithinMs).unref();
  };
  const kill = () => server.kill('SIGKILL');
  if (asked.signal.aborted) stop();
  asked.signal.addEventListener('abort', stop);
  asked.atOnce.addEventListener('abort', kill);
  return new Promise((resolve) => {
    server.once('exit', (code, signal) => {
      asked.signal.removeEventListener('abort', stop);
      asked.atOnce.removeEventListener('abort', kill);
      resolve({ hasServed, code, signal });
    });
  });
}

/** One running Jigsaw Room a folder.
 * @returns {Promise<{ wasKilled: boolean, letGo(): void }>} whether the last one had no time to leave. */
export async function holdFolder(folder) {
  const file = path.join(folder, 'running.pid');
  try {
    mkdirSync(folder, { recursive: true });
    if (!existsSync(file)) writeFileSync(file, '', { flag: 'a' });
    const lock = await hold(file);
    const pid = readFileSync(file, 'utf8').trim();
    if (!lock)
      throw new Refused(
        `A Jigsaw Room with the data in ${folder} is running already${pid && ` (process ${pid})`}. Stop it, or use another folder: JIGSAW_DATA=… ./jigsaw …`,
      );
    writeFileSync(file, String(process.pid));
    return {
      wasKilled: pid !== '',
      letGo: () => {
        writeFileSync(file, '');
        lock.release();
      },
    };
  } catch (error) {
    if (error.code === 'ENOSPC')
      throw new Refused(
        `The disk that holds ${folder} is full. Free some space, or choose another folder with JIGSAW_DATA.`,
      );
    if (error.code === 'EACCES' || error.code === 'EROFS')
      throw new Refused(`${folder} cannot be written to. Choose another folder with JIGSAW_DATA.`);
    throw error;
  }
}

/** Beside the program, unless the account that runs the database cannot get there (a home folder of root's, for instance). */
export function dataFolder(root, command) {
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

/** Said before anything is installed or started.
 * @param patienceMs so long a port may still be taken by a server that is just ending. */
async function refuseTakenPort(port, patienceMs) {
  for (const until = Date.now() + patienceMs; ;) {
    try {
      return await probePort(port);
    } catch (error) {
      if (Date.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
}

function probePort(port) {
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
