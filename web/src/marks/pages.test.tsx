import { describe, expect, it } from '@jest/globals';
import type { MarkView } from '@jigsaw/contract/marks';
import { act, screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { api } from '../api/index.js';
import { aMark, aSavedMark, aMember, aPart, at, aWork, courseId, id } from '../test/data.js';
import { inCourse, Refusal } from '../test/showPage.js';
import { releaseId, copyId, markPath, aRow, carboy, desk } from '../test/onDesk.js';

describe('the Marking desk', () => {
  it('lists the groups with what there is to do', async () => {
    desk(aMark());
    const queue = await screen.findByRole('navigation', { name: 'Groups to mark' });
    expect(within(queue).getByRole('link', { name: /Crock/ })).toHaveTextContent('To mark, late 2 h 40 min');
    expect(within(queue).getByRole('link', { name: /Carboy/ })).toHaveTextContent('Not handed in');
    expect(within(queue).getByText('1 to mark')).toBeInTheDocument();
  });

  it('shows another activity’s work when another one is chosen, never the last one’s under its name', async () => {
    const other = id<'release'>('other');
    const otherCopy = id<'copy'>('other copy');
    const entry = {
      activityId: id('report'),
      kind: 'assignment',
      points: '40',
      toMark: 1,
      unitCount: 2,
      markFor: 'group',
    };
    const { user, router } = desk(aMark(), undefined, {
      [`GET courses/${courseId}/desk`]: {
        activities: [
          { ...entry, releaseId, title: 'Ferment report' },
          { ...entry, releaseId: other, title: 'Salt trial' },
        ],
      },
      [`GET releases/${other}/desk`]: async () => {
        await new Promise((resolve) => setTimeout(resolve, 50));
        return {
          releaseId: other,
          kind: 'assignment',
          title: 'Salt trial',
          points: '40',
          due: at,
          markFor: 'group',
          isWithdrawn: false,
          rows: [aRow({ copyId: otherCopy })],
        };
      },
      [`GET copies/${otherCopy}/marks/group`]: aMark(),
    });
    await screen.findByRole('navigation', { name: 'Groups to mark' });
    await user.click(await screen.findByRole('button', { name: /Activity/ }));
    const seen: string[] = [];
    router.subscribe(({ location }) => void seen.push(location.pathname));
    await user.click(await screen.findByRole('option', { name: 'Salt trial' }));
    await waitFor(() =>
      expect(router.state.location.pathname).toBe(inCourse(`marks/${other}/${otherCopy}/group`)),
    );
    expect(seen).not.toContain(inCourse(`marks/${other}/${copyId}/group`));
  });

  it('shows the sum while the mark is typed, and saves it as it is typed', async () => {
    const { user, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: aSavedMark({ groupMark: '31.5' }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31,5');
    const members = screen.getByRole('region', { name: 'Members and their marks' });
    expect(within(members).getAllByText('29.5')).toHaveLength(2);
    await waitFor(() => expect(writes().length).toBeGreaterThan(0), { timeout: 3000 });
    expect(writes().at(-1)).toEqual({
      method: 'PUT',
      path: markPath,
      body: { typedMark: '31.5', overrideReason: '', picks: {}, feedback: '', adjustments: [], version: 0 },
    });
  });

  it('does not save a mark that is no mark, and keeps what was typed', async () => {
    const { user, writes } = desk(aMark());
    const field = await screen.findByLabelText('Group mark');
    await user.type(field, '41');
    expect(await screen.findByText('From 0 to 40.')).toBeInTheDocument();
    await user.type(field, 'x');
    expect(await screen.findByText('Write a number, like 31.5.')).toBeInTheDocument();
    expect(field).toHaveValue('41x');
    expect(screen.getByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
    expect(writes().every((write) => (write.body as { typedMark: string }).typedMark !== '41')).toBe(true);
  });

  it('cannot release what has no mark, and says so', async () => {
    desk(aMark());
    expect(await screen.findByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
    expect(screen.getByText('Give the group a mark, or each member a separate one.')).toBeInTheDocument();
  });

  it('releases what is saved and offers to recall it', async () => {
    const drafted = aMark({ state: 'drafted', typedMark: '31.5', version: 2 });
    const { user, writes } = desk(drafted, undefined, {
      [`POST ${markPath}/release`]: aSavedMark({ state: 'released', version: 2 }),
      [`POST ${markPath}/recall`]: aSavedMark({ version: 2 }),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    await user.click(await screen.findByRole('button', { name: 'Recall it' }));
    await waitFor(() =>
      expect(writes().map((write) => write.path)).toEqual([`${markPath}/release`, `${markPath}/recall`]),
    );
    expect(sure(writes()[0]).body).toEqual({ version: 2 });
  });

  it('releases what is on the screen: another version is shown beside it and not released', async () => {
    const theirs = aMark({ state: 'drafted', typedMark: '9.5', version: 3, changedBy: 'Tomas Vey' });
    const { user, writes, set } = desk(aMark({ state: 'drafted', typedMark: '40', version: 2 }), undefined, {
      [`POST ${markPath}/release`]: new Refusal(409, 'stale-write', 'This mark was changed meanwhile.', {
        current: theirs,
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByText(/they gave 9.5, you 40/)).toBeInTheDocument();
    expect(writes().map((write) => write.body)).toEqual([{ version: 2 }]);
    expect(screen.getAllByRole('alert')).toHaveLength(1); // told once
    expect(screen.getByLabelText('Group mark')).toHaveValue('40');
    set(`GET ${markPath}`, theirs);
    await user.click(screen.getByRole('button', { name: 'Use theirs' }));
    await waitFor(() => expect(screen.getByLabelText('Group mark')).toHaveValue('9.5'));
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
  });

  it('follows what another marker does while nothing is written here, and names them', async () => {
    const { set, store } = desk(aMark({ state: 'drafted', typedMark: '40', version: 2 }));
    const field = await screen.findByLabelText('Group mark');
    set(`GET ${markPath}`, aMark({ state: 'drafted', typedMark: '9.5', version: 3, changedBy: 'Tomas Vey' }));
    act(() => void store.dispatch(api.util.invalidateTags(['Mark'])));
    await waitFor(() => expect(field).toHaveValue('9.5'));
    expect(
      (await screen.findAllByText('Tomas Vey marked this meanwhile. This is how it is now.')).length,
    ).toBeGreaterThan(0);
  });

  it('releases nothing while what was typed is not saved', async () => {
    const { user, writes } = desk(aMark({ state: 'drafted', typedMark: '31.5', version: 2 }), undefined, {
      [`PUT ${markPath}`]: new Refusal(503, 'unexpected', 'It could not be saved.'),
      [`POST ${markPath}/release`]: aSavedMark({ state: 'released' }),
    });
    const field = await screen.findByLabelText('Group mark');
    await user.clear(field);
    await user.type(field, '33');
    await user.click(screen.getByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByText('It could not be saved.')).toBeInTheDocument();
    expect(new Set(writes().map((write) => write.path))).toEqual(new Set([markPath])); // and no release
    expect(field).toHaveValue('33');
  });

  it('keeps one’s own mark over another’s, on top of what they saved', async () => {
    const theirs = aMark({ state: 'drafted', typedMark: '20', version: 4 });
    const { user, set, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this group meanwhile.', {
        current: theirs,
      }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31');
    await screen.findByText(/they gave 20, you 31/, {}, { timeout: 4000 });
    let answer: (mark: MarkView) => void = () => undefined;
    set(`GET ${markPath}`, () => new Promise((resolve) => (answer = resolve)));
    set(`PUT ${markPath}`, aSavedMark({ version: 5 }));
    await user.click(screen.getByRole('button', { name: 'Keep mine' }));
    await user.type(screen.getByLabelText('Group mark'), '.5'); // while theirs is on its way
    answer(theirs);
    await waitFor(() => expect(screen.queryByText(/they gave 20/)).not.toBeInTheDocument());
    expect(sure(writes().at(-1)).body).toMatchObject({ typedMark: '31.5', version: 4 });
    expect(screen.getByLabelText('Group mark')).toHaveValue('31.5');
  });

  it('puts what two markers changed together, and asks only about what both changed', async () => {
    const theirs = aMark({
      state: 'drafted',
      typedMark: '20',
      feedback: 'Theirs.',
      version: 4,
      changedBy: 'Tomas Vey',
    });
    const { user, set, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this.', { current: theirs }),
      [`GET ${markPath}`]: aMark(),
    });
    const feedback = await screen.findByLabelText(/^(What|Feedback|Said|For all)/);
    set(`GET ${markPath}`, theirs);
    await user.type(feedback, 'Mine.');
    expect(
      await screen.findByText(
        /Tomas Vey marked this meanwhile: Feedback: theirs is “Theirs.”/,
        {},
        { timeout: 4000 },
      ),
    ).toBeInTheDocument();
    set(`PUT ${markPath}`, aSavedMark({ version: 5 }));
    await user.click(screen.getByRole('button', { name: 'Keep mine' }));
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toMatchObject({ typedMark: '20', feedback: 'Mine.', version: 4 }),
    );
  });

  it('does not ask where two markers changed different things', async () => {
    const theirs = aMark({ state: 'drafted', feedback: 'Theirs.', version: 4 });
    const { user, set, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: ({ version }: { version: number }) =>
        version === 4
          ? aSavedMark({ version: 5 })
          : new Refusal(409, 'stale-write', 'Someone else marked this.', { current: theirs }),
    });
    const field = await screen.findByLabelText('Group mark');
    set(`GET ${markPath}`, theirs);
    await user.type(field, '31');
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toMatchObject({ typedMark: '31', feedback: 'Theirs.', version: 4 }),
    );
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
  });

  it('keeps what is typed while the server is away, in this tab, and saves it by itself once it is back', async () => {
    const away = new Refusal(503, 'unexpected', 'It could not be saved.');
    const first = desk(aMark(), undefined, { [`PUT ${markPath}`]: away });
    await first.user.type(await screen.findByLabelText('Group mark'), '33');
    await screen.findByText('It could not be saved.', {}, { timeout: 4000 });
    const tried = first.writes().length;
    first.unmount();
    await waitFor(() => expect(first.writes().length).toBeGreaterThan(tried)); // again, on leaving
    const again = desk(aMark(), undefined, { [`PUT ${markPath}`]: aSavedMark({ version: 1 }) });
    expect(await screen.findByLabelText('Group mark')).toHaveValue('33');
    await waitFor(() =>
      expect(sure(again.writes().at(-1)).body).toMatchObject({ typedMark: '33', version: 0 }),
    );
    await waitFor(() =>
      expect(Object.keys(sessionStorage).filter((key) => key.startsWith('unsaved'))).toEqual([]),
    );
  });

  it('releases what is ready with one press after a check, and leaves what is not complete', async () => {
    const drafted = aRow({ mark: { state: 'drafted', groupMark: '30' } });
    const other = { ...carboy, mark: { state: 'drafted' as const, groupMark: '20' } };
    const of = (name: string, lacks: string | null = null) => ({
      copyId: id('copy'),
      unit: 'group',
      version: 2,
      who: { name, reading: null },
      mark: '30',
      students: 2,
      isChange: false,
      lacks,
    });
    const { user, writes } = desk(aMark(), [drafted, other], {
      [`GET releases/${releaseId}/marks/ready`]: {
        toRelease: [of('Crock'), { ...of('Carboy', 'Say why Amina differs.'), copyId: id('carboy') }],
        toTake: [],
      },
      [`POST releases/${releaseId}/marks/release`]: { units: 1, students: 2 },
      [`POST releases/${releaseId}/marks/recall`]: { units: 1, students: 2 },
    });
    await user.click(await screen.findByRole('button', { name: 'Release ready marks…' }));
    const check = await screen.findByRole('dialog', { name: 'Release ready marks' });
    expect(await within(check).findByText('Say why Amina differs.')).toBeInTheDocument();
    expect(within(check).getByText('1 incomplete mark not released')).toBeInTheDocument();
    await user.click(within(check).getByRole('button', { name: 'Release to 2 students' }));
    await user.click(await screen.findByRole('button', { name: 'Recall them' }));
    const units = [{ copyId: id('copy'), unit: 'group', version: 2 }];
    await waitFor(() => expect(writes().map((write) => write.body)).toEqual([{ units }, { units }]));
  });

  it('takes all suggested marks as drafts with one press', async () => {
    const { user, writes } = desk(aMark(), [aRow({ suggested: '8' })], {
      [`GET releases/${releaseId}/marks/ready`]: {
        toRelease: [],
        toTake: [
          {
            copyId: id('copy'),
            unit: 'group',
            version: 0,
            who: { name: 'Crock', reading: null },
            mark: '8',
            students: 2,
            isChange: false,
            lacks: null,
          },
        ],
      },
      [`POST releases/${releaseId}/marks/take-suggested`]: { units: 1, students: 2 },
    });
    await user.click(await screen.findByRole('button', { name: 'Accept 1 suggested mark…' }));
    await user.click(await screen.findByRole('button', { name: 'Accept 1 mark' }));
    expect(await screen.findByText('1 suggested mark accepted as drafts')).toBeInTheDocument();
    expect(sure(writes()[0]).body).toEqual({ units: [{ copyId: id('copy'), unit: 'group', version: 0 }] });
  });

  it('names the missing reason in the server’s words', async () => {
    const drafted = aMark({ state: 'drafted', typedMark: '31.5', version: 2 });
    const { user } = desk(drafted, undefined, {
      [`POST ${markPath}/release`]: new Refusal(422, 'invalid-input', "Say why Jorge's mark differs."),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByRole('alert')).toHaveTextContent("Say why Jorge's mark differs.");
  });

  it('shows both marks when two people marked at once, and lets one choose', async () => {
    const theirs = aMark({ state: 'drafted', typedMark: '20', version: 1 });
    const { user, set } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this group meanwhile.', {
        current: theirs,
      }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31');
    const strip = await screen.findByText(/they gave 20, you 31/, {}, { timeout: 4000 });
    set(`GET ${markPath}`, theirs);
    await user.click(
      within(sure(strip.closest<HTMLElement>('[role=alert]'))).getByRole('button', { name: 'Use theirs' }),
    );
    await waitFor(() => expect(screen.getByLabelText('Group mark')).toHaveValue('20'));
  });

  it('warns of new work since the mark, and of marking before it is due', async () => {
    desk(aMark({ state: 'drafted', typedMark: '30', version: 1, isStale: true, beforeDue: true }));
    expect(await screen.findByText(/New work came in after this mark/)).toBeInTheDocument();
    expect(screen.getByText(/not due yet/)).toBeInTheDocument();
  });

  it('says that students see the earlier mark while a later one is a draft', async () => {
    const changes = [{ member: aMember('Noor'), says: '30 of 40 → 35 of 40' }];
    desk(aMark({ state: 'changed', typedMark: '35', version: 4, releasedAt: at, changes }));
    expect(await screen.findByText(/students see the earlier mark/)).toBeInTheDocument();
    expect(screen.getByRole('list', { name: 'Changed since release' })).toHaveTextContent(
      'Noor: 30 of 40 → 35 of 40',
    );
    expect(screen.getByRole('button', { name: 'Release changes to 1 student' })).toBeEnabled();
    expect(screen.getByRole('button', { name: 'Recall from 2 students' })).toBeInTheDocument();
  });

  it('shows the history, and what a group that has not handed in has so far', async () => {
    desk(aMark({ history: [{ at, by: 'Tomas Vey', what: 'Group mark none → 30' }] }), undefined, {
      [`GET copies/${copyId}/work`]: aWork({ parts: [aPart(aMember('Jorge'), 'So far so good')] }),
    });
    expect(await screen.findByText('Crock has not handed in')).toBeInTheDocument();
    expect(screen.getByText(/Tomas Vey: Group mark none → 30/)).toBeInTheDocument();
  });

  it('lets observers look and not mark', async () => {
    desk(aMark(), undefined, {}, 'observer');
    expect(await screen.findByLabelText('Group mark')).toBeDisabled();
    expect(screen.queryByRole('button', { name: /Release to/ })).not.toBeInTheDocument();
  });
});
