import pg from 'pg';

/** A line to the database that may break at any time, also between two uses, when no one listens: that ends no process. Its next user is told,
 * and a pool opens another one. */
export class SteadyClient extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}
