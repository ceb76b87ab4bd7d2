import type { AfterQueryEvent, EntitySubscriberInterface, Logger } from 'typeorm';
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

/** Which statements the server sends while something is done, and how many rows come back. */
export async function trafficDuring(
  server: TestServer,
  act: () => Promise<unknown>,
): Promise<{ statements: string[]; rows: number }> {
  const { subscribers } = server.app.get(DataSource);
  const statements: string[] = [];
  let rows = 0;
  const counting: EntitySubscriberInterface = {
    afterQuery: ({ query, rawResults }: AfterQueryEvent) => {
      statements.push(query.replace(/\s+/g, ' ').replace(/IN \(\$\d+(, \$\d+)*\)/g, 'IN (…)'));
      rows += (rawResults as { rowCount?: number | null } | undefined)?.rowCount ?? 0;
    },
  };
  subscribers.push(counting);
  await act();
  subscribers.splice(subscribers.indexOf(counting), 1);
  return { statements, rows };
}
