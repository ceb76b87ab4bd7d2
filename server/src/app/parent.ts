/** The command that starts this process and keeps it up, told over the channel between the two. Without one nothing happens. */

/** A command that was killed cannot stop its server: the server notices and ends in order. */
export function endWithParent(): void {
  process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
}

/** What is told. */
export const serving = 'serving';

/** From now on the command starts this process again if it dies. */
export function tellParentWeServe(): void {
  process.send?.(serving);
}
