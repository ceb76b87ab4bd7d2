import type { Browser } from './testServer.js';

/** The browser of someone who practises in a group. */
export function practising(browser: Browser, groupId: string): Browser {
  const as = (path: string) => `/practise/${groupId}${path}`;
  const each = (['get', 'post', 'put', 'patch', 'delete'] as const).map((method) => [method, (path: string) => browser[method](as(path))]); // prettier-ignore
  return Object.fromEntries(each);
}
