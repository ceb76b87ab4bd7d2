import { afterEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { PageView } from '@jigsaw/contract/wiki';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aHead, anAuthor, aPage, aRevision, aWiki, id, text } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const copyPath = `copies/${id('copy')}`;
const pagePath = `${copyPath}/wiki/pages/${id('page')}`;
const wiki = (page: PageView, more = {}, head: Partial<CopyHead> = {}) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    {
      [`GET ${copyPath}`]: aHead({ kind: 'wiki', title: 'Starter log', settings: {}, ...head }),
      [`GET ${copyPath}/wiki`]: aWiki(page),
      [`GET ${pagePath}`]: page,
      ...more,
    },
    'student',
  );
afterEach(() => sessionStorage.clear());

const blocksOf = (words: string) => text(words).content;

describe('a wiki', () => {
  it('reads a page with its blanks filled, who saved it, and its history', async () => {
    const page = aPage('', 2, {
      text: {
        type: 'doc',
        content: [{ type: 'paragraph', content: [{ type: 'placeholder', attrs: { what: 'group-name' } }] }],
      },
    });
    wiki(page);
    const article = await screen.findByRole('article', { name: 'Days 15 to 28' });
    expect(article).toHaveTextContent(/saved Tue 10 Nov, 10:00 by Jorge.*Crock/);
    const history = screen.getByRole('complementary', { name: 'History' });
    expect(within(history).getAllByRole('listitem')).toHaveLength(2);
    expect(history).toHaveTextContent('+4 −1 words');
  });

  it('saves what is written as the next version, from the one it started with', async () => {
    const { user, writes } = wiki(aPage('Day 15'), { [`PUT ${pagePath}`]: aPage('Day 15 and more', 3) });
    await user.click(await screen.findByRole('button', { name: 'Edit' }));
    await user.click(await screen.findByRole('textbox', { name: 'Text of the page' }));
    await user.keyboard(' and more');
    expect(sessionStorage.getItem(`draft page ${id('page')}`)).toContain('and more');
    await user.click(screen.getByRole('button', { name: 'Save as version 3' }));
    await waitFor(() => expect(writes().at(-1)?.body).toMatchObject({ title: 'Days 15 to 28', basedOn: 2 }));
    expect(await screen.findByText('Saved as version 3')).toBeInTheDocument();
    expect(screen.queryByRole('textbox')).not.toBeInTheDocument();
    expect(sessionStorage.getItem(`draft page ${id('page')}`)).toBeNull();
  });

  it('shows a version that came meanwhile beside one’s own, and loses neither', async () => {
    const theirs = aPage('Day 15 by Jorge', 3);
    const { user, writes, set } = wiki(aPage('Day 15'), {
      [`PUT ${pagePath}`]: new Refusal(409, 'stale-write', 'Someone saved this page while you wrote.', {
        current: theirs,
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Edit' }));
    const box = await screen.findByRole('textbox', { name: 'Text of the page' });
    await user.click(box);
    sure(getSelection()).selectAllChildren(box);
    sure(getSelection()).collapseToEnd();
    await user.keyboard(' by me');
    await user.click(screen.getByRole('button', { name: 'Save as version 3' }));
    expect(
      await screen.findByText(/Jorge saved version 3 at 10:00, while you wrote on version 2/),
    ).toBeInTheDocument();
    const changes = screen.getByRole('region', { name: 'What yours changes in theirs' });
    expect(changes.querySelector('del')).toHaveTextContent('Jorge');
    expect(changes.querySelector('ins')).toHaveTextContent('me');
    expect(screen.getByRole('textbox', { name: 'Text of the page' })).toHaveTextContent('Day 15 by me');
    set(`PUT ${pagePath}`, aPage('Day 15 by me', 4));
    await user.click(screen.getByRole('button', { name: 'Save mine' }));
    await waitFor(() =>
      expect(
        sure(
          writes()
            .filter((write) => write.method === 'PUT')
            .at(-1),
        ).body,
      ).toMatchObject({ basedOn: 3 }),
    );
  });

  it('keeps both of two texts with one press', async () => {
    const theirs = aPage('Day 15', 3, {
      text: { type: 'doc', content: [...blocksOf('Day 15'), ...blocksOf('Jorge reads at noon')] },
    });
    const { user, writes, set } = wiki(aPage('Day 15'), {
      [`PUT ${pagePath}`]: new Refusal(409, 'stale-write', 'Someone saved this page.', { current: theirs }),
      [`GET ${pagePath}/revisions/2`]: { ...aRevision(2, 'Noor'), text: text('Day 15') },
    });
    await user.click(await screen.findByRole('button', { name: 'Edit' }));
    const box = await screen.findByRole('textbox', { name: 'Text of the page' });
    await user.click(box);
    sure(getSelection()).selectAllChildren(box);
    sure(getSelection()).collapseToEnd();
    await user.keyboard('{Enter}Noor reads at nine');
    await user.click(screen.getByRole('button', { name: 'Save as version 3' }));
    const keep = await screen.findByRole('button', { name: 'Keep both' });
    await waitFor(() => expect(keep).toBeEnabled());
    set(`PUT ${pagePath}`, aPage('both', 4));
    await user.click(keep);
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toMatchObject({
        basedOn: 3,
        text: {
          content: [
            ...blocksOf('Day 15'),
            ...blocksOf('Jorge reads at noon'),
            ...blocksOf('Noor reads at nine'),
          ],
        },
      }),
    );
  });

  it('compares two versions by their words, the older as A, and brings one back on top', async () => {
    const page = aPage('', 3, {
      revisions: [
        aRevision(3, 'Jorge', { added: 0, removed: 4, words: 0 }),
        aRevision(2, 'Noor'),
        aRevision(1, 'Jorge'),
      ],
    });
    const revision = (number: number, words: string) => ({ ...aRevision(number, 'Noor'), text: text(words) });
    const { user, writes } = wiki(page, {
      [`GET ${pagePath}/revisions/2`]: revision(2, 'All that was written'),
      [`GET ${pagePath}/revisions/3`]: { ...revision(3, 'x'), text: { type: 'doc', content: [] } },
      [`GET ${pagePath}/revisions/1`]: revision(1, 'All'),
      [`PUT ${pagePath}`]: aPage('All that was written', 4),
    });
    await user.click(await screen.findByRole('button', { name: 'Version 3 as B' }));
    const changes = await screen.findByRole('region', { name: 'What changed' });
    expect(changes).toHaveTextContent('0 words added, 4 removed.');
    expect(changes.querySelector('del')).toHaveTextContent('All that was written');
    await user.click(screen.getByRole('button', { name: 'Restore version 2' }));
    await waitFor(() =>
      expect(writes().at(-1)?.body).toEqual({
        title: 'Days 15 to 28',
        text: text('All that was written'),
        basedOn: 3,
      }),
    );
    expect(await screen.findByText('Version 2 restored as version 4')).toBeInTheDocument();
  });

  it('leads from one page to another, and shows words that lead nowhere as plain', async () => {
    const linked = (pageId: string) => ({
      type: 'text',
      text: 'see there',
      marks: [{ type: 'pageLink', attrs: { pageId } }],
    });
    const page = aPage('', 2, {
      text: {
        type: 'doc',
        content: [
          { type: 'paragraph', content: [linked(id('page'))] },
          { type: 'paragraph', content: [linked(id('gone'))] },
        ],
      },
    });
    wiki(page);
    const article = await screen.findByRole('article', { name: 'Days 15 to 28' });
    expect(within(article).getAllByRole('link')).toHaveLength(1);
    expect(within(article).getByRole('link', { name: 'see there' })).toHaveAttribute(
      'href',
      expect.stringContaining(`?page=${id('page')}`),
    );
  });

  it('makes a page once, and opens it', async () => {
    const page = aPage('Day 15');
    const { user, writes, router } = wiki(page, {
      [`POST ${copyPath}/wiki/pages`]: aPage('', 1, { id: id('new'), title: 'The salt mistake' }),
    });
    await user.click(await screen.findByRole('button', { name: 'New page' }));
    await user.type(await screen.findByLabelText('Title'), 'The salt mistake{Enter}');
    await waitFor(() => expect(router.state.location.search).toBe(`?page=${id('new')}`));
    expect(writes()).toHaveLength(1);
    expect(sure(writes()[0]).body).toMatchObject({ title: 'The salt mistake' });
  });

  it('takes a page out with the way back, and marks a new version as seen', async () => {
    const page = aPage('Day 15');
    const fresh = aWiki(page);
    const { user, writes } = wiki(page, {
      [`GET ${copyPath}/wiki`]: {
        ...fresh,
        pages: [{ ...sure(fresh.pages[0]), isNew: true }],
        writers: [{ member: anAuthor('Jorge'), revisions: 2, added: 40 }],
      },
      [`POST ${copyPath}/seen`]: { unread: 0 },
      [`DELETE ${pagePath}`]: { ...page, isDeleted: true },
      [`POST ${pagePath}/restore`]: page,
    });
    await waitFor(() =>
      expect(writes()[0]).toMatchObject({
        path: `${copyPath}/seen`,
        body: { what: 'items', items: [{ id: id('page'), version: 2 }] },
      }),
    );
    expect(await screen.findByRole('list', { name: 'Who wrote how much' })).toHaveTextContent('Jorge40 in 2');
    await user.click(await screen.findByRole('button', { name: 'Delete' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map((write) => write.path)).toContain(`${pagePath}/restore`));
  });

  it('offers no writing to whoever reads along or comes too late', async () => {
    wiki(aPage('Day 15', 2, { mayWrite: false }), {}, { part: 'reader', access: 'read-only' });
    await screen.findByRole('article', { name: 'Days 15 to 28' });
    expect(screen.queryByRole('button', { name: 'Edit' })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Delete' })).not.toBeInTheDocument();
  });
});
