import { existsSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test as base } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';

export { expect };

export const baseUrl = (): string => {
  const url = process.env['JIGSAW_E2E_URL'];
  if (!url) throw new Error('the server for the browser tests is not running');
  return url;
};

export const test = base.extend({
  baseURL: async ({}, use) => {
    await use(baseUrl());
  },
});

/** Makes something happen at the made-up school's registrar. */
export async function registrar(path: string, data: object): Promise<void> {
  const answer = await fetch(`${process.env['JIGSAW_E2E_REGISTRAR']}/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(data),
  });
  if (!answer.ok) throw new Error(`registrar: ${answer.status} ${await answer.text()}`);
}

/** The newest personal link in the mail to an address, once it is there. */
export async function mailedLink(address: string): Promise<string> {
  const folder = process.env['JIGSAW_E2E_MAIL'] ?? '';
  const links = async () => {
    const files = existsSync(folder) ? await readdir(folder) : [];
    const own = files.filter((name) => name.includes(` ${address} `)).toSorted();
    const texts = await Promise.all(own.map((name) => readFile(path.join(folder, name), 'utf8')));
    // Long lines are parted by an = at their end.
    return texts.flatMap((text) => /\S+\/welcome#\S+/.exec(text.replaceAll('=\n', '')) ?? []);
  };
  await expect.poll(async () => (await links()).length, { timeout: 20_000 }).toBeGreaterThan(0);
  return (await links()).at(-1) ?? '';
}

/** A browser of one person's own, signed out. */
export async function newPerson(browser: Browser, viewport = { width: 1280, height: 800 }): Promise<Page> {
  const context = await browser.newContext({ baseURL: baseUrl(), viewport });
  const page = await context.newPage();
  page.on('pageerror', (error) => {
    throw new Error(`the page broke: ${error.message}`);
  });
  return page;
}

export async function signIn(page: Page, email: string, password: string): Promise<void> {
  await page.goto('/');
  await page.getByLabel('Email').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** No violation of WCAG 2.2 A or AA on the page as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    violations.map(
      (violation) =>
        `${violation.id}: ${violation.nodes
          .map((node) => node.html)
          .slice(0, 3)
          .join(' | ')}`,
    ),
  ).toEqual([]);
}
