import cluster from 'node:cluster';
import { serving, tellParentWeServe } from './parent.js';

/** One that ends by itself is started again, but not for ever. */
const mostEndings = 5;
const endingsWithinMs = 60_000;

/** Runs so many server processes on one port and one database. The first comes up alone: it migrates, and asks for the first instructor if there is none. Ends
 * when all have ended; a process that dies is started again while the others serve on. */
export function serveInProcesses(count: number): void {
  const endedAt: number[] = [];
  let haveServed = false;
  let isStopping = false;
  let exitCode = 0;
  const running = () => Object.values(cluster.workers ?? {}).filter((worker) => worker !== undefined);
  const stop = (code = 0) => {
    isStopping = true;
    exitCode ||= code;
    for (const worker of running()) worker.process.kill('SIGTERM');
  };
  cluster.on('message', (_worker, said: unknown) => {
    if (haveServed || said !== serving) return;
    haveServed = true;
    tellParentWeServe();
    for (let more = running().length; more < count && !isStopping; more += 1) cluster.fork();
  });
  cluster.on('exit', (_worker, code, signal) => {
    if (isStopping) {
      if (running().length === 0) process.exit(exitCode);
      return;
    }
    const now = Date.now();
    endedAt.push(now);
    if (!haveServed || endedAt.filter((at) => at > now - endingsWithinMs).length > mostEndings) {
      if (running().length === 0) process.exit(code || 1);
      return stop(code || 1); // it has said why
    }
    process.stderr.write(
      `A server process ended by itself (${signal ? `by ${signal}` : `with code ${code}`}). What was kept is safe; another takes its place.\n`,
    );
    cluster.fork();
  });
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, () => stop());
  cluster.fork();
}

/** Whether this process says for all that they serve. */
export const speaksForAll = (): boolean => cluster.isPrimary || cluster.worker?.id === 1;
export const isTheOneAbove = (): boolean => cluster.isPrimary;
