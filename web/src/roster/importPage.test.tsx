import { afterEach, describe, expect, it } from '@jest/globals';
import { act, cleanup, screen, waitFor } from '@testing-library/react';
import type { ImportPreview } from '@jigsaw/contract/import';
import { sure } from '@jigsaw/core/lists';
import { anEntry, courseId, id, rosterAnswers } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { aPreview } from '../test/importing.js';
import { realUploads, standInForUploads } from '../test/uploads.js';

const seen = aPreview();
const previewPath = `POST courses/${courseId}/roster/preview`;

const importPath = `POST courses/${courseId}/roster/import`;

describe('bringing people in', () => {
  afterEach(realUploads);

  it('is stopped while a list is read, and what was pasted is still there', async () => {
    const { user } = showPage(inCourse('people/import'), {
      [previewPath]: () => new Promise(() => undefined), // the server takes its time
      ...rosterAnswers(anEntry('Ada Okafor')),
    });
    await user.click(await screen.findByRole('tab', { name: 'From a pasted list' }));
    await user.type(screen.getByRole('textbox', { name: /^Emails, with names/ }), 'ada@b.example');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    expect(await screen.findByText('Reading Pasted list…')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Stop reading' }));
    await waitFor(() => expect(screen.queryByText('Reading Pasted list…')).not.toBeInTheDocument());
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
    expect(screen.getByRole('textbox', { name: /^Emails, with names/ })).toHaveValue('ada@b.example');
  });

  it('shows how far a large file is: first sent, then read; and stops sending', async () => {
    const sent = standInForUploads();
    const { user } = showPage(inCourse('people/import'), rosterAnswers());
    await screen.findByText('Drop the class file here');
    const input = sure(document.querySelector<HTMLInputElement>('input[type=file]'));
    await user.upload(input, new File(['x'.repeat(300_000)], 'term.csv', { type: 'text/csv' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    const [request] = sent;
    act(() => sure(request).upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 4 }));
    expect(await screen.findByRole('progressbar', { name: 'Sending term.csv' })).toHaveAttribute(
      'aria-valuetext',
      '25 %',
    );
    expect(screen.getByRole('button', { name: 'Stop sending' })).toBeInTheDocument();
    act(() => sure(request).upload.onload?.());
    expect(await screen.findByRole('progressbar', { name: 'Reading term.csv' })).toHaveAttribute(
      'aria-valuetext',
      '0 of at most 20 s',
    );
    await user.click(screen.getByRole('button', { name: 'Stop reading' }));
    expect(sure(request).isAborted).toBe(true);
    expect(await screen.findByText('Drop the class file here')).toBeInTheDocument();
    expect(screen.queryByRole('progressbar')).not.toBeInTheDocument();
  });

  it('shows a pasted list as what would change, and brings in just that, in the chosen role', async () => {
    const { user, writes } = showPage(inCourse('people/import'), {
      [previewPath]: seen,
      [importPath]: {
        changeId: id('change'),
        added: 1,
        changed: 0,
        unchanged: 0,
        dropped: 0,
        leftOut: 0,
        seated: 0,
      },
      ...rosterAnswers(anEntry('Ada Okafor')),
    });
    await user.click(await screen.findByRole('button', { name: /Their role/ }));
    await user.click(await screen.findByRole('option', { name: 'Assistants' }));
    await user.click(screen.getByRole('tab', { name: 'From a pasted list' }));
    await user.type(screen.getByRole('textbox', { name: /^Emails, with names/ }), 'ada@b.example');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    await user.click(await screen.findByRole('button', { name: 'Import 1 row' }));
    expect(await screen.findByText('1 added, 0 changed')).toBeInTheDocument();
    expect(sure(writes().at(-1)).body).toEqual({
      source: { kind: 'paste', text: 'ada@b.example' },
      role: 'assistant',
      meanings: ['email', 'name'],
      mends: [],
      newAddresses: [],
      newRoles: [],
      leaveOutLines: [],
      drop: [],
      fingerprint: 'f1',
    });
  });

  it('says why a file cannot be read, and lets another be chosen', async () => {
    const { user } = showPage(inCourse('people/import'), {
      [previewPath]: new Refusal(422, 'unreadable-file', 'This is a PDF. Ask for the class list as CSV.'),
    });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['%PDF'], 'class.csv', { type: 'text/csv' }),
    );
    expect(await screen.findByRole('alert')).toHaveTextContent('This is a PDF.');
    expect(screen.getByRole('button', { name: 'Choose a file…' })).toBeInTheDocument();
  });

  it('reads the file again when a column is given another meaning', async () => {
    const { user, writes } = showPage(inCourse('people/import'), { [previewPath]: seen });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['ada@b.example,Ada'], 'class.csv', { type: 'text/csv' }),
    );
    await user.click(await screen.findByRole('button', { name: /Meaning of Name/ }));
    await user.click(await screen.findByRole('option', { name: 'Not imported' }));
    expect(await screen.findByRole('heading', { name: 'class.csv' })).toBeInTheDocument();
    expect(sure(writes().at(-1)).body).toMatchObject({
      meanings: ['email', 'left-out'],
      source: { fileName: 'class.csv' },
    });
  });

  it('reads the file again with the separator that someone chooses', async () => {
    const { user, writes } = showPage(inCourse('people/import'), { [previewPath]: seen });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['ada@b.example;Ada'], 'class.csv', { type: 'text/csv' }),
    );
    const choice = await screen.findByRole('button', { name: /Column separator/ });
    expect(choice).toHaveTextContent('Split at commas');
    await user.click(choice);
    await user.click(await screen.findByRole('option', { name: 'Split at semicolons' }));
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toMatchObject({ meanings: null, source: { delimiter: ';' } }),
    );
  });

  it('reads a heading as it was read the last time, also in another file', async () => {
    const withHeader = { ...seen, hasHeader: true };
    const told = {
      ...withHeader,
      columns: withHeader.columns.map((column, at) => ({
        ...column,
        meaning: at === 1 ? ('reading' as const) : column.meaning,
      })),
    };
    const answers = {
      ...rosterAnswers(anEntry('Ada Okafor')),
      [previewPath]: (body: unknown) => ((body as { meanings: unknown }).meanings ? told : withHeader),
      [importPath]: { changeId: null, added: 0, changed: 0, unchanged: 1, dropped: 0, leftOut: 0, seated: 0 },
    };
    const first = showPage(inCourse('people/import'), answers);
    await screen.findByRole('button', { name: 'Choose a file…' });
    await first.user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['x'], 'a.csv', { type: 'text/csv' }),
    );
    await first.user.click(await screen.findByRole('button', { name: /Meaning of Name/ }));
    await first.user.click(await screen.findByRole('option', { name: 'Name in Latin letters' }));
    await first.user.click(await screen.findByRole('button', { name: 'Import 1 row' }));
    await screen.findByText('0 added, 0 changed');
    cleanup();
    const more = {
      heading: 'Year',
      meaning: 'attribute' as const,
      sureness: 'guess' as const,
      set: null,
      samples: [],
    };
    const withYear = (preview: typeof seen) => ({ ...preview, columns: [more, ...preview.columns] });
    const second = showPage(inCourse('people/import'), {
      ...answers,
      [previewPath]: (body: unknown) =>
        withYear((body as { meanings: unknown }).meanings ? told : withHeader),
    });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await second.user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['x'], 'b.csv', { type: 'text/csv' }),
    );
    expect(await screen.findByRole('button', { name: /Meaning of Name/ })).toHaveTextContent(
      'Name in Latin letters',
    );
    expect(second.writes().map((write) => (write.body as { meanings: unknown }).meanings)).toEqual([
      null,
      ['attribute', 'email', 'reading'],
    ]);
    localStorage.clear();
  });

  it('shows the new state when the class changed since the preview, and brings in nothing', async () => {
    const { user, writes } = showPage(inCourse('people/import'), {
      [previewPath]: seen,
      [importPath]: new Refusal(409, 'stale-write', 'The class changed since this preview.'),
    });
    await user.click(await screen.findByRole('tab', { name: 'From a pasted list' }));
    await user.type(screen.getByRole('textbox', { name: /^Emails, with names/ }), 'ada@b.example');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    await user.click(await screen.findByRole('button', { name: 'Import 1 row' }));
    expect(await screen.findByText('The class changed since this preview.')).toBeInTheDocument();
    expect(writes().map((write) => write.path.split('/').at(-1))).toEqual(['preview', 'import', 'preview']);
  });
});

