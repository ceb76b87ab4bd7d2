import { createApp } from './app/createApp.js';
import { DatabaseRefused, migrate } from './app/database.js';
import { firstInstructor, InstructorRefused } from './app/firstInstructor.js';
import { configFrom, metricsPortFrom, processesFrom, SettingRefused } from './platform/config.js';
import { listen, ListenRefused } from './app/listen.js';
import { endWithParent } from './app/parent.js';
import { measureProcess, serveMetrics } from './app/metrics.js';
import { isTheOneAbove, serveInProcesses, speaksForAll } from './app/processes.js';
import { openTerminal } from './app/terminal.js';

/** Starts one server process: migrates, makes the first instructor if there is none, listens. */
async function main(): Promise<void> {
  const metricsPort = metricsPortFrom(process.env);
  const config = configFrom(process.env, { webFolder: process.env['JIGSAW_WEB'] ?? null });
  await migrate(config.databaseUrl);
  const app = await createApp(config);
  const terminal = process.stdin.isTTY ? openTerminal(process.stdin, process.stdout) : null;
  await firstInstructor(app, process.env, terminal);
  terminal?.close();
  await listen(app, config);
  if (metricsPort > 0) {
    measureProcess(app);
    if (isTheOneAbove()) await serveMetrics(metricsPort);
  }
  if (!speaksForAll()) return;
  process.stdout.write(`\nJigsaw Room is at ${config.publicUrl}\nStop it with Ctrl-C.\n`);
}

async function run(): Promise<void> {
  const processes = processesFrom(process.env);
  if (processes === 1 || !isTheOneAbove()) return main();
  serveInProcesses(processes);
  const metricsPort = metricsPortFrom(process.env);
  if (metricsPort > 0) await serveMetrics(metricsPort);
}

endWithParent();
run().catch((error: unknown) => {
  const isTold =
    error instanceof DatabaseRefused ||
    error instanceof SettingRefused ||
    error instanceof ListenRefused ||
    error instanceof InstructorRefused;
  process.stderr.write(`${isTold ? error.message : error instanceof Error ? error.stack : String(error)}\n`);
  process.exit(1);
});
