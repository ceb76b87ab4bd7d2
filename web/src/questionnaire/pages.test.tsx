import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { CopyAnswers, Question, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import { activityId, composer } from '../test/composer.js';
import { aHead, anActivity, at, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const copyId = id<'copy'>('copy');
const undated = { opens: null, due: null, closes: null };
const questions: Question[] = [
  { id: id('brine'), kind: 'choice', text: 'Which brine?', isRequired: true, isSeveral: false, options: [{ id: id('weak'), text: 'Weak' }, { id: id('strong'), text: 'Strong' }] }, // prettier-ignore
  { id: id('sour'), kind: 'scale', text: 'How sour?', isRequired: false, steps: 5, low: 'mild', high: 'sharp' }, // prettier-ignore
  { id: id('why'), kind: 'long', text: 'Why?', isRequired: false },
];
const head = (more: object = {}, settings: object = {}) =>
  aHead({ kind: 'questionnaire', title: 'Brine poll', points: null, schedule: undated, settings: { isAnonymous: false, questions, ...settings }, ...more }); // prettier-ignore
const none: QuestionnaireView = { mine: null, hasAnswered: false, mayAnswer: true, results: null };
const ofStudent = (view: QuestionnaireView, more: Record<string, unknown> = {}, settings: object = {}) =>
  showPage(
    inCourse(`copies/${copyId}`),
    { [`GET copies/${copyId}`]: head({}, settings), [`GET copies/${copyId}/answers`]: view, ...more },
    'student',
  );

describe('a questionnaire, to a student', () => {
  it('sends what was answered, once what has to be answered is', async () => {
    let now = none;
    const { user, asked } = ofStudent(none, {
      [`GET copies/${copyId}/answers`]: () => now,
      [`PUT copies/${copyId}/answers`]: ({ answers }: { answers: object }) =>
        (now = { ...none, hasAnswered: true, mine: { answers: answers as never, version: 1, at: at } }), // prettier-ignore
    });
    const send = await screen.findByRole('button', { name: 'Send answers' });
    await user.click(screen.getByRole('radio', { name: '4' }));
    await user.click(send);
    const first = within(screen.getByRole('group', { name: /Which brine/ }));
    expect(first.getByText('Answer this question.')).toBeInTheDocument();
    expect(first.getByRole('radio', { name: 'Weak' })).toHaveFocus();
    expect(asked.some(({ method }) => method === 'PUT')).toBe(false);
    await user.click(first.getByRole('radio', { name: 'Strong' }));
    await user.type(screen.getByRole('textbox', { name: 'Why?' }), 'It keeps');
    await user.click(send);
    expect(await screen.findByText(/^You answered/)).toBeInTheDocument();
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
      answers: { [id('brine')]: [id('strong')], [id('sour')]: 4, [id('why')]: 'It keeps' },
      version: 0,
      isAnonymous: false,
    });
    expect(screen.getByRole('button', { name: 'Send changed answers' })).toBeDisabled();
  });

  it('keeps what was typed over a reload, and lets what was chosen by mistake be cleared', async () => {
    const { user, unmount } = ofStudent(none);
    await user.type(await screen.findByRole('textbox', { name: 'Why?' }), 'Half of it');
    await user.click(screen.getByRole('radio', { name: '2' }));
    await user.click(screen.getByRole('button', { name: 'Clear question 2' }));
    unmount();
    ofStudent(none);
    expect(await screen.findByRole('textbox', { name: 'Why?' })).toHaveValue('Half of it');
    expect(screen.getByRole('radio', { name: '2' })).not.toBeChecked();
    sessionStorage.clear();
  });

  it('keeps what was typed when other answers were sent meanwhile, and can show those', async () => {
    const sent: QuestionnaireView = { ...none, hasAnswered: true, mine: { answers: { [id('brine')]: [id('weak')] }, version: 1, at: at } }; // prettier-ignore
    let now = none;
    const { user } = ofStudent(none, {
      [`GET copies/${copyId}/answers`]: () => now,
      [`PUT copies/${copyId}/answers`]: () => {
        now = sent;
        return new Refusal(409, 'stale-write', 'You sent other answers meanwhile, from another page.', { current: sent }); // prettier-ignore
      },
    });
    await user.click(await screen.findByRole('radio', { name: 'Strong' }));
    await user.click(screen.getByRole('button', { name: 'Send answers' }));
    expect(await screen.findByText(/You sent other answers meanwhile/)).toBeInTheDocument();
    expect(await screen.findByRole('button', { name: 'Send changed answers' })).toBeEnabled();
    expect(screen.getByRole('radio', { name: 'Strong' })).toBeChecked();
    await user.click(screen.getByRole('button', { name: 'Discard changes' }));
    expect(screen.getByRole('radio', { name: 'Weak' })).toBeChecked();
  });

  it('keeps all of a text that is too long, and says so at once', async () => {
    const { user } = ofStudent(none);
    const field = await screen.findByRole('textbox', { name: 'Why?' });
    await user.click(field);
    await user.paste('x'.repeat(20_001));
    expect(field).toHaveProperty('value.length', 20_001);
    expect(screen.getByText('Shorten this to 20,000 characters.')).toBeInTheDocument();
    sessionStorage.clear();
  });

  it('is not sent by Enter, which many press at the end of a line', async () => {
    const short: Question = { id: id('word'), kind: 'short', text: 'One word', isRequired: false };
    const { user, asked } = ofStudent(none, {}, { isAnonymous: true, questions: [short] });
    await user.type(await screen.findByRole('textbox', { name: 'One word' }), 'Salt{Enter}');
    expect(asked.some(({ method }) => method === 'PUT')).toBe(false);
    sessionStorage.clear();
  });

  it('is not stuck with a choice that was removed while it was open', async () => {
    const several: Question = { id: id('brine'), kind: 'choice', text: 'Which brine?', isRequired: true, isSeveral: true, options: [{ id: id('weak'), text: 'Weak' }] }; // prettier-ignore
    sessionStorage.setItem(`draft answers ${copyId}`, JSON.stringify({ [several.id]: [id('strong')] }));
    const { user, asked } = ofStudent(none, { [`PUT copies/${copyId}/answers`]: none }, { questions: [several] }); // prettier-ignore
    await user.click(await screen.findByRole('checkbox', { name: 'Weak' }));
    await user.click(screen.getByRole('button', { name: 'Send answers' }));
    await waitFor(() => expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({ answers: { [several.id]: [id('weak')] } })); // prettier-ignore
  });

  it('says before that anonymous answers are final, and after that they are among the others', async () => {
    const { user, unmount } = ofStudent(none, {}, { isAnonymous: true });
    expect(await screen.findByText(/no one can tell which are yours/)).toBeInTheDocument();
    await user.type(screen.getByRole('textbox', { name: 'Why?' }), 'In another tab');
    unmount();
    ofStudent({ ...none, hasAnswered: true }, {}, { isAnonymous: true });
    expect(await screen.findByText('You have answered. Thank you.')).toBeInTheDocument();
    await waitFor(() => expect(JSON.stringify(sessionStorage)).not.toContain('In another tab'));
    expect(screen.queryByRole('button', { name: /Send/ })).not.toBeInTheDocument();
  });

  it('that is closed shows one’s own answers, and takes no more', async () => {
    ofStudent({ mine: { answers: { [id('sour')]: 3 }, version: 1, at: at }, hasAnswered: true, mayAnswer: false, results: null }); // prettier-ignore
    expect(await screen.findByRole('radio', { name: '3' })).toBeChecked();
    expect(screen.getByRole('radio', { name: '4' })).toBeDisabled();
    expect(screen.queryByRole('button', { name: /Send/ })).not.toBeInTheDocument();
  });
});

