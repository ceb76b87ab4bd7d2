import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { CourseSettings } from '@jigsaw/contract/course';
import { sure } from '@jigsaw/core/lists';
import { aBoard, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const settings: CourseSettings = {
  code: 'FER 220',
  title: 'Applied Fermentation',
  term: 'Autumn 2026',
  timeZone: 'Europe/Lisbon',
  version: 4,
  assistantsSee: 'all',
  groups: 12,
  staff: [
    { enrolmentId: id('me'), name: 'Dr. Ilse Marrow', role: 'instructor', leads: 0 },
    { enrolmentId: id('tomas'), name: 'Tomas Vey', role: 'assistant', leads: 5 },
    { enrolmentId: id('bea'), name: 'Bea Lund', role: 'assistant', leads: 12 },
  ],
};
const { set } = aBoard({});
const panels = { ...set, id: id<'group-set'>('panels'), name: 'Panels' };
const open = (more: object = {}, role: 'instructor' | 'assistant' = 'instructor') =>
  showPage(
    inCourse('course'),
    {
      [`GET courses/${courseId}/settings`]: settings,
      [`GET courses/${courseId}/sets`]: {
        sets: [set, panels],
        archived: [{ id: id('old'), name: 'Old pairs' }],
        students: 5,
      },
      ...more,
    },
    role,
  );

describe('the settings of a course', () => {
  it('change its names, with the way back', async () => {
    const path = `PUT courses/${courseId}`;
    const { user, writes } = open({
      [path]: (body: object) => ({ ...body, version: (body as CourseSettings).version + 1 }),
    });
    const title = await screen.findByRole('textbox', { name: 'Title' });
    expect(screen.queryByRole('button', { name: 'Save course' })).not.toBeInTheDocument();
    await user.clear(title);
    await user.type(title, 'Brewing');
    await user.click(screen.getByRole('button', { name: 'Save course' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    const { code, term, timeZone } = settings;
    expect(sure(writes()[0]).body).toEqual({ code, title: 'Brewing', term, timeZone, version: 4 });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(sure(writes()[1]).body).toEqual({ code, title: settings.title, term, timeZone, version: 5 }),
    );
  });

  it('keep what was typed when someone else was faster, and save it when that is meant', async () => {
    const { code, term, timeZone } = settings;
    const current = { code, title: 'Brewing', term, timeZone, version: 9 };
    const { user, writes } = open({
      [`PUT courses/${courseId}`]: (body: CourseSettings) =>
        body.version === 9
          ? { ...body, version: 10 }
          : new Refusal(409, 'stale-write', 'It is called Brewing (FER 220) now.', { current }),
    });
    const title = await screen.findByRole('textbox', { name: 'Title' });
    await user.type(title, ' II');
    await user.click(screen.getByRole('button', { name: 'Save course' }));
    expect(await screen.findByText('It is called Brewing (FER 220) now.')).toBeInTheDocument();
    expect(title).toHaveValue('Applied Fermentation II');
    await user.click(screen.getByRole('button', { name: 'Save course' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(sure(writes()[1]).body).toMatchObject({ title: 'Applied Fermentation II', version: 9 });
    await waitFor(() =>
      expect(screen.queryByText('It is called Brewing (FER 220) now.')).not.toBeInTheDocument(),
    );
  });

  it('say who would lose sight of what before it is saved, and change nothing until then', async () => {
    const { user, writes } = open({ [`PUT courses/${courseId}/assistants`]: { assistantsSee: 'theirs' } });
    const staff = within(await screen.findByRole('region', { name: 'Staff' }));
    await user.click(staff.getByRole('radio', { name: /only the groups they lead/ }));
    expect(
      staff.getByText('1 assistant would lose sight of groups: Tomas Vey (7 of 12).'),
    ).toBeInTheDocument();
    expect(
      staff.getByRole('row', { name: 'Tomas Vey Assistant 5 groups 5 of 12 groups' }),
    ).toBeInTheDocument();
    expect(writes()).toEqual([]);
    await user.click(staff.getByRole('button', { name: 'Cancel' }));
    expect(staff.queryByText(/would lose sight/)).not.toBeInTheDocument();
    await user.click(staff.getByRole('radio', { name: /only the groups they lead/ }));
    await user.click(staff.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(sure(writes()[0]).body).toEqual({ assistantsSee: 'theirs' }));
  });

  it('order the sets and restore archived ones', async () => {
    const { user, writes } = open({
      [`PUT courses/${courseId}/sets/order`]: { sets: [panels, set], archived: [], students: 5 },
      [`POST sets/${id('old')}/archive`]: { ...set, name: 'Old pairs' },
    });
    await user.click(await screen.findByRole('button', { name: 'Move Panels up' }));
    await waitFor(() => expect(sure(writes()[0]).body).toEqual({ setIds: [panels.id, set.id] }));
    expect(screen.getByRole('button', { name: 'Move Bench teams up' })).toBeDisabled();
    await user.click(screen.getByRole('button', { name: 'Restore' }));
    await waitFor(() => expect(sure(writes()[1]).body).toEqual({ isArchived: false }));
  });

  it('are read by assistants, who change nothing', async () => {
    open({}, 'assistant');
    expect(await screen.findByText('Only instructors can change them.')).toBeInTheDocument();
    expect(screen.getByRole('textbox', { name: 'Title' })).toHaveAttribute('readonly');
    for (const radio of screen.getAllByRole('radio')) expect(radio).toBeDisabled();
    expect(screen.queryByRole('button', { name: /^Move|^Restore|^Save/ })).not.toBeInTheDocument();
  });
});