describe('the registrar', () => {
  const registrarPath = `GET courses/${courseId}/registrar`;
  const there = {
    state: 'there',
    courses: [{ code: 'FER 220', title: 'Fermentation', people: 2, seated: 0 }],
    followed: null,
    likely: 'FER 220',
    syncedAt: null,
    setName: null,
  };
  const dropped: ImportPreview = {
    ...seen,
    missing: [
      { enrolmentId: id('yara'), name: 'Yara', email: 'yara@b.example', groups: ['Tun'], isDropped: true },
    ],
    newGroups: [{ set: null, isNew: true, groups: ['Tuesday lab'] }],
  };
  const answers = {
    [registrarPath]: there,
    [previewPath]: dropped,
    [importPath]: {
      changeId: id('change'),
      added: 1,
      changed: 0,
      unchanged: 0,
      dropped: 1,
      leftOut: 0,
      seated: 0,
    },
  };

  it('is asked for the course of the same code, and whom it drops leaves unless kept', async () => {
    const { user, writes } = showPage(inCourse('people/import'), answers);
    await user.click(await screen.findByRole('tab', { name: 'From the registrar' }));
    const name = await screen.findByRole('textbox', { name: /set of its sections/ });
    await user.clear(name);
    await user.type(name, 'Lab sections');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    expect(await screen.findByRole('heading', { name: 'FER 220 at the registrar' })).toBeInTheDocument();
    expect(screen.getByText(/a group for each section: Tuesday lab/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Keep Yara' }));
    await user.click(screen.getByRole('button', { name: 'Remove Yara' }));
    await user.click(screen.getByRole('button', { name: 'Import 1 row, remove 1' }));
    expect(await screen.findByText('1 added, 0 changed, 1 removed')).toBeInTheDocument();
    expect(sure(writes().at(-1)).body).toMatchObject({
      source: { kind: 'registrar', course: 'FER 220', setName: 'Lab sections' },
      role: 'student',
      drop: [id('yara')],
    });
  });

  it('is asked at once where the course follows it', async () => {
    const { writes } = showPage(inCourse('people/import?from=registrar'), {
      ...answers,
      [registrarPath]: { ...there, followed: 'FER 220', setName: 'Labs' },
    });
    expect(await screen.findByRole('heading', { name: 'FER 220 at the registrar' })).toBeInTheDocument();
    expect(writes()).toHaveLength(1);
  });

  it.each([
    ['none', { state: 'none' }, /REGISTRAR_URL/],
    ['away', { state: 'away', sentence: 'The registrar cannot be reached.' }, /cannot be reached/],
    ['a stranger', { ...there, courses: [], likely: null }, /does not name you/],
  ])('says so when it is %s', async (_what, view, sentence) => {
    showPage(inCourse('people/import?from=registrar'), { [registrarPath]: view });
    expect(await screen.findByText(sentence)).toBeInTheDocument();
  });

  it('is one press from the roster that follows it', async () => {
    showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor')),
      [`GET courses/${courseId}/roster`]: {
        entries: [anEntry('Ada Okafor')],
        sets: [],
        attributes: [],
        syncedAt: '2026-11-13T11:00:00.000Z',
      },
    });
    expect(await screen.findByRole('link', { name: 'Sync…' })).toHaveAttribute(
      'href',
      expect.stringContaining('import?from=registrar'),
    );
  });
});
