import { Jobs } from '../jobs/index.js';
import { MailCarrier } from '../mail/index.js';
import { AwaitedPlaces } from '../placing/index.js';
import type { App } from './createApp.js';
import type { Config } from '../platform/config.js';
import { tellParentWeServe } from './parent.js';

export class ListenRefused extends Error {}

/** @throws ListenRefused with one sentence if the port cannot be had. */
export async function listen(app: App, { port, host }: Config): Promise<void> {
  try {
    await app.listen(port, host);
    app.get(MailCarrier).start();
    app.get(AwaitedPlaces).start();
    app.get(Jobs).start();
    tellParentWeServe();
  } catch (error) {
    await app.close();
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EADDRINUSE')
      throw new ListenRefused(
        `Port ${port} is taken by another program. Choose another one: PORT=${port + 1} ./jigsaw …`,
      );
    if (code === 'EACCES')
      throw new ListenRefused(
        `Port ${port} may not be opened by this account. Choose one above 1023: PORT=3000 ./jigsaw …`,
      );
    throw error;
  }
}
