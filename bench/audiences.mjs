/** 50 nested audiences over 1,000 people in 250 groups, all worked out for their list, beside the same rows by hand-written SQL.
 * Run it after a build: node bench/audiences.mjs [people] */
import { createRequire } from 'node:module';
import { aClassOf, withInstallation } from './installation.mjs';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');
const people = Number(process.argv[2] ?? 1000);
const count = 50;

/** What the list reads, as one statement: audiences, and everyone with attributes and groups. */
const rows = `SELECT (SELECT jsonb_agg(a.*) FROM "saved_audience" a WHERE a."courseId" = $1) AS "audiences",
       (SELECT jsonb_agg(g.*) FROM "set_group" g WHERE g."courseId" = $1) AS "groups",
       (SELECT jsonb_agg(jsonb_build_object('id', e."id", 'role', e."role", 'attributes', e."attributes", 'groups',
         (SELECT jsonb_agg(s."groupId") FROM "seat" s WHERE s."enrolmentId" = e."id"))) FROM "enrolment" e WHERE e."courseId" = $1) AS "people"`;

await withInstallation(async ({ ask, databaseUrl }) => {
  const course = await aClassOf(ask, people);
  const set = await ask(`courses/${course.id}/sets`, {
    name: 'Teams',
    shape: { by: 'count', groups: Math.ceil(people / 4) },
    capacity: 4,
    pattern: 'Team {n}',
    names: [],
  });
  const board = await ask(`sets/${set.id}/board`);
  await ask(`sets/${set.id}/place`, {
    moves: board.students.map(({ enrolmentId }, at) => ({
      student: enrolmentId,
      from: null,
      to: board.groups[at % board.groups.length].id,
    })),
  });
  let last = null;
  for (let at = 0; at < count; at += 1) {
    const own = board.groups.slice(at * 5, at * 5 + 5);
    const audience = await ask(`courses/${course.id}/audiences`, {
      name: `Audience ${at}`,
      include: [
        ...own.map(({ id }) => ({ kind: 'group', setId: set.id, groupId: id })),
        ...(last ? [{ kind: 'audience', audienceId: last }] : []),
      ],
      exclude: [{ kind: 'person', enrolmentId: board.students[at].enrolmentId }],
    });
    last = audience.id;
  }
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const list = await median(() => ask(`courses/${course.id}/audiences`));
  const sql = await median(() => client.query(rows, [course.id]));
  await client.end();
  console.log(
    `${count} nested audiences, ${people} people: their list takes ${(list / sql).toFixed(1)} times as long as one statement that reads the same rows`,
  );
});

async function median(act) {
  const took = [];
  for (let at = 0; at < 15; at += 1) {
    const began = performance.now();
    await act();
    took.push(performance.now() - began);
  }
  return took.sort((a, b) => a - b)[7];
}