describe('a questionnaire, to staff', () => {
  const results = (more: Partial<CopyAnswers> = {}): CopyAnswers => ({
    copyId,
    group: null,
    members: 4,
    answered: 2,
    waiting: [{ name: 'Kofi', reading: null }],
    isHeldBack: false,
    sheets: [
      { by: { name: 'Amina', reading: null }, answers: { [id('brine')]: [id('weak')], [id('sour')]: 5, [id('why')]: 'It keeps' } }, // prettier-ignore
      { by: { name: 'Noor', reading: null }, answers: { [id('brine')]: [id('weak')] } },
    ],
    ...more,
  });
  const ofStaff = (result: CopyAnswers, settings: object = {}) =>
    showPage(inCourse(`copies/${copyId}`), {
      [`GET copies/${copyId}`]: head({ part: 'staff' }, settings),
      [`GET copies/${copyId}/answers`]: { ...none, mayAnswer: false, results: result },
    });

  it('counts the answers, and says who answered what and who has not', async () => {
    const { user } = ofStaff(results());
    expect(await screen.findByText('2 of 4 have answered.')).toBeInTheDocument();
    expect(screen.getByText('Waiting for Kofi.')).toBeInTheDocument();
    const choice = within(screen.getByRole('region', { name: 'Question 1' }));
    expect(choice.getByText('2 · 100%')).toBeInTheDocument();
    expect(choice.getByText('0 · 0%')).toBeInTheDocument();
    await user.click(choice.getByText('Who answered what'));
    expect(choice.getByText('Amina')).toBeInTheDocument();
    expect(within(screen.getByRole('region', { name: 'Question 2' })).getByText('1 of 2 answer sheets, in the middle: 5')).toBeInTheDocument(); // prettier-ignore
    expect(within(screen.getByRole('region', { name: 'Question 3' })).getByText('It keeps')).toBeInTheDocument(); // prettier-ignore
    expect(screen.getByRole('link', { name: /CSV/ })).toHaveAttribute('href', expect.stringMatching(/answers\.csv$/)); // prettier-ignore
  });

  it('of hundreds who answered shows some at a time', async () => {
    const [sheet] = results().sheets;
    const { user } = ofStaff(results({ sheets: Array.from({ length: 100 }, () => sheet as never) }));
    const texts = within(await screen.findByRole('region', { name: 'Question 3' }));
    expect(texts.getAllByRole('listitem')).toHaveLength(40);
    await user.click(texts.getByRole('button', { name: 'Show 40 more of 60' }));
    await user.click(texts.getByRole('button', { name: 'Show 20 more of 20' }));
    expect(texts.getAllByRole('listitem')).toHaveLength(100);
    expect(texts.queryByRole('button')).not.toBeInTheDocument();
  });

  it('says why answers are held back, and names no one where it is anonymous', async () => {
    const { unmount } = ofStaff(results({ isHeldBack: true, sheets: [], waiting: null }), {
      isAnonymous: true,
    });
    expect(await screen.findByText(/Answers are shown once 3 have answered/)).toBeInTheDocument();
    expect(screen.queryByText(/Waiting for/)).not.toBeInTheDocument();
    unmount();
    ofStaff(results({ waiting: null, sheets: results().sheets.map((sheet) => ({ ...sheet, by: null })) }), { isAnonymous: true }); // prettier-ignore
    expect(await screen.findByText('It keeps')).toBeInTheDocument();
    expect(screen.queryByText('Who answered what')).not.toBeInTheDocument();
  });
});

