import { describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type { ImportPreview } from '@jigsaw/contract/roster';
import { aPlaceResult, anEntry, attributesOf, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const roster = (...entries: ReturnType<typeof anEntry>[]) => ({
  [`GET courses/${courseId}/roster`]: {
    entries,
    sets: [
      {
        id: id('benches'),
        name: 'Bench teams',
        isExclusive: true,
        groups: [{ id: id('crock'), number: 1, name: 'Crock' }],
      },
    ],
    attributes: attributesOf(entries),
    syncedAt: null,
  },
});

describe('the courses of a person', () => {
  it('names the field that needs correcting and keeps the rest', async () => {
    const { user } = showPage('/', {
      'POST courses': new Refusal(422, 'invalid-input', 'Give the course a title.', {
        issues: [{ path: 'title', message: 'Give the course a title.' }],
      }),
    });
    await user.type(await screen.findByLabelText('Code'), 'FER 220');
    await user.click(screen.getByRole('button', { name: 'Make the course' }));
    expect(await screen.findByText('Give the course a title.')).toBeInTheDocument();
    expect(screen.getByLabelText('Code')).toHaveValue('FER 220');
  });

  it('takes a time zone from the list, found by any part of its name', async () => {
    const { user, writes } = showPage('/', {
      'POST courses': new Refusal(422, 'invalid-input', 'Give the course a title.'),
    });
    const zone = await screen.findByRole('combobox', { name: 'Time zone' });
    await user.clear(zone);
    await user.type(zone, 'lisbon');
    await user.click(await screen.findByRole('option', { name: 'Europe/Lisbon' }));
    await user.click(screen.getByRole('button', { name: 'Make the course' }));
    expect(await screen.findByRole('alert')).toBeInTheDocument();
    expect(writes()[0]!.body).toMatchObject({ timeZone: 'Europe/Lisbon' });
  });

  it('tells a student without a course what happens next, and offers no form', async () => {
    showPage('/', {
      'GET session': {
        person: { id: id('noor'), name: 'Noor', reading: null, email: 'n@b.example' },
        mayCreateCourses: false,
      },
      'GET courses': { courses: [] },
    });
    expect(await screen.findByRole('heading', { name: 'No course yet' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Make the course' })).not.toBeInTheDocument();
  });
});

describe('the roster', () => {
  it('says how to begin when it is empty', async () => {
    showPage(inCourse('people'), roster());
    expect(await screen.findByRole('heading', { name: 'No students yet' })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Bring in a class file' })).toHaveAttribute(
      'href',
      inCourse('people/bring-in'),
    );
  });

  it('counts students and staff apart, and leaves out who has left', async () => {
    showPage(
      inCourse('people'),
      roster(
        anEntry('Ada Okafor'),
        anEntry('Tomas Vey', { role: 'assistant' }),
        anEntry('Gone Away', { leftAt: '2026-11-01T00:00:00.000Z' }),
      ),
    );
    const views = within(await screen.findByRole('radiogroup', { name: 'Who is shown' }));
    expect(views.getAllByRole('radio').map((each) => each.textContent)).toEqual([
      'All 2',
      'Students 1',
      'Staff 1',
      'Left 1',
    ]);
    expect(screen.getByText(/^2 people/)).toBeInTheDocument();
  });

  it('finds by name, reading, number and address, without accents and case', async () => {
    const { user } = showPage(
      inCourse('people'),
      roster(
        anEntry('Zofia Wiśniewska', { number: 'fe-7' }),
        anEntry('한서연', { reading: 'Han Seo-yeon', email: 'han@quillmere.example' }),
        anEntry('Ada Okafor'),
      ),
    );
    const find = await screen.findByPlaceholderText(/Find a name/);
    for (const sought of ['WISNIEWSKA', 'seo-yeon', 'fe-7', 'ada@']) {
      await user.clear(find);
      await user.type(find, sought);
      expect(screen.getByText(/^1 of 3 people/)).toBeInTheDocument();
    }
    await user.clear(find);
    await user.type(find, 'nobody');
    expect(screen.getByText(/^0 of 3 people/)).toBeInTheDocument();
  });

  it('puts the cursor into the search with one key', async () => {
    const { user } = showPage(inCourse('people'), roster(anEntry('Ada Okafor')));
    const find = await screen.findByPlaceholderText(/Find a name/);
    await user.keyboard('/');
    expect(find).toHaveFocus();
    expect(find).toHaveValue('');
  });

  it('keeps managing from assistants, who may write to people', async () => {
    const { user } = showPage(inCourse('people'), roster(anEntry('Ada Okafor')), 'assistant');
    expect(await screen.findByText('1 person')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Add a person/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Invite/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('link', { name: /Bring people in/ })).not.toBeInTheDocument();
    await user.click(screen.getByRole('checkbox', { name: 'Select Ada Okafor' }));
    expect(screen.getByRole('button', { name: 'Write…' })).toBeInTheDocument();
    for (const name of ['Edit…', 'Role…', 'Take out of the course'])
      expect(screen.queryByRole('button', { name })).not.toBeInTheDocument();
  });

  it('hands out links, one person a line', async () => {
    const link = { name: 'Ada Okafor', email: 'ada@quillmere.example', url: 'http://x/welcome#token' };
    const { user } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor')),
      [`POST courses/${courseId}/roster/sign-in-links`]: {
        links: [link],
        expiresAt: '2026-11-24T10:00:00.000Z',
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Invite…' }));
    await user.click(await screen.findByRole('menuitem', { name: /Sign-in links/ }));
    const dialog = await screen.findByRole('dialog', { name: 'Sign-in links' });
    expect(within(dialog).getByRole('textbox')).toHaveValue(
      'Ada Okafor\tada@quillmere.example\thttp://x/welcome#token',
    );
    expect(
      within(dialog).getByText(/1 people have no password yet|1 person has no password yet/),
    ).toBeInTheDocument();
  });
});

const changesPath = `courses/${courseId}/roster/changes`;
const changed = { changeId: id('change'), people: 1, seated: 0 };

describe('changing the roster', () => {
  it('adds a person, and takes it back with one press', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor')),
      [`POST ${changesPath}`]: changed,
      [`POST ${changesPath}/${id('change')}/undo`]: changed,
    });
    await user.click(await screen.findByRole('button', { name: /Add a person/ }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Add a person' }));
    await user.type(dialog.getByLabelText('Name'), 'Cho Min');
    await user.type(dialog.getByLabelText('Mail address'), 'cho');
    expect(dialog.getByText('Write the address like name@school.example.')).toBeInTheDocument();
    expect(dialog.getByRole('button', { name: 'Add' })).toBeDisabled();
    await user.type(dialog.getByLabelText('Mail address'), '@quillmere.example{Enter}');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes().map((write) => write.path)).toEqual([
        changesPath,
        `${changesPath}/${id('change')}/undo`,
      ]),
    );
    expect(writes()[0]!.body).toEqual({
      act: 'add',
      entry: {
        name: 'Cho Min',
        email: 'cho@quillmere.example',
        role: 'student',
        familyName: null,
        reading: null,
        number: null,
        attributes: {},
      },
    });
  });

  it('sends only what was changed, with what it was', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor', { number: 'fe-1', attributes: { Lab: 'some' } })),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('rowheader', { name: 'Ada Okafor' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Ada Okafor' }));
    expect(dialog.getByRole('button', { name: 'Save' })).toBeDisabled();
    await user.clear(dialog.getByLabelText('Number'));
    await user.clear(dialog.getByLabelText('Lab'));
    await user.type(dialog.getByLabelText('Lab'), 'plenty');
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(writes()[0]!.body).toEqual({
        act: 'edit',
        edits: [
          {
            enrolmentId: anEntry('Ada Okafor').enrolmentId,
            from: { number: 'fe-1', attributes: { Lab: 'some' } },
            to: { number: null, attributes: { Lab: 'plenty' } },
          },
        ],
      }),
    );
  });

  it('selects several and takes them out of the course, except oneself', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor'), anEntry('Ben Ek'), anEntry('Cho Min')),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('checkbox', { name: /Select Ada Okafor/ }));
    await user.click(screen.getByRole('checkbox', { name: /Select Ben Ek/ }));
    expect(screen.getByText('2 selected')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Take out of the course' }));
    await waitFor(() =>
      expect(writes()[0]!.body).toEqual({
        act: 'drop',
        enrolmentIds: [anEntry('Ada Okafor').enrolmentId, anEntry('Ben Ek').enrolmentId],
      }),
    );
    expect(
      await screen.findByText('2 people taken out of the course; work and marks are kept'),
    ).toBeInTheDocument();
  });

  it('places those selected in a group of any set, from where each of them is', async () => {
    const seat = {
      setId: id<'group-set'>('benches'),
      groupId: id<'group'>('carboy'),
      number: 2,
      name: 'Carboy',
    };
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor'), anEntry('Ben Ek', { groups: [seat] })),
      [`POST sets/${id('benches')}/place`]: aPlaceResult(0),
    });
    await user.click(await screen.findByRole('checkbox', { name: /Select Ada Okafor/ }));
    await user.click(screen.getByRole('checkbox', { name: /Select Ben Ek/ }));
    await user.click(screen.getByRole('button', { name: 'Place in…' }));
    await user.click(await screen.findByRole('menuitem', { name: /Crock/ }));
    await waitFor(() =>
      expect(writes()[0]!.body).toEqual({
        moves: [
          { student: anEntry('Ada Okafor').enrolmentId, from: null, to: id('crock') },
          { student: anEntry('Ben Ek').enrolmentId, from: id('carboy'), to: id('crock') },
        ],
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes()[1]!.body).toMatchObject({
        moves: [
          { from: id('crock'), to: id('carboy') },
          { from: id('crock'), to: null },
        ],
      }),
    );
  });

  it('gives an attribute another name for everybody who has it', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor', { attributes: { Lab: 'some' } }), anEntry('Ben Ek')),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('button', { name: 'Change Lab' }));
    await user.clear(screen.getByRole('textbox', { name: 'New name of Lab' }));
    await user.type(screen.getByRole('textbox', { name: 'New name of Lab' }), 'Lab experience{Enter}');
    await waitFor(() =>
      expect(writes().map((write) => write.body)).toEqual([
        { act: 'rename-attribute', from: 'Lab', to: 'Lab experience' },
      ]),
    );
  });

  it('says what an attribute is, and adds one that nobody has yet', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor', { attributes: { Hours: '3' } })),
      [`PUT courses/${courseId}/roster/attributes`]: { attributes: [] },
    });
    await user.click(await screen.findByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('button', { name: 'Add an attribute…' }));
    await user.type(screen.getByRole('textbox', { name: 'Its name' }), 'Hours');
    expect(screen.getByText(/is the name of another attribute/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Add' })).toBeDisabled();
    await user.type(screen.getByRole('textbox', { name: 'Its name' }), ' free');
    await user.click(screen.getByRole('button', { name: /What its values are/ }));
    await user.click(await screen.findByRole('option', { name: 'Free half-days' }));
    await user.click(screen.getByRole('button', { name: 'Add' }));
    await waitFor(() =>
      expect(writes().map((write) => write.body)).toEqual([{ name: 'Hours free', kind: 'half-days' }]),
    );
  });

  it('shows who left apart, and brings them back', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor'), anEntry('Gone Away', { leftAt: '2026-11-01T00:00:00.000Z' })),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('radio', { name: 'Left 1' }));
    await user.click(await screen.findByRole('checkbox', { name: /Select Gone Away/ }));
    await user.click(screen.getByRole('button', { name: 'Bring back' }));
    await waitFor(() =>
      expect(writes()[0]!.body).toEqual({
        act: 'bring-back',
        enrolmentIds: [anEntry('Gone Away').enrolmentId],
      }),
    );
  });

  it('tells what was done lately, and says why something cannot be taken back', async () => {
    const { user } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor')),
      [`GET ${changesPath}`]: {
        changes: [
          {
            id: id('c1'),
            kind: 'drop',
            at: '2026-11-10T10:00:00.000Z',
            by: 'Dr. Ilse Marrow',
            counts: { added: 0, removed: 0, dropped: 5, back: 0, edited: 0 },
            names: ['Ada', 'Ben', 'Cho'],
            isUndone: false,
            canUndo: true,
          },
        ],
      },
      [`POST ${changesPath}/${id('c1')}/undo`]: new Refusal(
        409,
        'conflict',
        'Ada was changed meanwhile, so nothing was done.',
      ),
    });
    await user.click(await screen.findByRole('button', { name: 'Changes of the roster' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Changes of the roster' }));
    expect(await dialog.findByRole('listitem')).toHaveTextContent(
      'Taken out of the course Ada, Ben, Cho and 2 more',
    );
    await user.click(dialog.getByRole('button', { name: /^Undo/ }));
    expect(await screen.findByText('Ada was changed meanwhile, so nothing was done.')).toBeInTheDocument();
  });

  it('invites everybody who has not come in, and leads to what was written', async () => {
    const mail = {
      id: id('mail'),
      at: '2026-11-10T10:00:00.000Z',
      toName: 'Ada Okafor',
      toAddress: 'ada@quillmere.example',
      subject: 'Your place in Applied Fermentation',
      paragraphs: ['Hello Ada Okafor,'],
      link: { label: 'Choose a password and come in', url: 'http://x/welcome#t' },
      why: 'You are on the roster.',
    };
    const { user, writes, router } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor', { hasComeIn: false }), anEntry('Ben Ek')),
      [`POST courses/${courseId}/roster/invitations`]: { invited: 1, hadComeIn: 1 },
      [`GET courses/${courseId}/outbox`]: { mails: [mail], total: 1 },
    });
    expect(await screen.findByText('not invited')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Invite…' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Invite the 1 who have not come in yet' }));
    await waitFor(() => expect(writes()[0]!.body).toEqual({ enrolmentIds: null }));
    await user.click(await screen.findByRole('button', { name: 'Outbox' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse('outbox')));
    const letter = await screen.findByRole('article', { name: 'Your place in Applied Fermentation' });
    expect(letter).toHaveTextContent(/Hello Ada Okafor,.*Choose a password and come in/);
    await user.type(screen.getByPlaceholderText(/Find a person or words/), 'nobody');
    expect(screen.getByRole('heading', { name: 'No message like that' })).toBeInTheDocument();
  });

  it('writes to those who are selected, each alone', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor'), anEntry('Ben Ek')),
      [`POST courses/${courseId}/roster/messages`]: { written: 2 },
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Select all' }));
    await user.click(screen.getByRole('button', { name: 'Write…' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Write to 2 people' }));
    expect(dialog.getByRole('button', { name: 'Send to 2 people' })).toBeDisabled();
    await user.type(dialog.getByRole('textbox', { name: 'Subject' }), 'Jars');
    await user.type(dialog.getByRole('textbox', { name: 'Message' }), 'Bring your own.');
    await user.click(dialog.getByRole('button', { name: 'Send to 2 people' }));
    expect(await screen.findByText('Written to 2 people')).toBeInTheDocument();
    const ids = ['Ben Ek', 'Ada Okafor'].map((name) => anEntry(name).enrolmentId);
    expect(writes()[0]!.body).toMatchObject({
      subject: 'Jars',
      text: 'Bring your own.',
      enrolmentIds: expect.arrayContaining(ids),
    });
  });

  it('makes one of two entries of one person: the one that has come in stays, unless the other is chosen', async () => {
    const known = anEntry('Ada Okafor', { email: 'ada@b.example', number: 'fe-1' });
    const stranger = anEntry('A. Okafor', { email: 'a.okafor@b.example', hasComeIn: false });
    const { user, writes } = showPage(inCourse('people'), {
      ...roster(stranger, known),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Select all' }));
    await user.click(screen.getByRole('button', { name: 'Same person…' }));
    expect(await screen.findByRole('radio', { name: /ada@b\.example/ })).toBeChecked();
    await user.click(screen.getByRole('radio', { name: /a\.okafor@b\.example/ }));
    expect(screen.getByText(/A\. Okafor signs in as a\.okafor@b\.example/)).toBeInTheDocument();
    await user.click(screen.getByRole('radio', { name: /ada@b\.example/ }));
    await user.click(screen.getByRole('button', { name: 'Make them one' }));
    await waitFor(() =>
      expect(writes()[0]!.body).toEqual({
        act: 'join',
        keep: known.enrolmentId,
        other: stranger.enrolmentId,
      }),
    );
    expect(
      await screen.findByText('Ada Okafor has one entry now, with all that both had'),
    ).toBeInTheDocument();
  });

  it('remembers which columns are wanted', async () => {
    const { user } = showPage(inCourse('people'), roster(anEntry('Ada Okafor')));
    await user.click(await screen.findByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('checkbox', { name: 'Address' }));
    expect(screen.queryByRole('columnheader', { name: /Address/, hidden: true })).not.toBeInTheDocument();
    expect(localStorage.getItem(`roster columns ${courseId}`)).toBe('{"email":false}');
    localStorage.clear();
  });
});

const aPreview: ImportPreview = {
  columns: [
    { heading: 'Address', meaning: 'email', sureness: 'sure', samples: ['ada@b.example'] },
    { heading: 'Name', meaning: 'name', sureness: 'sure', samples: ['Ada'] },
  ],
  encoding: 'UTF-8',
  delimiter: ',',
  hasHeader: false,
  columnProblem: null,
  rows: [
    {
      kind: 'new',
      line: 1,
      person: {
        email: 'ada@b.example',
        name: 'Ada',
        familyName: null,
        reading: null,
        number: null,
        role: null,
        places: [],
        attributes: {},
      },
    },
  ],
  missing: [],
  newGroups: [],
  warning: null,
  counts: { new: 1, changed: 0, unchanged: 0, problem: 0 },
  fingerprint: 'f1',
};
const previewPath = `POST courses/${courseId}/roster/preview`;
const importPath = `POST courses/${courseId}/roster/import`;

describe('bringing people in', () => {
  it('shows a pasted list as what would change, and brings in just that, in the chosen role', async () => {
    const { user, writes } = showPage(inCourse('people/bring-in'), {
      [previewPath]: aPreview,
      [importPath]: {
        changeId: id('change'),
        added: 1,
        changed: 0,
        unchanged: 0,
        dropped: 0,
        leftOut: 0,
        seated: 0,
      },
      ...roster(anEntry('Ada Okafor')),
    });
    await user.click(await screen.findByRole('button', { name: /Their role/ }));
    await user.click(await screen.findByRole('option', { name: 'Assistants' }));
    await user.click(screen.getByRole('tab', { name: 'From a pasted list' }));
    await user.type(screen.getByRole('textbox', { name: /One person a line/ }), 'ada@b.example');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    await user.click(await screen.findByRole('button', { name: 'Bring in 1 row' }));
    expect(await screen.findByText('1 added, 0 changed')).toBeInTheDocument();
    expect(writes().at(-1)!.body).toEqual({
      source: { kind: 'paste', text: 'ada@b.example' },
      role: 'assistant',
      meanings: ['email', 'name'],
      mends: [],
      leaveOutLines: [],
      drop: [],
      fingerprint: 'f1',
    });
  });

  it('says why a file cannot be read, and lets another be chosen', async () => {
    const { user } = showPage(inCourse('people/bring-in'), {
      [previewPath]: new Refusal(422, 'unreadable-file', 'This is a PDF. Ask for the class list as CSV.'),
    });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      document.querySelector<HTMLInputElement>('input[type=file]')!,
      new File(['%PDF'], 'class.csv', { type: 'text/csv' }),
    );
    expect(await screen.findByRole('alert')).toHaveTextContent('This is a PDF.');
    expect(screen.getByRole('button', { name: 'Choose a file…' })).toBeInTheDocument();
  });

  it('reads the file again when a column is given another meaning', async () => {
    const { user, writes } = showPage(inCourse('people/bring-in'), { [previewPath]: aPreview });
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      document.querySelector<HTMLInputElement>('input[type=file]')!,
      new File(['ada@b.example,Ada'], 'class.csv', { type: 'text/csv' }),
    );
    await user.click(await screen.findByRole('button', { name: /Meaning of Name/ }));
    await user.click(await screen.findByRole('option', { name: 'Left out' }));
    expect(await screen.findByRole('heading', { name: 'class.csv' })).toBeInTheDocument();
    expect(writes().at(-1)!.body).toMatchObject({
      meanings: ['email', 'left-out'],
      source: { fileName: 'class.csv' },
    });
  });

  it('reads a file with the same headings as it was read the last time', async () => {
    const withHeader = { ...aPreview, hasHeader: true };
    const told = {
      ...withHeader,
      columns: withHeader.columns.map((column, at) => ({
        ...column,
        meaning: at === 1 ? ('reading' as const) : column.meaning,
      })),
    };
    const answers = {
      ...roster(anEntry('Ada Okafor')),
      [previewPath]: (body: unknown) => ((body as { meanings: unknown }).meanings ? told : withHeader),
      [importPath]: { changeId: null, added: 0, changed: 0, unchanged: 1, dropped: 0, leftOut: 0, seated: 0 },
    };
    const first = showPage(inCourse('people/bring-in'), answers);
    await screen.findByRole('button', { name: 'Choose a file…' });
    await first.user.upload(
      document.querySelector<HTMLInputElement>('input[type=file]')!,
      new File(['x'], 'a.csv', { type: 'text/csv' }),
    );
    await first.user.click(await screen.findByRole('button', { name: /Meaning of Name/ }));
    await first.user.click(await screen.findByRole('option', { name: 'Name in Latin letters' }));
    await first.user.click(await screen.findByRole('button', { name: 'Bring in 1 row' }));
    await screen.findByText('0 added, 0 changed');
    cleanup();
    const second = showPage(inCourse('people/bring-in'), answers);
    await screen.findByRole('button', { name: 'Choose a file…' });
    await second.user.upload(
      document.querySelector<HTMLInputElement>('input[type=file]')!,
      new File(['x'], 'b.csv', { type: 'text/csv' }),
    );
    expect(await screen.findByRole('button', { name: /Meaning of Name/ })).toHaveTextContent(
      'Name in Latin letters',
    );
    expect(second.writes().map((write) => (write.body as { meanings: unknown }).meanings)).toEqual([
      null,
      ['email', 'reading'],
    ]);
    localStorage.clear();
  });

  it('shows the new state when the class changed since the preview, and brings in nothing', async () => {
    const { user, writes } = showPage(inCourse('people/bring-in'), {
      [previewPath]: aPreview,
      [importPath]: new Refusal(409, 'stale-write', 'The class changed since this preview.'),
    });
    await user.click(await screen.findByRole('tab', { name: 'From a pasted list' }));
    await user.type(screen.getByRole('textbox', { name: /One person a line/ }), 'ada@b.example');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    await user.click(await screen.findByRole('button', { name: 'Bring in 1 row' }));
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
    ...aPreview,
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
    const { user, writes } = showPage(inCourse('people/bring-in'), answers);
    await user.click(await screen.findByRole('tab', { name: 'From the registrar' }));
    const name = await screen.findByRole('textbox', { name: /set of its sections/ });
    await user.clear(name);
    await user.type(name, 'Lab sections');
    await user.click(screen.getByRole('button', { name: 'Show what would change' }));
    expect(await screen.findByRole('heading', { name: 'FER 220 at the registrar' })).toBeInTheDocument();
    expect(screen.getByText(/a group for each section: Tuesday lab/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Keep Yara' }));
    await user.click(screen.getByRole('button', { name: 'Take Yara out' }));
    await user.click(screen.getByRole('button', { name: 'Bring in 1 row, take out 1' }));
    expect(await screen.findByText('1 added, 0 changed, 1 taken out')).toBeInTheDocument();
    expect(writes().at(-1)!.body).toMatchObject({
      source: { kind: 'registrar', course: 'FER 220', setName: 'Lab sections' },
      role: 'student',
      drop: [id('yara')],
    });
  });

  it('is asked at once where the course follows it', async () => {
    const { writes } = showPage(inCourse('people/bring-in?from=registrar'), {
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
    showPage(inCourse('people/bring-in?from=registrar'), { [registrarPath]: view });
    expect(await screen.findByText(sentence)).toBeInTheDocument();
  });

  it('is one press from the roster that follows it', async () => {
    showPage(inCourse('people'), {
      ...roster(anEntry('Ada Okafor')),
      [`GET courses/${courseId}/roster`]: {
        entries: [anEntry('Ada Okafor')],
        sets: [],
        attributes: [],
        syncedAt: '2026-11-13T11:00:00.000Z',
      },
    });
    expect(await screen.findByRole('link', { name: 'Sync…' })).toHaveAttribute(
      'href',
      expect.stringContaining('bring-in?from=registrar'),
    );
  });
});
