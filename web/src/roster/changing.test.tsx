import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { aPlaceResult, anEntry, courseId, id, rosterAnswers } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const changesPath = `courses/${courseId}/roster/changes`;

const changed = { changeId: id('change'), people: 1, seated: 0 };

describe('changing the roster', () => {
  it('adds a person, and takes it back with one press', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor')),
      [`POST ${changesPath}`]: changed,
      [`POST ${changesPath}/${id('change')}/undo`]: changed,
    });
    await user.click(await screen.findByRole('button', { name: /Add a person/ }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Add a person' }));
    await user.type(dialog.getByLabelText('Name'), 'Cho Min');
    await user.type(dialog.getByLabelText('Email'), 'cho');
    expect(dialog.getByText('Write the address like name@school.example.')).toBeInTheDocument();
    expect(dialog.getByRole('button', { name: 'Add' })).toBeDisabled();
    await user.type(dialog.getByLabelText('Email'), '@quillmere.example{Enter}');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes().map((write) => write.path)).toEqual([
        changesPath,
        `${changesPath}/${id('change')}/undo`,
      ]),
    );
    expect(sure(writes()[0]).body).toEqual({
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
      ...rosterAnswers(anEntry('Ada Okafor', { number: 'fe-1', attributes: { Lab: 'some' } })),
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
      expect(sure(writes()[0]).body).toEqual({
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
      ...rosterAnswers(anEntry('Ada Okafor'), anEntry('Ben Ek'), anEntry('Cho Min')),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('checkbox', { name: /Select Ada Okafor/ }));
    await user.click(screen.getByRole('checkbox', { name: /Select Ben Ek/ }));
    expect(screen.getByText('2 selected')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Remove from course' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        act: 'drop',
        enrolmentIds: [anEntry('Ada Okafor').enrolmentId, anEntry('Ben Ek').enrolmentId],
      }),
    );
    expect(
      await screen.findByText('2 people removed from the course. Work and marks are kept.'),
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
      ...rosterAnswers(anEntry('Ada Okafor'), anEntry('Ben Ek', { groups: [seat] })),
      [`POST sets/${id('benches')}/place`]: aPlaceResult(0),
    });
    await user.click(await screen.findByRole('checkbox', { name: /Select Ada Okafor/ }));
    await user.click(screen.getByRole('checkbox', { name: /Select Ben Ek/ }));
    await user.click(screen.getByRole('button', { name: 'Place in…' }));
    await user.click(await screen.findByRole('menuitem', { name: /Crock/ }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        moves: [
          { student: anEntry('Ada Okafor').enrolmentId, from: null, to: id('crock') },
          { student: anEntry('Ben Ek').enrolmentId, from: id('carboy'), to: id('crock') },
        ],
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(sure(writes()[1]).body).toMatchObject({
        moves: [
          { from: id('crock'), to: id('carboy') },
          { from: id('crock'), to: null },
        ],
      }),
    );
  });

  it('gives an attribute another name for everyone who has it', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor', { attributes: { Lab: 'some' } }), anEntry('Ben Ek')),
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

  it('says what an attribute is, and adds one that no one has yet', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor', { attributes: { Hours: '3' } })),
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
      ...rosterAnswers(anEntry('Ada Okafor'), anEntry('Gone Away', { leftAt: '2026-11-01T00:00:00.000Z' })),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('radio', { name: 'Left 1' }));
    await user.click(await screen.findByRole('checkbox', { name: /Select Gone Away/ }));
    await user.click(screen.getByRole('button', { name: 'Restore' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        act: 'restore',
        enrolmentIds: [anEntry('Gone Away').enrolmentId],
      }),
    );
  });

  it('tells what was done lately, and says why something cannot be taken back', async () => {
    const { user } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor')),
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
      'Removed from the course Ada, Ben, Cho and 2 more',
    );
    await user.click(dialog.getByRole('button', { name: /^Undo/ }));
    expect(await screen.findByText('Ada was changed meanwhile, so nothing was done.')).toBeInTheDocument();
  });

  it('invites everyone who has not come in, and leads to what was written', async () => {
    const mail = {
      id: id('mail'),
      at: '2026-11-10T10:00:00.000Z',
      toName: 'Ada Okafor',
      toAddress: 'ada@quillmere.example',
      subject: 'Your place in Applied Fermentation',
      paragraphs: ['Hello Ada Okafor,'],
      link: { label: 'Choose a password', url: null },
      why: 'You are on the roster.',
    };
    const { user, writes, router } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor', { hasComeIn: false }), anEntry('Ben Ek')),
      [`POST courses/${courseId}/roster/invitations`]: { invited: 1, hadComeIn: 1 },
      [`GET courses/${courseId}/outbox`]: { mails: [mail], total: 1 },
    });
    expect(await screen.findByText('not invited')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Invite…' }));
    await user.click(
      await screen.findByRole('menuitem', { name: 'Invite the one who has not signed in yet…' }),
    );
    const sheet = within(await screen.findByRole('dialog', { name: 'Invite 1 person' }));
    expect(sheet.getByText(anEntry('Ada Okafor').email)).toBeInTheDocument();
    expect(sheet.getByText(/^Hello Ada Okafor,/)).toBeInTheDocument();
    expect(writes()).toEqual([]);
    await user.click(sheet.getByRole('button', { name: 'Send 1 invitation' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({ enrolmentIds: [anEntry('Ada Okafor').enrolmentId] }),
    );
    await user.click(await screen.findByRole('button', { name: 'Outbox' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse('outbox')));
    const letter = await screen.findByRole('article', { name: 'Your place in Applied Fermentation' });
    expect(letter).toHaveTextContent(/Hello Ada Okafor,.*Choose a password.*receives this link/);
    expect(within(letter).queryByRole('link')).not.toBeInTheDocument();
    await user.type(screen.getByPlaceholderText(/Find a person or words/), 'no one');
    expect(screen.getByRole('heading', { name: 'No message like that' })).toBeInTheDocument();
  });

  it('writes to those who are selected, each alone', async () => {
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor'), anEntry('Ben Ek')),
      [`POST courses/${courseId}/messages`]: { id: id('sent'), threadId: null, count: 2 },
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Select all' }));
    await user.click(screen.getByRole('button', { name: 'Write to these 2…' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Write to 2 people' }));
    expect(dialog.getByRole('button', { name: 'Send to 2 people' })).toBeDisabled();
    await user.type(dialog.getByRole('textbox', { name: 'Subject' }), 'Jars');
    await user.type(dialog.getByRole('textbox', { name: 'Message' }), 'Bring your own.');
    await user.click(dialog.getByRole('button', { name: 'Send to 2 people' }));
    expect(await screen.findByText('Sent to 2 people')).toBeInTheDocument();
    const ids = ['Ben Ek', 'Ada Okafor'].map((name) => anEntry(name).enrolmentId);
    expect(sure(writes()[0]).body).toMatchObject({
      subject: 'Jars',
      text: 'Bring your own.',
      to: { kind: 'people', enrolmentIds: expect.arrayContaining(ids) },
      count: 2,
    });
  });

  it('makes one of two entries of one person: the one that has come in stays, unless the other is chosen', async () => {
    const known = anEntry('Ada Okafor', { email: 'ada@b.example', number: 'fe-1' });
    const stranger = anEntry('A. Okafor', { email: 'a.okafor@b.example', hasComeIn: false });
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(stranger, known),
      [`POST ${changesPath}`]: changed,
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Select all' }));
    await user.click(screen.getByRole('button', { name: 'Merge entries…' }));
    expect(await screen.findByRole('radio', { name: /ada@b\.example/ })).toBeChecked();
    await user.click(screen.getByRole('radio', { name: /a\.okafor@b\.example/ }));
    expect(screen.getByText(/A\. Okafor signs in as a\.okafor@b\.example/)).toBeInTheDocument();
    await user.click(screen.getByRole('radio', { name: /ada@b\.example/ }));
    await user.click(screen.getByRole('button', { name: 'Merge entries' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        act: 'join',
        keep: known.enrolmentId,
        other: stranger.enrolmentId,
      }),
    );
    expect(await screen.findByText('Ada Okafor has one merged entry now')).toBeInTheDocument();
  });

  it('remembers which columns are wanted', async () => {
    const { user } = showPage(inCourse('people'), rosterAnswers(anEntry('Ada Okafor')));
    await user.click(await screen.findByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('checkbox', { name: 'Address' }));
    expect(screen.queryByRole('columnheader', { name: /Address/, hidden: true })).not.toBeInTheDocument();
    expect(localStorage.getItem(`roster columns ${courseId}`)).toBe('{"email":false}');
    localStorage.clear();
  });
});