describe('a questionnaire in the composer', () => {
  it('is written question by question, in an order, and shown as it will be answered', async () => {
    const activity = anActivity({ kind: 'questionnaire', title: 'Brine poll', points: null, schedule: undated, settings: { isAnonymous: false, questions: [] } }); // prettier-ignore
    let now: object = activity;
    const { user, writes } = composer(activity, {
      [`GET activities/${activityId}`]: () => now,
      [`PUT activities/${activityId}`]: (body: object) =>
        (now = { ...activity, ...body, version: activity.version + 1 }),
    });
    expect(await screen.findByText('Add a question.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /^Release/ })).toBeDisabled();
    expect(screen.queryByRole('heading', { name: 'Marking' })).not.toBeInTheDocument();
    await user.click(await screen.findByRole('button', { name: 'Choice' }));
    const first = within(await screen.findByRole('listitem', { name: 'Question 1' }));
    await waitFor(() => expect(first.getByRole('textbox', { name: 'Question' })).toHaveFocus());
    await user.keyboard('Which brine?');
    await user.type(first.getByRole('textbox', { name: 'Choice 1' }), 'Weak');
    await user.type(first.getByRole('textbox', { name: 'Choice 2' }), 'Strong');
    await user.click(screen.getByRole('button', { name: 'Scale' }));
    const second = within(await screen.findByRole('listitem', { name: 'Question 2' }));
    await user.type(second.getByRole('textbox', { name: 'Question' }), 'How sour?');
    await user.click(screen.getByRole('button', { name: 'Move question 2 up' }));
    await user.click(screen.getByRole('button', { name: 'Remove question 1' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    const preview = within(screen.getByRole('complementary', { name: 'What a group will see' }));
    expect(preview.getAllByRole('group').map((group) => group.textContent)).toEqual([
      expect.stringContaining('1. How sour?'),
      expect.stringContaining('2. Which brine?'),
    ]);
    await waitFor(() => {
      const { settings } = writes().at(-1)?.body as { settings: { questions: Question[] } };
      expect(settings.questions.map(({ kind, text }) => [kind, text])).toEqual([
        ['scale', 'How sour?'],
        ['choice', 'Which brine?'],
      ]);
    });
  });
});
