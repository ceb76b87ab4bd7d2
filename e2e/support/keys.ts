import type { Locator, Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { expect, expectAccessible } from './fixtures.js';

interface Stop {
  readonly what: string;
  /** Counts up; the same thing has the same number. */
  readonly id: number;
  readonly isDrawn: boolean;
  readonly hasRing: boolean;
}

/** What has the focus; null: only the page itself. */
const stopOf = (page: Page): Promise<Stop | null> =>
  page.evaluate(() => {
    const focused = document.activeElement;
    if (!focused || focused === document.body || focused === document.documentElement) return null;
    const { known } = ((
      window as unknown as { jigsawStops?: { known: Map<Element, number> } }
    ).jigsawStops ??= {
      known: new Map(),
    });
    if (!known.has(focused)) known.set(focused, known.size);
    // A radio or a checkbox is drawn by its label; the box itself is hidden.
    const label = focused.closest('label') ?? (focused as HTMLInputElement).labels?.[0] ?? null;
    const box = (focused.closest('label') ?? focused).getBoundingClientRect();
    const isRinged = (each: Element) => {
      const { outlineStyle, outlineWidth } = getComputedStyle(each);
      return outlineStyle !== 'none' && outlineWidth !== '0px';
    };
    // A field and its buttons have one ring around them.
    const around: Element[] = label ? [label] : [];
    for (let each: Element | null = focused; each && around.length < 6; each = each.parentElement)
      around.push(each);
    return {
      what: `${focused.tagName.toLowerCase()} ${focused.getAttribute('role') ?? ''} “${(
        focused.getAttribute('aria-label') ??
        label?.textContent ??
        focused.textContent ??
        ''
      ).slice(0, 50)}”`,
      id: known.get(focused) ?? 0,
      isDrawn: box.width > 0 && box.height > 0 && box.right > 0 && box.bottom > 0,
      hasRing: around.some(isRinged),
    };
  });

/** Everything that Tab comes to, from the beginning of the page until the page is left; fails at a trap, at what is not drawn and at
 * what does not show that it has the focus. */
export async function walkedThrough(page: Page, where: string, most = 400): Promise<string[]> {
  const stops: Stop[] = [];
  const seen = new Set<number>();
  // A key first: after a press of the mouse no ring is drawn.
  await page.keyboard.press('Tab');
  await page.locator('button, a').first().focus();
  for (let at = 0; at < most; at += 1) {
    const stop = await stopOf(page);
    // Out of the page, or round to where it began.
    if (stop === null || stop.id === stops[0]?.id) return stops.map((each) => each.what);
    expect(seen.has(stop.id), `${where}: Tab comes to ${stop.what} twice`).toBe(false);
    expect.soft(stop.isDrawn, `${where}: ${stop.what} is drawn`).toBe(true);
    expect.soft(stop.hasRing, `${where}: ${stop.what} shows that it has the focus`).toBe(true);
    seen.add(stop.id);
    stops.push(stop);
    await page.keyboard.press('Tab');
  }
  throw new Error(`${where}: more than ${most} stops, the last at ${sure(stops.at(-1)).what}`);
}

/** Leads the focus to something by Tab alone. */
export async function tabTo(page: Page, target: Locator, most = 120): Promise<void> {
  await target.waitFor();
  for (let at = 0; at <= most; at += 1) {
    if (
      await target.evaluate(
        (each) => each === document.activeElement || each.contains(document.activeElement),
      )
    )
      return;
    await page.keyboard.press('Tab');
  }
  const stop = await stopOf(page);
  throw new Error(
    `Tab did not come to ${String(target)} in ${most} steps; it is at ${stop?.what ?? 'nothing'}`,
  );
}

/** The focus is on something: it did not fall to the page. */
export const expectFocusKept = (page: Page, after: string): Promise<void> =>
  expect.poll(async () => (await stopOf(page)) !== null, { message: `after ${after}` }).toBe(true);

/** Opens whatever a button or a menu item with “…” opens, one after the other, and closes it by Escape: each is accessible, and the focus
 * is kept.
 * @param leadsAway what opens another page, or no layer.
 * @returns the names of what was opened. */
export async function openedAll(page: Page, where: string, leadsAway: RegExp): Promise<string[]> {
  const opened: string[] = [];
  const openers = page.getByRole('main').getByRole('button', { name: /…$|^More of|^Set$/ });
  for (let at = 0; at < (await openers.count()); at += 1) {
    const opener = openers.nth(at);
    const name = sure(await nameOf(opener));
    if (leadsAway.test(name) || !(await opener.isEnabled())) continue;
    opened.push(name);
    await openAndClose(page, `${where}: ${name}`, () => press(opener));
    const items = page.getByRole('menuitem', { name: /…$/ });
    await press(opener);
    const names = await Promise.all((await items.all()).map(nameOf));
    await page.keyboard.press('Escape');
    for (const item of names.flatMap((each) => (each === null || leadsAway.test(each) ? [] : [each]))) {
      opened.push(item);
      await openAndClose(page, `${where}: ${name} ${item}`, async () => {
        await press(opener);
        await press(page.getByRole('menuitem', { name: item }));
        await expect(page.getByRole('menuitem')).toHaveCount(0);
      });
    }
  }
  return opened;
}

const nameOf = (each: Locator): Promise<string | null> =>
  each.evaluate(
    (one) =>
      (one.getAttribute('aria-label') ?? one.querySelector('b')?.textContent ?? one.textContent)?.trim() ??
      null,
  );

async function press(what: Locator): Promise<void> {
  await what.focus();
  await what.press('Enter');
}

async function openAndClose(page: Page, where: string, open: () => Promise<void>): Promise<void> {
  await open();
  const layer = page.locator('[role=dialog], [role=alertdialog], [role=menu]').last();
  await expect(layer, where).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(layer, `${where}, after Escape`).toBeHidden();
  await expectFocusKept(page, `${where}, after Escape`);
}
