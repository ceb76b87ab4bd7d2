import { isAddress } from '@jigsaw/core/course';
import type { App } from './createApp.js';
import { PeopleService } from '../identity/index.js';
import type { Terminal } from './terminal.js';

export class InstructorRefused extends Error {}

const shortestPassword = 10;

/** Without an instructor no one could make a course, so the first one is made here, from the terminal or from the environment.
 * @throws InstructorRefused with one sentence. */
export async function firstInstructor(
  app: App,
  env: NodeJS.ProcessEnv,
  terminal: Terminal | null,
): Promise<void> {
  const people = app.get(PeopleService);
  if (await people.hasInstructor()) return;
  const answer = async (name: string, question: string, how: 'ask' | 'askSecret' = 'ask') => {
    const given = env[name];
    if (given !== undefined && given.trim() !== '') return given.trim();
    if (!terminal)
      throw new InstructorRefused(
        'There is no instructor yet. Start once in a terminal, or set JIGSAW_INSTRUCTOR_NAME, JIGSAW_INSTRUCTOR_EMAIL and JIGSAW_INSTRUCTOR_PASSWORD.',
      );
    return (await terminal[how](question)).trim();
  };
  if (terminal) process.stdout.write('\nThis is a new Jigsaw Room. Create the first instructor account.\n');
  const name = await answer('JIGSAW_INSTRUCTOR_NAME', 'Name: ');
  const email = await answer('JIGSAW_INSTRUCTOR_EMAIL', 'Email: ');
  const password = await answer(
    'JIGSAW_INSTRUCTOR_PASSWORD',
    `Password (at least ${shortestPassword} characters, not shown): `,
    'askSecret',
  );
  if (name === '')
    throw new InstructorRefused('The instructor needs a name. Nothing was created. Start again.');
  if (!isAddress(email))
    throw new InstructorRefused(`"${email}" is not an email address. Nothing was created. Start again.`);
  if (password.length < shortestPassword)
    throw new InstructorRefused(
      `The password needs at least ${shortestPassword} characters. Nothing was created. Start again.`,
    );
  const first = { email, name, familyName: null, reading: null };
  if (!(await people.createFirstInstructor(first, password)))
    process.stdout.write('Another start created the first instructor meanwhile. Yours was not created.\n');
}
