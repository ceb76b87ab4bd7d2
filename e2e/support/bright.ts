import type { Page } from '@playwright/test';

/** What is drawn in the one bright colour, by its words, and how many of them stand in one group of figures (a row, a card, a station of the track). */
export const brightOn = (page: Page) =>
  page.evaluate(() => {
    const probe = document.body.appendChild(document.createElement('i'));
    probe.style.background = 'var(--attn)';
    const bright = getComputedStyle(probe).backgroundColor;
    probe.remove();
    const found = [...document.querySelectorAll<HTMLElement>('body *')].filter(
      (each) => getComputedStyle(each).backgroundColor === bright && each.getClientRects().length > 0,
    );
    const groups = found.map((each) =>
      each.closest('a, li, tr, [role=row], article, section, aside, form, header'),
    );
    return {
      words: found.map(
        (each) => (each.textContent ?? '').trim() || (each.parentElement?.textContent ?? '').trim(),
      ),
      most: Math.max(0, ...groups.map((group) => groups.filter((each) => each === group).length)),
    };
  });
