import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Answers, Asks, ChoiceQuestion, Question, ScaleQuestion } from './index.js';
import {
  faultsOf,
  isHeldBack,
  leastAnonymous,
  longestShort,
  onlyAnswered,
  questionnaireFacts,
  sayAnswer,
  tally,
  whyNotChanged,
} from './index.js';

const choice = (more: Partial<ChoiceQuestion> = {}): ChoiceQuestion => ({
  id: 'c',
  kind: 'choice',
  text: 'Which brine?',
  isRequired: true,
  options: [
    { id: 'weak', text: 'Weak' },
    { id: 'strong', text: 'Strong' },
  ],
  isSeveral: false,
  ...more,
});
const scale: ScaleQuestion = { id: 's', kind: 'scale', text: 'How sour?', isRequired: false, steps: 5, low: 'Mild', high: 'Sharp' }; // prettier-ignore
const short: Question = { id: 't', kind: 'short', text: 'One word?', isRequired: false };
const long: Question = { id: 'l', kind: 'long', text: 'Why?', isRequired: false };
const asks = (questions: readonly Question[], isAnonymous = false): Asks => ({ isAnonymous, questions });

describe('a questionnaire', () => {
  it.each([
    ['without a question', [], 'Add a question.'],
    ['with an empty question', [scale, choice({ text: '  ' })], 'Write question 2.'],
    ['with one choice', [choice({ options: [{ id: 'weak', text: 'Weak' }] })], 'Give question 1 at least two choices.'],
    ['with an empty choice', [choice({ options: [...choice().options, { id: 'x', text: ' ' }] })], 'Write or remove the empty choice of question 1.'],
    ['that is whole', [choice(), scale, short, long], null],
  ] as const)('%s', (_, questions, why) => expect(questionnaireFacts.notReady?.(asks(questions))).toBe(why)); // prettier-ignore

  const before = asks([choice(), scale, short]);
  it.each([
    ['with other words and more of everything', asks([long, short, { ...scale, text: 'How sour now?' }, choice({ isSeveral: true, options: [{ id: 'none', text: 'None' }, ...choice().options] })]), null],
    ['without a question', asks([choice(), scale]), 'question 3 stays.'],
    ['with one of another kind', asks([choice(), scale, { ...short, kind: 'long' }]), 'question 3 stays of its kind.'],
    ['without a choice', asks([choice({ options: choice().options.slice(1) }), scale, short]), 'question 1 keeps its choices.'],
    ['with other steps', asks([choice(), { ...scale, steps: 7 }, short]), 'question 2 keeps its 5 steps.'],
    ['anonymous', asks([choice(), scale, short], true), 'it stays with names.'],
  ] as const)('that was answered cannot lose what was answered: %s', (_, after, why) => {
    const refusal = whyNotChanged(before, after);
    if (why === null) expect(refusal).toBeNull();
    else expect(refusal).toContain(`People have answered already, so ${why}`);
  }); // prettier-ignore

  it('of several choices keeps them; anonymous stays anonymous', () => {
    expect(whyNotChanged(asks([choice({ isSeveral: true })]), asks([choice()]))).toContain('keeps several choices');
    expect(whyNotChanged(asks([scale], true), asks([scale]))).toContain('so it stays anonymous.');
  }); // prettier-ignore
});

describe('answers', () => {
  const questions = [choice(), scale, short, long];
  it.each<[string, Answers, Record<string, string>]>([
    ['all there', { c: ['weak'], s: 5, t: 'salt', l: 'It is.' }, {}],
    ['only what is asked for', { c: ['strong'] }, {}],
    ['none', {}, { c: 'Answer this question.' }],
    ['a choice of nothing, a blank text', { c: [], t: '  ' }, { c: 'Answer this question.' }],
    ['two where one is asked for', { c: ['weak', 'strong'] }, { c: 'Choose one.' }],
    ['what is not in the list', { c: ['sweet'] }, { c: 'Choose from the list.' }],
    ['the wrong shape', { c: 'weak', s: '3', t: 4 }, { c: 'Choose from the list.', s: 'Choose a step.', t: 'Write an answer.' }],
    ['steps that there are not', { c: ['weak'], s: 6 }, { s: 'Choose a step.' }],
    ['half a step', { c: ['weak'], s: 2.5 }, { s: 'Choose a step.' }],
    ['too long', { c: ['weak'], t: 'x'.repeat(longestShort + 1) }, { t: 'Shorten this to 500 characters.' }],
  ])('%s', (_, answers, faults) => expect(Object.fromEntries(faultsOf(questions, answers))).toEqual(faults)); // prettier-ignore

  it('to what is not asked are left out', () => {
    expect(onlyAnswered(questions, { c: ['weak'], t: ' ', other: 'x', constructor: 'y' })).toEqual({ c: ['weak'] });
  }); // prettier-ignore

  it('name the choices in the order in which they are asked', () => {
    expect(sayAnswer(choice({ isSeveral: true }), ['strong', 'weak'])).toBe('Weak; Strong');
    expect([sayAnswer(scale, 3), sayAnswer(short, 'salt'), sayAnswer(short, undefined)]).toEqual(['3', 'salt', '']);
  }); // prettier-ignore

  it('are counted as they were given, whoever gave them and in whatever order', () => {
    const sheet = fc.record(
      { c: fc.subarray(['weak', 'strong']), s: fc.integer({ min: 1, max: 5 }), t: fc.string() },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(fc.array(sheet, { maxLength: 30 }), (sheets) => {
        const several = choice({ isSeveral: true });
        const ofChoice = tally(several, sheets);
        expect(ofChoice.counts).toEqual(
          ['weak', 'strong'].map((id) => sheets.filter(({ c }) => c?.includes(id)).length),
        );
        expect(ofChoice.answered).toBe(sheets.filter(({ c }) => c !== undefined && c.length > 0).length);
        const steps = sheets.flatMap(({ s }) => (s === undefined ? [] : [s]));
        const ofScale = tally(scale, sheets);
        expect(ofScale.counts).toEqual([1, 2, 3, 4, 5].map((n) => steps.filter((s) => s === n).length));
        if (steps.length === 0) expect(ofScale.middle).toBeNull();
        else {
          // As many are at or below the middle as half of all, and fewer are below it.
          const middle = Number(ofScale.middle);
          expect(steps.filter((s) => s <= middle).length * 2).toBeGreaterThanOrEqual(steps.length);
          expect(steps.filter((s) => s < middle).length * 2).toBeLessThan(steps.length);
        }
        expect(tally(several, sheets.toReversed())).toEqual(ofChoice);
      }),
    );
  });

  it('are held back while so few could be told apart, where they are anonymous', () => {
    expect([0, 1, 2, 3].map((count) => isHeldBack(true, count))).toEqual([true, true, true, false]);
    expect(isHeldBack(false, 1)).toBe(false);
    expect(leastAnonymous).toBe(3);
  });
});
