/** Whether the time of an answer tells what exists. A student asks in turns for what is another group's and for what is not there. Per address: how
 * often the first takes longer than the second (50 % tells nothing; 98 of 100 addresses of 150 pairs lie within 42 and 58 % by chance).
 * Run by hand: node bench/existence.mjs */
import { randomUUID } from 'node:crypto';
import { createRequire } from 'node:module';
import { asker, aWorkingClassOf, sessions, withInstallation } from './installation.mjs';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');
const pairs = 150;
const lanes = 3;

await withInstallation(async ({ ask, base, databaseUrl }) => {
  const database = new pg.Client({ connectionString: databaseUrl });
  database.on('error', () => undefined);
  await database.connect();
  const { course, set, groups, activities } = await aWorkingClassOf(ask, 40, [
    'assignment',
    'discussion',
    'wiki',
  ]);
  const [theirs] = await sessions(database, base, 'p0@%');
  const [asking] = await sessions(database, base, 'p1@%');
  const request = asker(base);
  const read = async (at) => JSON.parse((await request('GET', at, theirs)).text);
  const items = (await read(`courses/${course.id}/rooms`)).rooms.flatMap((room) => room.items);
  const copyOf = (kind) => items.find((item) => item.title.startsWith(kind)).copyId;
  const [work, talk, wiki] = ['assignment', 'discussion', 'wiki'].map(copyOf);
  const [page] = (await read(`copies/${wiki}/wiki`)).pages;
  const post = randomUUID();
  const text = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'pH' }] }] };
  await request('POST', `copies/${talk}/posts`, theirs, { id: post, parentId: null, text });
  const other = await ask('courses', { code: 'X', title: 'Other', term: '', timeZone: 'UTC' });

  const none = randomUUID();
  const addresses = [
    ['GET', (id) => `copies/${id}`, work],
    ['GET', (id) => `copies/${id}/work`, work],
    ['PUT', (id) => `copies/${id}/part`, work, { text, version: 0 }],
    ['POST', (id) => `copies/${id}/hand-in`, work, { attempt: 1 }],
    ['GET', (id) => `copies/${id}/marks/group`, work],
    ['GET', (id) => `copies/${id}/discussion`, talk],
    ['PUT', (id) => `copies/${talk}/posts/${id}`, post, { text, version: 1 }],
    ['GET', (id) => `copies/${id}/wiki`, wiki],
    ['GET', (id) => `copies/${wiki}/wiki/pages/${id}`, page.id],
    ['GET', (id) => `activities/${id}`, activities[0].id],
    ['GET', (id) => `releases/${id}/desk`, activities[0].release.id],
    ['GET', (id) => `sets/${id}/board`, set.id],
    ['PATCH', (id) => `groups/${id}/naming`, groups[0].id, { name: 'A', motto: '', version: 1 }],
    ['GET', (id) => `courses/${id}/roster.csv`, other.id],
  ];

  const timed = async ([method, at, id, body]) => {
    const both = [[], []];
    for (let pair = 0; pair < pairs; pair += 1)
      for (const which of pair % 2 ? [0, 1] : [1, 0]) {
        const { status, tookMs } = await request(method, at(which === 0 ? id : none), asking, body);
        if (status !== 404) throw new Error(`${at('')} answered ${status}`);
        both[which].push(tookMs);
      }
    const wins = both[0].flatMap((hidden) =>
      both[1].map((absent) => (hidden > absent ? 1 : hidden === absent ? 0.5 : 0)),
    );
    const share = wins.reduce((sum, each) => sum + each, 0) / wins.length;
    const middle = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
    console.log(
      `${(share * 100).toFixed(0).padStart(3)} %  ×${(middle(both[0]) / middle(both[1])).toFixed(3)}  ${method} ${at('…')}`,
    );
    return share;
  };
  const shares = [];
  const waiting = [...addresses];
  await Promise.all(
    Array.from({ length: lanes }, async () => {
      for (let next = waiting.shift(); next; next = waiting.shift()) shares.push(await timed(next));
    }),
  );
  console.log(
    `of ${shares.length} addresses, furthest from 50 %: ${(Math.max(...shares.map((each) => Math.abs(each - 0.5))) * 100).toFixed(0)} points`,
  );
  await database.end();
});
process.exit(0);
