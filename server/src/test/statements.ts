import type { Logger } from 'typeorm';
import { DataSource } from 'typeorm';
import type { TestServer } from './testServer.js';

/** Which statements the server sends to the database while something is done, transactions' own among them. */
export async function statementsDuring(server: TestServer, act: () => Promise<unknown>): Promise<string[]> {
  const dataSource = server.app.get(DataSource);
  const statements: string[] = [];
  const nothing = () => undefined;
  const logger: Logger = {
    logQuery: (query) => void statements.push(query.replace(/\s+/g, ' ')),
    logQueryError: nothing,
    logQuerySlow: nothing,
    logSchemaBuild: nothing,
    logMigration: nothing,
    log: nothing,
  };
  dataSource.setOptions({ logging: ['query'], logger });
  await act();
  dataSource.setOptions({ logging: false });
  return statements;
}
