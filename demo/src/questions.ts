import { v7 as uuid } from 'uuid';
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

async function howAreTheJars(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  clock.daysAgo(6, '09:10');
  const title = 'How are your jars?';
  const smells = choices('Clean and sour', 'Of yeast', 'Of sulphur', 'Of nothing yet');
  const asked = {
    smell: { id: uuid(), kind: 'choice', text: 'What does your jar smell of?', isRequired: true, isSeveral: true, options: smells }, // prettier-ignore
    sour: { id: uuid(), kind: 'scale', text: 'How sour is the brine?', isRequired: true, steps: 5, low: 'like water', high: 'like vinegar' }, // prettier-ignore
    change: { id: uuid(), kind: 'long', text: 'What would you do otherwise next time?' },
  };
  await release(
    stage,
    await write(stage, {
      kind: 'questionnaire',
      title,
      brief: text(
        'Open your jar, taste it, and answer before the lab on Friday. Each of you for your own jar.',
      ),
      due: clock.inDays(2, '18:00'),
      settings: { isAnonymous: false, questions: Object.values(asked) },
    }),
  );
  const copies = await copiesOf(instructor, courseId, title);
  const answer = async (bench: 'Crock' | 'Barrel' | 'Tun', by: number, [smell, sour, change]: readonly [readonly number[], number, string]) => {
    clock.daysAgo(4 - by, `1${by}:25`);
    const answers = {
      [asked.smell.id]: smell.map((at) => sure(smells[at]).id),
      [asked.sour.id]: sour,
      ...(change === '' ? {} : { [asked.change.id]: change }),
    };
    await people.of(sure(seated(bench)[by])).put(`copies/${sure(copies.get(bench)).copyId}/answers`, { answers, version: 0 }); // prettier-ignore
  }; // prettier-ignore
  await answer('Crock', 0, [[0], 4, 'Cut the cabbage finer. The thick pieces are still crisp and the brine has not reached them.']); // prettier-ignore
  await answer('Crock', 1, [[0, 1], 3, 'Weigh the salt twice.']);
  await answer('Crock', 2, [[2], 2, '']);
  await answer('Barrel', 0, [[0], 5, 'Put it into the cold room two days sooner.']);
  await answer('Barrel', 1, [[1], 3, '']);
  await answer('Tun', 0, [[3], 1, 'Start on the day on which we cut.']);
}

async function howIsTheCourse(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  clock.daysAgo(5, '13:00');
  const title = 'How is the course going?';
  const hours = choices('Up to 2 hours', '2 to 4 hours', '4 to 6 hours', 'More');
  const asked = {
    pace: { id: uuid(), kind: 'scale', text: 'How is the pace?', isRequired: true, steps: 5, low: 'too slow', high: 'too fast' }, // prettier-ignore
    hours: { id: uuid(), kind: 'choice', text: 'How long do you work for it in a week, outside the lab?', options: hours }, // prettier-ignore
    keep: { id: uuid(), kind: 'short', text: 'One thing to keep as it is' },
  };
  await release(
    stage,
    await write(stage, {
      kind: 'questionnaire',
      title,
      brief: text('Half of the term is over. Tell us how it goes, so that the second half can be better.'),
      settings: { isAnonymous: true, questions: Object.values(asked) },
    }),
    { to: theClass, mode: 'common' },
  );
  const { copyId } = sure([...(await copiesOf(instructor, courseId, title)).values()][0]);
  const keeps = ['The tasting on Fridays', 'Working in benches', '', 'The logs', '', 'Tomas in the lab', ''];
  const benches = ['Crock', 'Barrel', 'Tun'] as const;
  for (const [at, bench] of benches.entries())
    for (const [by, email] of seated(bench).slice(0, 3).entries()) {
      const n = at * 3 + by;
      const keep = keeps[n % keeps.length] ?? '';
      clock.daysAgo(4, `${10 + n}:05`);
      await people.of(email).put(`copies/${copyId}/answers`, {
        answers: {
          [asked.pace.id]: [3, 4, 3, 5, 4, 3, 2, 4, 3][n],
          [asked.hours.id]: [sure(hours[[1, 2, 1, 3, 2, 1, 0, 1, 2][n] ?? 0]).id],
          ...(keep === '' ? {} : { [asked.keep.id]: keep }),
        },
        version: 0,
      });
    }
}
