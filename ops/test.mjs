/** ./jigsaw test: everything that is tested, from nothing, with one line of counts at the end. */
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { prepareChromium, preparePostgres, prepareTree } from './prepare.mjs';

/** Checks that pass or fail as a whole; each counts as one. */
const checks = [
  ['format', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
  ['lint', ['node_modules/eslint/bin/eslint.js', '--max-warnings', '0', '.']],
  [
    'layers',
    [
      'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
      '--config',
      '.dependency-cruiser.cjs',
      'core/src',
      'contract/src',
      'server/src',
      'web/src',
      'demo/src',
    ],
  ],
  ['unused code', ['node_modules/knip/bin/knip.js', '--no-progress', '--no-config-hints']],
  ['words', ['ops/words.mjs']],
  ['first page', ['ops/firstPage.mjs']],
];

/** @param only names of suites (`checks`, `jest`, `browser`); none: all of them.
 * @returns the exit code. */
export async function test(root, only = []) {
  const wanted = (suite) => only.length === 0 || only.includes(suite);
  await preparePostgres();
  if (wanted('browser')) await prepareChromium();
  await prepareTree(root); // the types of everything, tests too, are checked here

  const counts = [{ suite: 'types', passed: 1, failed: 0 }];
  if (wanted('checks')) {
    for (const [name, args] of checks) {
      const isFine = (await node(root, args)) === 0;
      console.log(`${isFine ? 'passed' : 'FAILED'}: ${name}`);
      counts.push({ suite: name, passed: isFine ? 1 : 0, failed: isFine ? 0 : 1 });
    }
  }
  const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-report-'));
  if (wanted('jest')) counts.push(await jest(root, path.join(folder, 'jest.json')));
  if (wanted('browser')) counts.push(await browser(root));
  rmSync(folder, { recursive: true, force: true });

  for (const { suite, passed, failed } of counts) console.log(`${suite}: ${passed} of ${passed + failed}`);
  const total = (key) => counts.reduce((sum, count) => sum + count[key], 0);
  console.log(`${total('passed')} passed, ${total('failed')} failed`);
  return total('failed') === 0 ? 0 : 1;
}

async function jest(root, report) {
  const code = await node(root, [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--json',
    `--outputFile=${report}`,
    '--maxWorkers=2',
  ]);
  if (!existsSync(report)) return { suite: 'jest', passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(report, 'utf8'));
  const failed = Math.max(numFailedTests, numFailedTestSuites, code === 0 ? 0 : 1);
  return { suite: 'jest', passed: numPassedTests, failed };
}

async function browser(root) {
  const report = path.join(root, 'e2e/test-results/report.json');
  rmSync(report, { force: true });
  const code = await node(path.join(root, 'e2e'), [
    path.join(root, 'node_modules/@playwright/test/cli.js'),
    'test',
  ]);
  if (!existsSync(report)) return { suite: 'browser', passed: 0, failed: 1 };
  const { stats } = JSON.parse(readFileSync(report, 'utf8'));
  const failed = Math.max(stats.unexpected + stats.skipped, code === 0 ? 0 : 1); // a test that did not run has not passed
  return { suite: 'browser', passed: stats.expected + stats.flaky, failed };
}

function node(cwd, args) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: process.env,
    });
    child.once('exit', (code) => resolve(code ?? 1));
  });
}
