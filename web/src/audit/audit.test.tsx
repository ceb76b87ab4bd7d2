import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { AuditChoice, AuditLine, AuditTrail } from '@jigsaw/contract/audit';
import { aGroup, anAuthor, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const crock = aGroup('Crock');
const report = { id: id<'activity'>('report'), title: 'Ferment report' };
const aLine = (says: string, more: Partial<AuditLine> = {}): AuditLine => ({
  id: id(says),
  at: '2026-11-10T10:00:00.000Z',
  by: anAuthor('Noor'),
  kind: 'work',
  says,
  times: 1,
  activity: report,
  group: crock,
  people: [],
  way: { path: 'copies/1', label: 'To the work' },
  ...more,
});
const trail = (more: Partial<AuditTrail> = {}): AuditTrail => ({
  lines: [
    aLine('wrote a post of 12 words', { times: 3 }),
    aLine('placed 5 students', { by: anAuthor('Ilse', { isYou: true }), people: ['Ada', 'Ben', 'Cleo', 'Dan'], activity: null }), // prettier-ignore
    aLine('closed at its time', { by: null, group: null, at: '2026-11-09T10:00:00.000Z', way: null }),
  ],
  before: null,
  ...more,
});
const choice: AuditChoice = {
  people: [{ id: id('Noor'), name: 'Noor' }],
  groups: [crock],
  activities: [report],
};
const path = `courses/${courseId}/audit`;
const asked: string[] = [];
function show(answers = {}, role: 'instructor' | 'assistant' = 'instructor') {
  asked.length = 0;
  const answer = (_body: unknown, search: URLSearchParams) => {
    asked.push(search.toString());
    return trail({ before: search.has('before') ? null : id('earlier') });
  };
  return showPage(
    inCourse('audit'),
    { [`GET ${path}`]: answer, [`GET ${path}/choice`]: choice, ...answers },
    role,
  );
}
const said = (day: RegExp) => within(screen.getByRole('region', { name: day })).getAllByRole('listitem').map((line) => line.textContent); // prettier-ignore

describe('the audit trail', () => {
  it('is told by day: who did what, how often, to what and whom, and where it is seen', async () => {
    show();
    await screen.findByRole('region', { name: /10 Nov/ });
    expect(said(/10 Nov/)).toEqual([
      expect.stringMatching(
        /^\d\d:\d\dNoor wrote a post of 12 words 3 times.*CrockFerment reportTo the work$/,
      ),
      expect.stringMatching(/^\d\d:\d\dYou placed 5 students.*CrockAda, Ben, Cleo and 1 moreTo the work$/),
    ]);
    expect(said(/9 Nov/)).toEqual([expect.stringMatching(/^\d\d:\d\dClosed at its timeFerment report$/)]);
    expect(screen.getAllByRole('link', { name: 'To the work' })[0]).toHaveAttribute('href', `/c/${courseId}/copies/1`); // prettier-ignore
  });

  it('is narrowed by kind, person, group and activity, and exported as it is narrowed', async () => {
    const { user } = show();
    for (const [of, name] of [
      ['Kind', 'Marks'],
      ['Person', 'Noor'],
      ['Group', 'Crock'],
      ['Activity', 'Ferment report'],
    ] as const) {
      await user.click(await screen.findByRole('button', { name: new RegExp(of) }));
      await user.click(await screen.findByRole('option', { name }));
    }
    const narrowed = `kind=marks&person=${id('Noor')}&group=${crock.id}&activity=${report.id}`;
    await waitFor(() => expect(asked.at(-1)).toBe(narrowed));
    expect(screen.getByRole('link', { name: 'Export as CSV' })).toHaveAttribute('href', `/api/${path}.csv?${narrowed}`); // prettier-ignore
  });

  it('goes on to earlier acts and back, and begins anew when it is narrowed', async () => {
    const { user } = show();
    await user.click(await screen.findByRole('button', { name: 'Earlier acts' }));
    await waitFor(() => expect(asked.at(-1)).toBe(`before=${id('earlier')}`));
    expect(await screen.findByRole('button', { name: 'Later acts' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Earlier acts' })).toBeNull();
    await user.click(screen.getByRole('button', { name: /Kind/ }));
    await user.click(await screen.findByRole('option', { name: 'Groups' }));
    await waitFor(() => expect(asked.at(-1)).toBe('kind=groups'));
    expect(await screen.findByRole('button', { name: 'Earlier acts' })).toBeInTheDocument();
  });

  it('says what to do where nothing fits, and where the server refuses', async () => {
    const { unmount } = show({ [`GET ${path}`]: trail({ lines: [] }) });
    expect(await screen.findByText('No act is like that')).toBeInTheDocument();
    unmount();
    show({ [`GET ${path}`]: new Refusal(503, 'away', 'The server is away.') });
    expect(await screen.findByText('The server is away.')).toBeInTheDocument();
  });

  it('is for instructors alone', async () => {
    const { unmount } = show({}, 'assistant');
    expect(await screen.findByText('Only instructors see who did what in the course.')).toBeInTheDocument();
    expect(asked).toEqual([]);
    unmount();
  });
});
