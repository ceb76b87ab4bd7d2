import { afterEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { WorkView } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aFile, aHandIn, aHead, aMember, aPart, aRubric, aWork, id } from '../test/data.js';
import { realUploads, standInForUploads } from '../test/uploads.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const copyPath = `copies/${id('copy')}`;
const noor = aMember('Noor', { isYou: true });
const jorge = aMember('Jorge');
const work = (
  own: WorkView,
  more = {},
  head: Partial<CopyHead> = {},
  role: 'student' | 'instructor' = 'student',
) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    { [`GET ${copyPath}`]: aHead(head), [`GET ${copyPath}/work`]: own, ...more },
    role,
  );

const schedule = { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null };

describe('working on a hand-in', () => {
  it('fills the blanks of the brief, and keeps the others’ parts apart', async () => {
    work(aWork({ parts: [aPart(noor, 'Mine here'), aPart(jorge, 'It fell to 4.4')], state: 'in-work' }));
    expect(await screen.findByRole('region', { name: 'Brief' })).toHaveTextContent('For Crock');
    expect(screen.getByRole('region', { name: 'What the others wrote' })).toHaveTextContent('It fell to 4.4');
    expect(screen.getByRole('region', { name: 'What the others wrote' })).not.toHaveTextContent('Mine here');
    expect(screen.getByRole('list', { name: 'Who contributed what' })).toHaveTextContent(
      'Noor (you)2 wordsJorge4 words',
    );
  });

  it('lets one choose between two windows of one’s own, and saves what was chosen on top', async () => {
    const here = aWork({ parts: [{ ...aPart(noor, 'Here'), version: 1 }], state: 'in-work' });
    const there = aWork({ parts: [{ ...aPart(noor, 'There'), version: 2 }], state: 'in-work' });
    const { user, set, writes } = work(here, {
      [`PUT ${copyPath}/part`]: new Refusal(409, 'stale-write', 'You edited this in another window.', {
        current: there,
      }),
    });
    const editor = await screen.findByRole('textbox', { name: 'Your part of the text' });
    await user.click(editor);
    await user.keyboard('More ');
    const strip = await screen.findByRole('alert');
    expect(strip).toHaveTextContent('There');
    set(`GET ${copyPath}/work`, there);
    set(`PUT ${copyPath}/part`, aWork({ parts: [{ ...aPart(noor, 'Here'), version: 3 }], state: 'in-work' }));
    await user.click(within(strip).getByRole('button', { name: 'Keep my text' }));
    await waitFor(() => expect(screen.queryByRole('alert')).not.toBeInTheDocument());
    const kept = sure(writes().at(-1)).body as { version: number; text: unknown };
    expect(kept.version).toBe(2);
    expect(JSON.stringify(kept.text)).toContain('More');
  });

  it('offers to take out one’s own files only, with the way back', async () => {
    const copy = aWork({ files: [aFile('mine.csv', noor), aFile('theirs.csv', jorge)], state: 'in-work' });
    const { user, writes } = work(copy, {
      [`DELETE ${copyPath}/files/${id('mine.csv')}`]: aWork({ files: [aFile('theirs.csv', jorge)] }),
      [`POST ${copyPath}/files/${id('mine.csv')}/restore`]: copy,
    });
    await user.click(await screen.findByRole('button', { name: 'Delete mine.csv' }));
    expect(screen.queryByRole('button', { name: 'Delete theirs.csv' })).not.toBeInTheDocument();
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map((write) => write.method)).toEqual(['DELETE', 'POST']));
    expect(screen.getByRole('link', { name: 'Download theirs.csv' })).toHaveAttribute(
      'href',
      `/api/${copyPath}/files/${id('theirs.csv')}`,
    );
  });

  it('shows words and tables in place, a table’s header first, and says when a file holds none', async () => {
    const files = [
      aFile('report.md', jorge),
      aFile('readings.csv', jorge),
      aFile('odd.txt', jorge),
      aFile('scan.pdf', jorge),
    ];
    const { user } = work(aWork({ files }), {
      [`GET ${copyPath}/files/${id('report.md')}`]: new Response('# It fell\n<script>alert(1)</script>'),
      [`GET ${copyPath}/files/${id('readings.csv')}`]: new Response('day;pH\n1;5,1\n2;4,4\n'),
      [`GET ${copyPath}/files/${id('odd.txt')}`]: new Response(
        new Uint8Array([0x25, 0x50, 0x44, 0x46, 0, 1]),
      ),
    });
    await user.click(await screen.findByRole('button', { name: 'Read report.md' }));
    expect(await screen.findByRole('region', { name: 'report.md' })).toHaveTextContent(
      '# It fell <script>alert(1)</script>',
    );
    await user.click(screen.getByRole('button', { name: 'Read readings.csv' }));
    const rows = within(await screen.findByRole('region', { name: 'readings.csv' })).getAllByRole('row');
    expect(rows.map((row) => row.textContent)).toEqual(['daypH', '15,1', '24,4']);
    await user.click(screen.getByRole('button', { name: 'Read odd.txt' }));
    expect(
      await screen.findByText('It holds no text that can be shown here. Download it to look.'),
    ).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Read scan.pdf' })).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Close report.md' }));
    expect(screen.queryByRole('region', { name: 'report.md' })).not.toBeInTheDocument();
  });

  it('says what is missing before it can be handed in', async () => {
    work(aWork());
    expect(await screen.findByRole('button', { name: 'Hand in for all 2' })).toBeDisabled();
    expect(screen.getByText('Write something or add a file first.')).toBeInTheDocument();
  });

  it('tells what lateness costs before anybody presses', async () => {
    // By the server's clock: this machine's says something else.
    work(
      aWork({ files: [aFile('mine.csv', noor)] }),
      {},
      { schedule, serverTime: '2026-11-13T21:05:00.000Z' },
    );
    expect(await screen.findByText('late 1 d 4 h 5 min, −8 points')).toBeInTheDocument();
    expect(screen.getByText('if handed in now')).toBeInTheDocument();
    expect(screen.getByText('late: −8 points')).toBeInTheDocument();
    expect(
      screen.getByText(/Up to 15 min late costs nothing. After that, late work loses 10 %/),
    ).toBeInTheDocument();
  });

  it('warns before the time is over, and says what is free still', async () => {
    const at = (serverTime: string) => work(aWork(), {}, { schedule, serverTime });
    const { unmount: leave } = at('2026-11-12T16:40:10.000Z');
    expect(await screen.findByText('due in 19 min')).toBeInTheDocument();
    leave();
    at('2026-11-12T17:05:00.000Z');
    expect(await screen.findByText('past due, no penalty until 17:15')).toBeInTheDocument();
  });

  it('closes at its moment on a page that was left open, and keeps what is there', async () => {
    const closes = '2026-11-14T17:00:00.000Z';
    const head = {
      schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes },
      serverTime: '2026-11-14T16:59:58.500Z',
    };
    const { set } = work(aWork({ files: [aFile('mine.csv', noor)] }), {}, head);
    expect(await screen.findByText('closes in less than a minute')).toBeInTheDocument();
    expect(await screen.findByRole('button', { name: 'Hand in for all 2' })).toBeEnabled();
    set(`GET copies/${id('copy')}`, aHead({ ...head, serverTime: closes, access: 'read-only' }));
    expect(
      await screen.findByText(/^Closed on Sat 14 Nov, 17:00/, {}, { timeout: 5000 }),
    ).toBeInTheDocument();
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Hand in/ })).not.toBeInTheDocument());
  });

  it('hands in the attempt that is in view, and shows a teammate’s that came first', async () => {
    const { user, writes } = work(aWork({ files: [aFile('mine.csv', noor)] }), {
      [`POST ${copyPath}/hand-in`]: new Refusal(409, 'stale-write', 'A teammate handed in a moment ago.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Hand in for all 2' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('A teammate handed in a moment ago.');
    expect(sure(writes()[0]).body).toEqual({ attempt: 1 });
  });

  it('says who handed in, when, and for whom it counts', async () => {
    work(aWork({ files: [aFile('mine.csv', noor)], handIns: [aHandIn()], state: 'done' }));
    expect(await screen.findByRole('heading', { name: 'Handed in' })).toBeInTheDocument();
    expect(screen.getByRole('complementary', { name: 'Hand in' })).toHaveTextContent(
      'Jorge handed in Tue 10 Nov, 10:00, on time. It counts for Noor, Jorge.',
    );
    expect(screen.getByRole('button', { name: 'Hand in again for all 2' })).toBeDisabled();
  });

  it('offers to hand in again what was added since', async () => {
    work(aWork({ files: [aFile('mine.csv', noor)], handIns: [aHandIn()], state: 'changed-since' }));
    expect(await screen.findByRole('heading', { name: 'Handed in, changed since' })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Hand in again for all 2' })).toBeEnabled();
  });

  it('can be read but not changed once closed', async () => {
    work(aWork({ mayHandIn: false, files: [aFile('mine.csv', noor)] }), {}, { access: 'read-only' });
    expect(await screen.findByRole('alert')).toHaveTextContent('This is closed.');
    expect(screen.queryByRole('button', { name: /Hand in/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('textbox')).not.toBeInTheDocument();
  });

  it('has one answer for what is not there and what is not theirs', async () => {
    showPage(inCourse(`copies/${id('other')}`), {}, 'student');
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });
});

describe('a submission folder', () => {
  const folder = { kind: 'folder', settings: {} };
  const rules = { takesText: false, mostFiles: 2, types: ['pdf', 'csv'], largestMb: 10 };

  it('says which files it takes, has no place for text, and is full at its number', async () => {
    work(aWork({ rules }), {}, folder);
    expect(
      await screen.findByText('File types and limits: at most 2 files, .pdf, .csv, up to 10 MB each.'),
    ).toBeInTheDocument();
    expect(screen.queryByRole('textbox')).not.toBeInTheDocument();
    expect(screen.getByText('Add a file first.')).toBeInTheDocument();
    expect(document.querySelector('input[type=file]')).toHaveAttribute('accept', '.pdf,.csv');
  });

  it('takes no more once it is full', async () => {
    work(aWork({ rules, files: [aFile('a.csv', noor), aFile('b.csv', jorge)] }), {}, folder);
    expect(await screen.findByText('No more than 2 files here.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Add files…' })).toBeDisabled();
  });

  it('is each student’s alone where it is set so', async () => {
    const { user, writes } = work(
      aWork({ rules: { ...rules, by: 'student', attempts: 'one' }, files: [aFile('mine.csv', noor)] }),
      { [`POST ${copyPath}/hand-in`]: aWork() },
      folder,
    );
    expect(
      await screen.findByText(/Each hands in alone, 40 points. Teammates do not see it./),
    ).toBeInTheDocument();
    expect(screen.getByText('You can hand in only once. Check everything first.')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Hand in' }));
    expect(writes()[0]).toMatchObject({ path: `${copyPath}/hand-in`, body: { attempt: 1 } });
  });

  it('keeps what is handed in where all attempts count', async () => {
    const file = { ...aFile('week1.csv', noor), isHandedIn: true };
    work(
      aWork({
        rules: { ...rules, attempts: 'all' },
        files: [file],
        handIns: [aHandIn({ files: [file], parts: [] })],
        state: 'done',
      }),
      {},
      folder,
    );
    expect(await screen.findByRole('heading', { name: 'Handed in' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Delete week1.csv' })).not.toBeInTheDocument();
  });

  it('shows staff each student’s hand-in', async () => {
    const own = aHandIn({ owner: jorge, handedInBy: jorge, files: [aFile('jorge.csv', jorge)], parts: [] });
    work(
      aWork({ rules: { ...rules, by: 'student' }, mayHandIn: false, handIns: [own] }),
      {},
      { ...folder, part: 'staff' },
      'instructor',
    );
    expect(await screen.findByRole('region', { name: 'Jorge' })).toHaveTextContent(/on time.*jorge.csv/);
    expect(screen.getByRole('region', { name: 'Noor' })).toHaveTextContent('not handed in');
  });

  it('shows the rubric before anything is handed in, and until when a group has longer', async () => {
    work(
      aWork({ rules }),
      {},
      {
        ...folder,
        rubric: aRubric,
        extension: { due: '2099-11-12T17:00:00.000Z', reason: 'Their crock cracked', isOwn: false },
      },
    );
    expect(await screen.findByText('How it will be marked')).toBeInTheDocument();
    expect(screen.getByText(/Their crock cracked/)).toBeInTheDocument();
    expect(screen.getByText('extended')).toBeInTheDocument();
  });
});

describe('adding a file', () => {
  afterEach(realUploads);
  const input = () => sure(document.querySelector<HTMLInputElement>('input[type=file]'));

  it('shows how far it is, and can be cancelled', async () => {
    const uploads = standInForUploads();
    const { user } = work(aWork());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['pH'], 'readings.csv', { type: 'text/csv' }));
    expect(sure(uploads[0]).address).toBe(`/api/${copyPath}/files?name=readings.csv&type=text%2Fcsv`);
    sure(uploads[0]).upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 4 });
    await waitFor(() =>
      expect(screen.getByRole('progressbar', { name: 'Adding readings.csv' })).toHaveAttribute(
        'aria-valuenow',
        '25',
      ),
    );
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('readings.csv was not added.');
    expect(screen.queryByRole('progressbar')).not.toBeInTheDocument();
  });

  it('says in the server’s words why a file was refused', async () => {
    const uploads = standInForUploads();
    const { user } = work(aWork());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['x'], 'huge.bin'));
    sure(uploads[0]).answer(413, {
      type: '/problems/too-large',
      title: 'Too large',
      status: 413,
      detail: 'The file is over 250 MB, the most allowed here.',
    });
    expect(await screen.findByRole('alert')).toHaveTextContent(
      'huge.bin: The file is over 250 MB, the most allowed here.',
    );
  });

  it('asks for the copy anew once a file has arrived', async () => {
    const uploads = standInForUploads();
    const { user, set } = work(aWork());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['pH'], 'readings.csv'));
    const arrived = aWork({ files: [aFile('readings.csv', noor)] });
    set(`GET ${copyPath}/work`, arrived);
    sure(uploads[0]).answer(200, arrived);
    expect(await screen.findByRole('link', { name: 'Download readings.csv' })).toBeInTheDocument();
  });
});
