/** ./jigsaw mutants: sabotages the code in a copy, one place at a time, and tells which sabotages no test noticed. */
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { preparePackages, preparePostgres } from './prepare.mjs';
import { mutations } from './mutations.mjs';

/** @param wanted part of a file's path; none: all of them.
 * @returns the exit code: 1 if a sabotage survives or no longer fits the code. */
export async function mutants(root, [wanted = ''] = []) {
  await preparePackages(root);
  await preparePostgres();
  const chosen = mutations.filter((each) => each.file.includes(wanted));
  const copy = copyOf(root);
  const survivors = [];
  const misfits = [];
  try {
    for (const [at, mutation] of chosen.entries()) {
      const place = `${at + 1} of ${chosen.length}: ${mutation.file}: ${firstLine(mutation.from)}`;
      const outcome = await outcomeOf(copy, mutation);
      console.log(`${outcome}: ${place}`);
      if (outcome === 'SURVIVED') survivors.push(mutation);
      if (outcome === 'DOES NOT FIT') misfits.push(mutation);
    }
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
  for (const { file, from, to } of [...survivors, ...misfits])
    console.log(`\n${file}\n- ${from.replaceAll('\n', '\n  ')}\n+ ${to.replaceAll('\n', '\n  ')}`);
  const part = chosen.length === 0 ? 0 : Math.round((1000 * survivors.length) / chosen.length) / 10;
  console.log(`\n${survivors.length} of ${chosen.length} survived (${part} %), ${misfits.length} do not fit`);
  return survivors.length + misfits.length === 0 ? 0 : 1;
}

/** Packages are linked, not copied; what is sabotaged is not. */
function copyOf(root) {
  const copy = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-mutants-'));
  for (const part of [
    'core',
    'contract',
    'server',
    'web',
    'demo',
    'ops',
    'package.json',
    'areas.json',
    'jest.config.js',
    'tsconfig.base.json',
  ])
    cpSync(path.join(root, part), path.join(copy, part), {
      recursive: true,
      filter: (from) => !/[\\/](dist|dist-types|node_modules)$/.test(from),
    });
  cpSync(path.join(root, 'node_modules'), path.join(copy, 'node_modules'), {
    recursive: true,
    verbatimSymlinks: true,
  });
  return copy;
}

async function outcomeOf(copy, { file, from, to, project, tests }) {
  const at = path.join(copy, file);
  const whole = readFileSync(at, 'utf8');
  if (whole.split(from).length !== 2) return 'DOES NOT FIT';
  writeFileSync(
    at,
    whole.replace(from, () => to),
  );
  try {
    return (await jest(copy, project, tests)) === 0 ? 'SURVIVED' : 'noticed';
  } finally {
    writeFileSync(at, whole);
  }
}

function jest(copy, project, tests) {
  const args = [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    project,
    '--testPathPatterns',
    tests,
    '--bail',
    '--silent',
    '--maxWorkers=2',
  ];
  return new Promise((resolve) => {
    // A group of its own: a worker that a sabotage keeps running for ever outlives its parent, and is to end with it.
    const child = spawn(process.execPath, args, { cwd: copy, stdio: 'ignore', detached: true });
    const end = () => {
      try {
        process.kill(-child.pid, 'SIGKILL');
      } catch {
        // all of it has ended by itself
      }
    };
    const leave = (signal) => {
      end();
      process.kill(process.pid, signal);
    };
    process.once('SIGINT', leave).once('SIGTERM', leave);
    // A sabotage that makes it run for ever is noticed, too.
    const timer = setTimeout(end, longestMs);
    child.once('exit', (code) => {
      clearTimeout(timer);
      end();
      process.off('SIGINT', leave).off('SIGTERM', leave);
      resolve(code ?? 1);
    });
  });
}

const longestMs = 240_000;
const firstLine = (text) => text.split('\n')[0].trim().slice(0, 90);
