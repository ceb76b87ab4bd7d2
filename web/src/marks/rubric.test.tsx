import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { MarkView } from '@jigsaw/contract/marks';
import { sure } from '@jigsaw/core/lists';
import { aHead, aMark, aSavedMark, aPost, aRubric, aTalk, at, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { releaseId, copyId, markPath, aRow, desk } from '../test/onDesk.js';

describe('marking by a rubric', () => {
  const byRubric = (more: Partial<MarkView> = {}) =>
    aMark({
      copy: aHead({ part: 'staff', kind: 'folder', rubric: aRubric }),
      lateDeduction: '0',
      lateMinutes: 0,
      ...more,
    });
  const saved = () => ({
    [`PUT ${markPath}`]: aSavedMark(),
  });

  it('is done from the keyboard: a figure picks and goes on, arrows move, Backspace takes a pick back', async () => {
    const { user, writes } = desk(byRubric(), undefined, saved());
    const grid = await screen.findByRole('grid', { name: 'Rubric' });
    within(grid)
      .getByRole('gridcell', { name: /^Method: Thin/ })
      .focus();
    await user.keyboard('3');
    expect(within(grid).getByRole('gridcell', { name: /^Method: Sound/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    expect(within(grid).getByRole('gridcell', { name: /^Writing: Sound/ })).toHaveFocus();
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
    await user.keyboard('{ArrowRight}{Enter}');
    expect(within(grid).getByRole('gridcell', { name: /^Writing: Strong/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    expect(screen.getAllByText('35').length).toBeGreaterThan(0); // 40 · (3/4 + 8/8) / 2
    await user.type(screen.getByLabelText('On Writing, shown to the student'), 'Clear.');
    await waitFor(
      () =>
        expect((writes().at(-1)?.body as { picks: object } | undefined)?.picks).toEqual({
          method: { points: '3', comment: '' },
          writing: { points: '8', comment: 'Clear.' },
        }),
      { timeout: 3000 },
    );
    within(grid)
      .getByRole('gridcell', { name: /^Writing: Strong/ })
      .focus();
    await user.keyboard('{Backspace}');
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
    expect(
      screen.getByText('Pick a level for every criterion, or give the mark yourself and say why.'),
    ).toBeInTheDocument();
  });

  it('takes points between two levels, and no more than there are', async () => {
    const { user } = desk(byRubric(), undefined, saved());
    const points = await screen.findByLabelText('Points for Writing, of 8');
    await user.type(points, '5,5');
    expect(screen.getByRole('gridcell', { name: /^Writing: Sound/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await user.type(screen.getByLabelText('Points for Method, of 4'), '9');
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
  });

  it('puts another mark in its place with a reason, and goes back to the rubric’s', async () => {
    const picks = { method: { points: '3', comment: '' }, writing: { points: '8', comment: '' } };
    const { user, writes } = desk(
      byRubric({ picks, groupMark: '35', version: 1, state: 'drafted' }),
      undefined,
      saved(),
    );
    await user.click(await screen.findByRole('button', { name: /Give a different mark/ }));
    await user.type(screen.getByLabelText('Mark instead of the rubric’s'), '38');
    await user.type(screen.getByLabelText('Reason, shown to students'), 'A second trial');
    await waitFor(
      () =>
        expect(writes().at(-1)?.body).toMatchObject({ typedMark: '38', overrideReason: 'A second trial' }),
      { timeout: 3000 },
    );
    await user.click(screen.getByRole('button', { name: 'Use the rubric’s mark' }));
    await waitFor(
      () => expect(writes().at(-1)?.body).toMatchObject({ typedMark: null, overrideReason: '' }),
      { timeout: 3000 },
    );
  });
});

describe('marking each student of a talk', () => {
  const unit = id<'enrolment'>('Noor');
  const path = `copies/${copyId}/marks/${unit}`;

  it('shows what they wrote, what is proposed, and whose mark it is', async () => {
    const jorge = aPost('Jorge', 'Nose of walnut');
    const noor = aPost('Noor', 'Mine was toast', { parentId: jorge.id });
    const row = aRow({ unit, student: { name: 'Noor', reading: null } });
    const { user, writes } = showPage(inCourse(`marks/${releaseId}/${copyId}/${unit}`), {
      [`GET courses/${courseId}/desk`]: { activities: [] },
      [`GET releases/${releaseId}/desk`]: {
        releaseId,
        kind: 'discussion',
        title: 'Critique',
        points: '10',
        due: at,
        markFor: 'student',
        isWithdrawn: false,
        rows: [
          row,
          aRow({ unit: id('Jorge'), student: { name: 'Jorge', reading: null }, work: null, needsYou: false }),
        ],
      },
      [`GET ${path}`]: aMark({
        copy: aHead({ part: 'staff', kind: 'discussion' }),
        points: '10',
        unit,
        lateDeduction: '0',
        lateMinutes: 0,
        suggestion: { mark: '8', why: '1 of 1 post' },
        members: [{ ...sure(aMark().members[0]) }],
      }),
      [`GET copies/${copyId}/discussion`]: aTalk([[jorge, noor]]),
      [`PUT ${path}`]: aSavedMark({ groupMark: '8' }),
    });
    const queue = await screen.findByRole('navigation', { name: 'Students to mark' });
    expect(within(queue).getByRole('link', { name: /Jorge/ })).toHaveTextContent('Nothing written');
    const work = await screen.findByRole('region', { name: 'Noor’s work' });
    expect(await within(work).findByText('Mine was toast')).toBeInTheDocument();
    expect(within(work).queryByRole('heading', { name: 'Jorge' })).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Use 8' }));
    await waitFor(() => expect(writes().at(-1)?.body).toMatchObject({ typedMark: '8' }), { timeout: 3000 });
    expect(screen.getByRole('button', { name: 'Release to Noor' })).toBeInTheDocument();
  });
});
