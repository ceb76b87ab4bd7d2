import { v7 as uuid } from 'uuid';
import type { ReleaseRequest } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import type { Stage } from './stage.js';
import { copiesOf, release, write } from './stage.js';
import { text } from './texts.js';

const choices = (...texts: readonly string[]) => texts.map((each) => ({ id: uuid(), text: each }));

/** What each bench says of its jars by name, and what the class says of the course without one. */
export async function questionnaires(stage: Stage): Promise<void> {
  await howAreTheJars(stage);
  await howIsTheCourse(stage);
}

interface Asked {
  readonly title: string;
  readonly said: string;
  readonly due?: string;
  readonly isAnonymous: boolean;
  readonly questions: readonly { readonly id: string; readonly [more: string]: unknown }[];
}

/** Releases a questionnaire.
 * @returns how someone answers it, in the copy of that name, question by question; undefined: not that one. */
async function ask(
  stage: Stage,
  { title, said, due, isAnonymous, questions }: Asked,
  how: Partial<ReleaseRequest> = {},
): Promise<(email: string, copy: string, given: readonly unknown[]) => Promise<void>> {
  const { instructor, people, courseId } = stage;
  const settings = { isAnonymous, questions };
  await release(stage, await write(stage, { kind: 'questionnaire', title, brief: text(said), due: due ?? null, settings }), how); // prettier-ignore
  const copies = await copiesOf(instructor, courseId, title);
  return async (email, copy, given) => {
    const answers = Object.fromEntries(
      questions.flatMap(({ id }, at) => (given[at] === undefined ? [] : [[id, given[at]]])),
    );
    const path = `copies/${sure(copies.get(copy)).copyId}/answers`;
    await people.of(email).put(path, { answers, version: 0, isAnonymous });
  };
}

async function howAreTheJars(stage: Stage): Promise<void> {
  const { clock, seated } = stage;
  clock.daysAgo(6, '09:10');
  const smells = choices('Clean and sour', 'Of yeast', 'Of sulphur', 'Of nothing yet');
  const answer = await ask(stage, {
    title: 'How are your jars?',
    said: 'Open your jar, taste it, and answer before the lab on Friday. Each of you for your own jar.',
    due: clock.inDays(2, '17:30'), // within an hour of the problem sheet
    isAnonymous: false,
    questions: [
      { id: uuid(), kind: 'choice', text: 'What does your jar smell of?', isRequired: true, isSeveral: true, options: smells }, // prettier-ignore
      { id: uuid(), kind: 'scale', text: 'How sour is the brine?', isRequired: true, steps: 5, low: 'like water', high: 'like vinegar' }, // prettier-ignore
      { id: uuid(), kind: 'long', text: 'What would you do otherwise next time?' },
    ],
  });
  const [sour, yeast, sulphur, nothing] = smells.map(({ id }) => id);
  for (const [bench, by, given] of [
    ['Crock', 0, [[sour], 4, 'Cut the cabbage finer. The thick pieces are still crisp and the brine has not reached them.']],
    ['Crock', 1, [[sour, yeast], 3, 'Weigh the salt twice.']],
    ['Crock', 2, [[sulphur], 2]],
    ['Barrel', 0, [[sour], 5, 'Put it into the cold room two days sooner.']],
    ['Barrel', 1, [[yeast], 3]],
    ['Tun', 0, [[nothing], 1, 'Start on the day on which we cut.']],
  ] as const) {
    clock.daysAgo(4 - by, `1${by}:25`);
    await answer(sure(seated(bench)[by]), bench, given);
  } // prettier-ignore
}

async function howIsTheCourse(stage: Stage): Promise<void> {
  const { clock, seated } = stage;
  clock.daysAgo(5, '13:00');
  const title = 'How is the course going?';
  const hours = choices('Up to 2 hours', '2 to 4 hours', '4 to 6 hours', 'More');
  const asked: Asked = {
    title,
    said: 'Half of the term is over. Tell us how it goes, so that the second half can be better.',
    isAnonymous: true,
    questions: [
      { id: uuid(), kind: 'scale', text: 'How is the pace?', isRequired: true, steps: 5, low: 'too slow', high: 'too fast' }, // prettier-ignore
      { id: uuid(), kind: 'choice', text: 'How long do you work for it in a week, outside the lab?', options: hours }, // prettier-ignore
      { id: uuid(), kind: 'short', text: 'One thing to keep as it is' },
    ],
  };
  const answer = await ask(stage, asked, { to: theClass, mode: 'common' });
  const people = (['Crock', 'Barrel', 'Tun'] as const).flatMap((bench) => seated(bench).slice(0, 3));
  const given = [[3, 1, 'The tasting on Fridays'], [4, 2, 'Working in benches'], [3, 1], [5, 3, 'The logs'], [4, 2], [3, 1, 'Tomas in the lab'], [2, 0], [4, 1, 'The tasting'], [3, 2]] as const; // prettier-ignore
  for (const [at, [pace, hour, keep]] of given.entries()) {
    clock.daysAgo(4, `${10 + at}:05`);
    await answer(sure(people[at]), title, [pace, [sure(hours[hour]).id], keep]);
  }
}
