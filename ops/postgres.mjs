/** Starts and stops a PostgreSQL of our own: on loopback, as an unprivileged person, in one folder. */
import { execFileSync, spawn } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import { randomBytes } from 'node:crypto';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { apart } from './lock.mjs';

const leastFreeMb = 300;

/** One sentence for the person at the terminal; never a stack. */
export class Refused extends Error {}

/** Whether the account that runs the database can get into a folder: root's databases run as the user postgres. */
export function canBeEntered(folder) {
  if (os.userInfo().uid !== 0) return true;
  try {
    const asPostgres = ['-u', 'postgres', '--', 'test', '-x', folder];
    execFileSync('runuser', asPostgres, { cwd: '/', stdio: 'ignore', ...apart });
    return true;
  } catch {
    return false;
  }
}

/** @returns the folder with initdb and pg_ctl, newest version first, or null. */
export function findBinaries() {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? readdirSync(root).filter((name) => /^\d+$/.test(name)) : [];
  const found = versions
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => path.join(root, version, 'bin'));
  return found.find((folder) => existsSync(path.join(folder, 'initdb'))) ?? null;
}

export function freePort() {
  return new Promise((resolve, reject) => {
    const server = net.createServer();
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

/**
 * @param folder holds everything; made if missing.
 * @param isThrowAway for tests: no care for power cuts, hence faster.
 * @returns {Promise<{ url: string, stop: () => Promise<void> }>}
 * @throws Refused
 */
export async function startPostgres({ folder, isThrowAway = false }) {
  const bin = findBinaries();
  if (!bin) throw new Refused('PostgreSQL is not installed. Install it: apt-get install postgresql');
  const data = path.join(folder, 'postgres');
  const socket = path.join(folder, 'socket');
  const log = path.join(folder, 'postgres.log');
  const passwordFile = path.join(folder, 'password');
  mkdirSync(folder, { recursive: true });
  refuseFullDisk(folder);

  const isRoot = os.userInfo().uid === 0;
  const owner = isRoot ? postgresUser() : null;
  if (owner) {
    chownSync(folder, owner.uid, owner.gid);
    chmodSync(folder, 0o755);
  }
  mkdirSync(socket, { recursive: true, mode: 0o700 });
  if (owner) chownSync(socket, owner.uid, owner.gid);
  const as = (program, args) => {
    const command = path.join(bin, program);
    return owner
      ? runApart('runuser', ['-u', 'postgres', '--', command, ...args], { cwd: '/' })
      : runApart(command, args);
  };
  if (!canBeEntered(folder)) {
    throw new Refused(
      `The database may not run as root, and the user postgres cannot enter ${folder}. Choose another folder: JIGSAW_DATA=/var/lib/jigsaw-room ./jigsaw …`,
    );
  }

  const explain = (error) => {
    const said = `${error.stderr ?? ''}${existsSync(log) ? readFileSync(log, 'utf8').slice(-2000) : ''}`;
    if (/No space left/i.test(said))
      return new Refused(
        `The disk that holds ${folder} is full. Free some space, or choose another folder with JIGSAW_DATA.`,
      );
    return new Refused(
      `The database did not start in ${folder}. Its log is ${log}.\n${said.trim().split('\n').slice(-5).join('\n')}`,
    );
  };
  try {
    if (!existsSync(path.join(data, 'PG_VERSION'))) {
      // Other accounts of this machine reach the port too; without the password they are not let in.
      const auth = isThrowAway
        ? ['--auth=trust', '--no-sync']
        : ['--auth=scram-sha-256', `--pwfile=${newPassword(passwordFile, owner)}`];
      // Made beside its place and put there whole: one that was killed halfway would never start.
      const fresh = `${data}.new-${process.pid}`;
      for (const name of readdirSync(folder).filter((name) => name.startsWith('postgres.new-')))
        rmSync(path.join(folder, name), { recursive: true, force: true, maxRetries: 3 });
      await as('initdb', ['-D', fresh, '-U', 'jigsaw', '--encoding=UTF8', '--locale=C.UTF-8', ...auth]);
      renameSync(fresh, data);
    }
    if (existsSync(path.join(data, 'postmaster.pid')))
      await as('pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']).catch(() => undefined); // left over from a start that was killed
    const port = await freePort();
    const settings = [
      '-c listen_addresses=127.0.0.1',
      `-p ${port}`,
      `-k '${socket.replaceAll("'", `'\\''`)}'`,
      '-c max_connections=60',
    ];
    if (isThrowAway)
      settings.push(
        '-c fsync=off',
        '-c synchronous_commit=off',
        '-c full_page_writes=off',
        '-c max_connections=200',
      );
    const ended = stopWhenWeAreGone(data, port);
    await as('pg_ctl', ['-D', data, '-l', log, '-w', '-t', '60', '-o', settings.join(' '), 'start']);
    const password = isThrowAway ? '' : `:${readFileSync(passwordFile, 'utf8').trim()}`;
    return {
      url: `postgres://jigsaw${password}@127.0.0.1:${port}/postgres`,
      stop: async () => {
        await as('pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']);
        ended();
      },
    };
  } catch (error) {
    throw error instanceof Refused ? error : explain(error);
  }
}

/** In a session of its own, so that Ctrl-C in the terminal does not break it off halfway. */
function runApart(program, args, options) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { ...options, ...apart, stdio: ['ignore', 'ignore', 'pipe'] });
    let stderr = '';
    child.stderr.on('data', (piece) => (stderr += piece));
    child.once('error', reject);
    // "exit" and not "close": the database that pg_ctl leaves running keeps the pipe open.
    child.once('exit', (code) => {
      child.stderr.destroy();
      if (code === 0) resolve();
      else reject(Object.assign(new Error(`${program} ended with ${code}`), { stderr }));
    });
  });
}

/** A database outlives the process that started it. This shell waits for our end, gives the server a moment, and stops the database
 * if it is still the one of this start, told by its port: the next start may have been quicker. */
function stopWhenWeAreGone(data, port) {
  const script = `cat >/dev/null; sleep 2
    [ "$(sed -n 4p "$0" 2>/dev/null)" = "$1" ] && kill -INT "$(sed -n 1p "$0")"`;
  const shell = spawn('sh', ['-c', script, path.join(data, 'postmaster.pid'), String(port)], {
    cwd: '/',
    detached: true,
    stdio: ['pipe', 'ignore', 'ignore'],
  });
  shell.unref();
  shell.stdin.unref();
  return () => shell.kill();
}

function newPassword(file, owner) {
  writeFileSync(file, randomBytes(24).toString('base64url'), { mode: 0o600 });
  if (owner) chownSync(file, owner.uid, owner.gid);
  return file;
}

function postgresUser() {
  try {
    const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8', ...apart }));
    return { uid: id('-u'), gid: id('-g') };
  } catch {
    throw new Refused(
      'There is no user "postgres" to run the database as. Install PostgreSQL: apt-get install postgresql',
    );
  }
}

/** @param space what the file system says of itself; only tests pass another. */
export function refuseFullDisk(folder, space = statfsSync(folder)) {
  const { bavail, bsize } = space;
  const freeMb = (bavail * bsize) / 1024 / 1024;
  if (freeMb < leastFreeMb)
    throw new Refused(
      `The disk that holds ${folder} has ${Math.floor(freeMb)} MB left; ${leastFreeMb} MB are needed. Free some space, or choose another folder with JIGSAW_DATA.`,
    );
}
