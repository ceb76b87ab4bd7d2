/** Brings a fresh machine to where the server can start: Debian's packages, npm's, and the build. Does nothing twice. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { hold } from './lock.mjs';
import { findBinaries, Refused } from './postgres.mjs';

/** Packages and build, by one process at a time: several that install into one folder at once spoil it for each other.
 * @param halt breaks it off; the next start does it again. */
export async function prepareTree(root, halt) {
  const lock = await hold(path.join(root, 'package-lock.json'), () =>
    console.log('Another ./jigsaw prepares this folder; waiting for it…'),
  );
  try {
    halt?.throwIfAborted(); // the wait was broken off, and the lock is another's
    await preparePackages(root, halt);
    await prepareBuild(root, halt);
  } finally {
    lock?.release();
  }
}

/** Runs a program with its output shown; resolves with its exit code. */
export function run(program, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { stdio: 'inherit', ...options });
    child.once('error', () => resolve(127));
    child.once('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

export async function preparePackages(root, halt) {
  const lock = readFileSync(path.join(root, 'package-lock.json'));
  if (stampIs(root, 'packages', digest(lock)) && existsSync(path.join(root, 'node_modules'))) return;
  console.log('Installing the npm packages…');
  const npm = ['ci', '--no-audit', '--no-fund', '--loglevel=error'];
  if ((await run('npm', npm, { cwd: root, signal: halt })) !== 0) {
    halt?.throwIfAborted();
    throw new Refused(
      'The npm packages could not be installed. The lines above say why; a network to the npm registry and 1 GB of space are needed.',
    );
  }
  stamp(root, 'packages', digest(lock));
}

export async function preparePostgres() {
  if (!findBinaries()) await installDebian(['postgresql'], 'PostgreSQL');
}

export async function prepareChromium() {
  if (!existsSync('/usr/bin/chromium')) await installDebian(['chromium'], 'Chromium for the browser tests');
}

async function installDebian(packages, what) {
  const names = packages.join(' ');
  if (os.userInfo().uid !== 0 || !existsSync('/usr/bin/apt-get'))
    throw new Refused(`${what} is missing. Install it first: sudo apt-get install ${names}`);
  console.log(`Installing ${what}…`);
  const options = {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    stdio: ['ignore', 'ignore', 'inherit'],
  };
  await run('apt-get', ['update', '-qq', '-o', 'DPkg::Lock::Timeout=300'], options);
  if (
    (await run(
      'apt-get',
      ['install', '-y', '-qq', '--no-install-recommends', '-o', 'DPkg::Lock::Timeout=300', ...packages],
      options,
    )) !== 0
  ) {
    throw new Refused(`${what} could not be installed. Install it by hand: apt-get install ${names}`);
  }
}

async function prepareBuild(root, halt) {
  const now = digest(sourcesOf(root).join('\n'));
  if (stampIs(root, 'build', now) && existsSync(path.join(root, 'web/dist/index.html'))) return;
  console.log('Building…');
  const quiet = {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    signal: halt,
    // Whatever it is started from, a test too: what is built is what people get.
    env: { ...process.env, NODE_ENV: 'production' },
  };
  for (const [program, args] of [
    ['node', ['node_modules/typescript/bin/tsc', '-b']],
    ['node', ['node_modules/vite/bin/vite.js', 'build', 'web', '--logLevel', 'error']],
  ]) {
    const { code, output } = await captured(program, args, quiet);
    halt?.throwIfAborted();
    if (code !== 0) throw new Refused(`The build failed:\n${output}`);
  }
  stamp(root, 'build', now);
}

function captured(program, args, options) {
  return new Promise((resolve) => {
    const child = spawn(program, args, options);
    let output = '';
    child.stdout.on('data', (piece) => (output += piece));
    child.stderr.on('data', (piece) => (output += piece));
    child.once('error', (error) => resolve({ code: null, output: error.message }));
    child.once('exit', (code) => resolve({ code, output }));
  });
}

/** Every source file with its size and time, so that an unchanged tree is not built again. */
function sourcesOf(root) {
  const lines = [];
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const at = path.join(folder, entry.name);
      if (entry.isDirectory()) {
        if (!['node_modules', 'dist', 'dist-types'].includes(entry.name)) visit(at);
      } else if (!entry.name.endsWith('.tsbuildinfo')) {
        const { size, mtimeMs } = statSync(at);
        lines.push(`${path.relative(root, at)} ${size} ${mtimeMs}`);
      }
    }
  };
  for (const name of ['core', 'contract', 'server', 'web', 'demo']) visit(path.join(root, name));
  lines.push(digest(readFileSync(path.join(root, 'package-lock.json'))));
  return lines.sort();
}

const digest = (content) => createHash('sha256').update(content).digest('hex');
const stampFile = (root, name) => path.join(root, 'node_modules', `.jigsaw-${name}`);
const stampIs = (root, name, value) =>
  existsSync(stampFile(root, name)) && readFileSync(stampFile(root, name), 'utf8') === value;
function stamp(root, name, value) {
  mkdirSync(path.join(root, 'node_modules'), { recursive: true });
  writeFileSync(stampFile(root, name), value);
}
