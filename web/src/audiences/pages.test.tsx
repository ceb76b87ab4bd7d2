import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { AudienceMembers, AudienceView, WhoIsIn } from '@jigsaw/contract/audiences';
import type { Term } from '@jigsaw/core/audiences';
import { sure } from '@jigsaw/core/lists';
import { anEntry, courseId, id, rosterAnswers } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const noor = { kind: 'person' as const, enrolmentId: id<'enrolment'>('Noor') };
const evening = { kind: 'attribute' as const, name: 'Timetable', test: 'is' as const, value: 'evening' };
const anAudience = (more: Partial<AudienceView> = {}): AudienceView => ({
  id: id('dairy'),
  name: 'Dairy',
  include: [evening],
  exclude: [],
  version: 3,
  people: 2,
  groups: 0,
  usedIn: [],
  ...more,
});
const memberOf = (name: string, by: Term) => ({
  enrolmentId: id<'enrolment'>(name),
  name,
  reading: null,
  role: 'student' as const,
  by,
});
const members = ({ include, exclude }: WhoIsIn): AudienceMembers => ({
  people: include.length === 0 ? [] : [memberOf('Bo', evening)],
  removed: exclude.length === 0 ? [] : [memberOf('Noor', noor)],
  groups: [],
  circle: null,
});
const show = (audiences: readonly AudienceView[], path: string, more: object = {}, role?: 'assistant') =>
  showPage(
    inCourse(path),
    {
      ...rosterAnswers(
        anEntry('Noor', { attributes: { Timetable: 'evening' } }),
        anEntry('Bo', { attributes: { Timetable: 'evening' }, number: '7001' }),
      ),
      [`GET courses/${courseId}/audiences`]: { audiences },
      [`POST courses/${courseId}/audiences/members`]: members,
      ...more,
    },
    role,
  );
const saves = (page: ReturnType<typeof show>) =>
  page.writes().filter((write) => !write.path.endsWith('/members'));
const field = (side: string) => screen.findByRole('combobox', { name: `Add to “${side}”` });

beforeEach(() => sessionStorage.clear()); // what is not saved is kept there

