import type { Page } from '@playwright/test';

/** Words that had to be broken into a column of letters: no one reads them. */
export const squeezed = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('main *, header *')]
      .filter((each) => {
        const own = [...each.childNodes]
          .filter((node) => node.nodeType === Node.TEXT_NODE)
          .map((node) => (node.textContent ?? '').trim())
          .join('');
        const { width, height } = each.getBoundingClientRect();
        return own.length > 8 && width > 1 && height > 1 && width < 44 && height > 56;
      })
      .map((each) => `${each.tagName} “${(each.textContent ?? '').slice(0, 40)}”`),
  );
