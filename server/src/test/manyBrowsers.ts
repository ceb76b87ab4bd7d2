import request from 'supertest';
import { SessionService } from '../identity/index.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import type { Browser, TestServer } from './testServer.js';

interface Tab {
  /** At the server of the test. */
  readonly here: Browser;
  /** The same browser at another process of it. */
  at(url: string): Browser;
}

/** Browsers of everyone whose address is like this, signed in without their passwords, whose hashing is slow by design.
 * @param like as SQL has it: `runner1.%` */
export const manyBrowsers = async (server: TestServer, like: string): Promise<Browser[]> =>
  (await manyTabs(server, like)).map((tab) => tab.here);

/** The same, for servers of several processes: a session is good in all of them. */
export async function manyTabs(server: TestServer, like: string): Promise<Tab[]> {
  const people = (await server.rows(
    `UPDATE "person" SET "provenAt" = now() WHERE "email" LIKE '${like}' RETURNING "id"`,
  )) as [{ id: string }[], number];
  const sessions = server.app.get(SessionService, { strict: false });
  const { cookieName } = server.app.get<Config>(CONFIG);
  return Promise.all(
    people[0].map(async (person) => {
      const { token } = await sessions.start(person as never, {
        program: '',
        client: '',
        deviceToken: null,
      });
      const withCookie = (browser: Browser) => {
        browser.jar.setCookie(`${cookieName}=${token}; path=/`, '127.0.0.1');
        return browser;
      };
      return {
        here: withCookie(server.browser()),
        at: (url) => withCookie(request.agent(url)),
      };
    }),
  );
}
