import {
  configFrom,
  createApp,
  DatabaseRefused,
  endWithParent,
  listen,
  ListenRefused,
  migrate,
  oneAtATime,
  SettingRefused,
} from '@jigsaw/server';
import path from 'node:path';
import { offeredAtLarge, tellLargeStory } from './large.js';
import { DemoRefused, loadDemo } from './load.js';
import { demoPassword, offered, staff } from './people.js';
import { openRegistrar, School } from './registrar/index.js';
import { tellStory } from './story.js';
import type { StoryClock } from './storyClock.js';

const isLarge = process.argv.includes('--large');

async function main(): Promise<void> {
  const folder = process.env['JIGSAW_FOLDER'];
  const school = new School(folder === undefined ? null : path.join(folder, 'registrar.json'));
  const asked = configFrom(process.env, {
    webFolder: process.env['JIGSAW_WEB'] ?? null,
    demoPeople: isLarge ? offeredAtLarge : offered,
  });
  const registrar = await openRegistrar(school, asked.port === 0 ? 0 : asked.port + 1);
  const config = { ...asked, registrarUrl: registrar.url };
  await migrate(config.databaseUrl);
  const beganAt = Date.now();
  const tell = (base: string, clock: StoryClock) => {
    school.forget();
    return isLarge ? tellLargeStory(base, clock, config.databaseUrl) : tellStory(base, clock, school);
  };
  process.stdout.write(
    isLarge
      ? 'Loading the large sample course if it is not there yet: 640 students, 160 teams, 30 activities. It takes a minute or two…\n'
      : 'Loading the sample course if it is not there yet…\n',
  );
  const outcome = await oneAtATime(config.databaseUrl, 'demo', () => loadDemo(config, tell));
  if (outcome === 'loaded')
    process.stdout.write(
      `${isLarge ? 'A term of Industrial Brewing' : 'Half a term of Applied Fermentation'} loaded in ${Math.round((Date.now() - beganAt) / 1000)} s.\n`,
    );
  const app = await createApp(config);
  await listen(app, config);
  process.stdout.write(`
Jigsaw Room is at ${config.publicUrl}

Look around as a demo person from the sign-in page, or sign in with an email and the password:
  ${staff.instructor.email}  (instructor)
  password for every demo person: ${demoPassword}

The made-up school's registrar, for people who join, leave and change sections: ${registrar.url}
Mail goes nowhere: it is written to ${config.mailFolder ?? 'the outbox alone'}

Stop it with Ctrl-C. Your changes are kept for the next start.
`);
}

endWithParent();
main().catch((error: unknown) => {
  const isTold = [DatabaseRefused, SettingRefused, ListenRefused, DemoRefused].some(
    (kind) => error instanceof kind,
  );
  process.stderr.write(
    `${isTold ? (error as Error).message : error instanceof Error ? error.stack : String(error)}\n`,
  );
  process.exit(1);
});