describe('saved audiences', () => {
  it('are built as sentences, found by a word, with who is in them beside', async () => {
    const created = anAudience({ id: id('new'), name: 'Late', exclude: [noor] });
    const page = show([], 'audiences/new', { [`POST courses/${courseId}/audiences`]: created });
    await page.user.type(await screen.findByLabelText('Name of the audience'), 'Late');
    expect(await screen.findByText('No one is in it now')).toBeInTheDocument();
    await page.user.type(await field('In it'), 'evening');
    await page.user.click(await screen.findByRole('option', { name: 'Timetable is evening' }));
    expect(await screen.findByRole('heading', { name: '1 person now' })).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Timetable is evening' })).toHaveTextContent('Bo');
    await waitFor(async () => expect(await field('In it')).toHaveFocus()); // the next one goes there too
    await page.user.type(await field('Except'), 'noor');
    await page.user.click(await screen.findByRole('option', { name: 'Noor' }));
    expect(await screen.findByRole('heading', { name: '1 person removed' })).toBeInTheDocument();
    await page.user.click(screen.getByRole('button', { name: 'Create audience' }));
    expect(await screen.findByText('Late created')).toBeInTheDocument();
    expect(saves(page)).toMatchObject([
      { method: 'POST', body: { name: 'Late', include: [evening], exclude: [noor] } },
    ]);
    expect(page.router.state.location.pathname).toBe(inCourse(`audiences/${created.id}`));
  });

  it('find people by number too, and never offer themselves or what is in already', async () => {
    const other = anAudience({ id: id('other'), name: 'Evening' });
    const page = show([anAudience(), other], `audiences/${id('dairy')}`);
    await page.user.type(await field('In it'), '7001');
    expect(await screen.findByRole('option', { name: 'Bo' })).toBeInTheDocument();
    await page.user.clear(await field('In it'));
    await page.user.type(await field('In it'), 'audience');
    expect((await screen.findAllByRole('option')).map((each) => each.textContent)).toEqual([
      'Audience Evening',
    ]);
    await page.user.clear(await field('In it'));
    await page.user.type(await field('In it'), 'timetable');
    expect(await screen.findByText('Nothing here is called “timetable”.')).toBeInTheDocument();
  });

  it('are saved on what was in view; a conflict is said, and a second press means it', async () => {
    const theirs = anAudience({ name: 'Milk', version: 4 });
    const page = show([anAudience()], `audiences/${id('dairy')}`, {
      [`PUT audiences/${id('dairy')}`]: (body: { version: number }) =>
        body.version === 4
          ? anAudience({ name: 'Cheese', version: 5 })
          : new Refusal(409, 'stale-write', 'This audience was changed meanwhile.', { current: theirs }),
    });
    const name = await screen.findByLabelText('Name of the audience');
    await page.user.clear(name);
    await page.user.type(name, 'Cheese');
    await page.user.click(screen.getByRole('button', { name: 'Save audience' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('changed meanwhile');
    expect(name).toHaveValue('Cheese');
    await page.user.click(screen.getByRole('button', { name: 'Save audience' }));
    expect(await screen.findByText('Cheese saved')).toBeInTheDocument();
    expect(saves(page).map((write) => (write.body as { version: number }).version)).toEqual([3, 4]);
  });

  it('keep what is not saved while another one is looked at, until it is cancelled', async () => {
    const other = anAudience({ id: id('other'), name: 'Evening' });
    const page = show([anAudience(), other], `audiences/${id('dairy')}`);
    await page.user.type(await screen.findByLabelText('Name of the audience'), ' and whey');
    await page.user.click(screen.getByRole('link', { name: /^Evening/ }));
    expect(await screen.findByLabelText('Name of the audience')).toHaveValue('Evening');
    await page.user.click(screen.getByRole('link', { name: /^Dairy/ }));
    expect(await screen.findByLabelText('Name of the audience')).toHaveValue('Dairy and whey');
    await page.user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(screen.getByLabelText('Name of the audience')).toHaveValue('Dairy');
  });

  it('say the way of a circle before anything is saved', async () => {
    const page = show([anAudience()], `audiences/${id('dairy')}`, {
      [`POST courses/${courseId}/audiences/members`]: (asked: WhoIsIn) => ({
        ...members(asked),
        circle: asked.exclude.length > 0 ? ['Dairy', 'Evening', 'Dairy'] : null,
      }),
    });
    await page.user.type(await field('Except'), 'noor');
    await page.user.click(await screen.findByRole('option', { name: 'Noor' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Dairy → Evening → Dairy');
    expect(screen.getByRole('button', { name: 'Save audience' })).toBeDisabled();
  });

  it('are deleted with a way back, and not while something uses them', async () => {
    const dairy = id('dairy');
    const page = show([anAudience()], `audiences/${dairy}`, {
      [`DELETE audiences/${dairy}`]: { done: true },
      [`POST audiences/${dairy}/restore`]: anAudience(),
    });
    await page.user.click(await screen.findByRole('button', { name: 'Delete audience' }));
    expect(await screen.findByText('Dairy deleted')).toBeInTheDocument();
    await page.user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sure(saves(page).at(-1)).path).toBe(`audiences/${dairy}/restore`));
    page.unmount();

    show([anAudience({ usedIn: ['Curd', 'Whey'] })], `audiences/${dairy}`);
    expect(await screen.findByText('Used by Curd and Whey')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Delete audience' })).toBeDisabled();
  });

  it('are read and not changed by assistants', async () => {
    show([anAudience()], `audiences/${id('dairy')}`, {}, 'assistant');
    const lines = await screen.findByRole('list', { name: 'In it' });
    expect(await within(lines).findByText('Timetable is evening')).toBeInTheDocument();
    expect(screen.queryByRole('combobox')).toBeNull();
    expect(screen.queryByRole('button', { name: /audience$/ })).toBeNull();
  });
});
