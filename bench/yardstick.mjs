/** What the same rows cost when someone writes the SQL by hand and sends them as they come, compressed as the product compresses: without a session, without
 * rights, without rules, and of rooms without what is unread. largeCourse.mjs holds the product's answers against it. */
import http from 'node:http';
import { createRequire } from 'node:module';
import { promisify } from 'node:util';
import zlib from 'node:zlib';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');

const groupsOf = `(SELECT jsonb_agg(jsonb_build_object('setId', g."setId", 'groupId', g."groupId", 'number', g."number", 'name', g."name"))
   FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId" WHERE s."enrolmentId" = p."enrolmentId") AS "groups"`;
const latest = `LEFT JOIN LATERAL (SELECT h."handedInAt", h."handedInBy" FROM "hand_in" h WHERE h."copyId" = c."id" ORDER BY h."attempt" DESC LIMIT 1) h ON true`;
const released = `"copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`;

/** By page: its statements. $1 is the id of a course, set, release or enrolment. */
const pages = {
  roster: [
    `SELECT p."enrolmentId", p."personId", p."email", p."name", p."familyName", p."reading", p."number", p."role", p."attributes", p."joinedAt", p."leftAt",
            p."hasComeIn", p."lastSeenAt", ${groupsOf} FROM "course_person" p WHERE p."courseId" = $1 ORDER BY p."name"`,
    `SELECT g."groupId", g."setId", g."number", g."name" FROM "set_group" g WHERE g."courseId" = $1 ORDER BY g."number"`,
  ],
  board: [
    `SELECT p."enrolmentId", p."name", p."familyName", p."reading", p."email", p."number", p."attributes",
            (SELECT jsonb_agg(jsonb_build_object('groupId', m."groupId", 'isLeader', m."isLeader")) FROM "membership" m
              WHERE m."setId" = $1 AND m."until" IS NULL AND m."enrolmentId" = p."enrolmentId") AS "seats"
       FROM "present_student" p WHERE p."courseId" = (SELECT "courseId" FROM "group_set" WHERE "id" = $1) ORDER BY p."name"`,
    `SELECT g.*, (SELECT jsonb_agg(l.*) FROM "group_lead" l WHERE l."groupId" = g."id") AS "leads" FROM "course_group" g WHERE g."setId" = $1 ORDER BY g."number"`,
  ],
  gradebook: [
    `SELECT p."enrolmentId", p."name", p."familyName", p."reading", p."number", ${groupsOf} FROM "present_student" p WHERE p."courseId" = $1 ORDER BY p."name"`,
    `SELECT s."enrolmentId", c."id" AS "copyId", c."releaseId", rm."mark", rm."points", m."typedMark", m."workAt", h."handedInAt" FROM ${released}
       JOIN "seat" s ON s."groupId" = c."groupId"
       LEFT JOIN "released_mark" rm ON rm."copyId" = c."id" AND rm."enrolmentId" = s."enrolmentId"
       LEFT JOIN "mark" m ON m."copyId" = c."id" AND m."enrolmentId" IS NULL ${latest}
      WHERE r."courseId" = $1 AND a."points" IS NOT NULL AND r."state" IN ('live', 'closed', 'withdrawn')`,
  ],
  queue: [
    `SELECT c."id" AS "copyId", g."groupId", g."setId", g."setName", g."number", g."name", h."handedInAt", b."name" AS "by", m."typedMark", m."workAt",
            (SELECT count(*) FROM "released_mark" rm WHERE rm."copyId" = c."id") AS "released"
       FROM "copy" c JOIN "set_group" g ON g."groupId" = c."groupId" ${latest}
       LEFT JOIN "course_person" b ON b."enrolmentId" = h."handedInBy"
       LEFT JOIN "mark" m ON m."copyId" = c."id" AND m."enrolmentId" IS NULL WHERE c."releaseId" = $1 ORDER BY g."number"`,
  ],
  'desk list': [
    `SELECT a."id", r."id" AS "releaseId", a."kind", a."title", a."points", count(*) AS "units",
            count(*) FILTER (WHERE h."handedInAt" IS NOT NULL AND (m."id" IS NULL OR m."workAt" < h."handedInAt")) AS "toMark"
       FROM ${released} LEFT JOIN "mark" m ON m."copyId" = c."id" AND m."enrolmentId" IS NULL ${latest}
      WHERE r."courseId" = $1 AND a."points" IS NOT NULL AND r."state" IN ('live', 'closed') GROUP BY a."id", r."id"`,
  ],
  rooms: [
    `SELECT g."groupId", g."setName", g."number", g."name", count(*) AS "items", max(h."handedInAt") AS "latest",
            array_agg(a."title") FILTER (WHERE h."handedInAt" IS NULL AND a."due" < now()) AS "missing",
            (SELECT array_agg(p."name") FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId" WHERE s."groupId" = g."groupId") AS "members"
       FROM ${released} JOIN "set_group" g ON g."groupId" = c."groupId" ${latest}
      WHERE r."courseId" = $1 AND r."state" IN ('live', 'closed') GROUP BY g."groupId", g."setName", g."number", g."name"`,
  ],
  'release list': [
    `SELECT a.*, r."id" AS "releaseId", r."mode", r."audience", r."state", r."stateAt", (SELECT count(*) FROM "copy" c WHERE c."releaseId" = r."id") AS "copies"
       FROM "activity" a LEFT JOIN "release" r ON r."activityId" = a."id" WHERE a."courseId" = $1 AND a."deletedAt" IS NULL ORDER BY a."due"`,
  ],
  'rooms of a student': [
    `SELECT c."id" AS "copyId", r."id" AS "releaseId", a."kind", a."title", a."points", a."due", r."mode", r."state", h."handedInAt", b."name" AS "by"
       FROM ${released} JOIN "seat" s ON s."groupId" = c."groupId" ${latest} LEFT JOIN "course_person" b ON b."enrolmentId" = h."handedInBy"
      WHERE s."enrolmentId" = $1 AND r."state" IN ('live', 'closed') ORDER BY a."due"`,
    `SELECT p."enrolmentId", p."name", p."reading" FROM "seat" s JOIN "seat" o ON o."groupId" = s."groupId"
       JOIN "present_student" p ON p."enrolmentId" = o."enrolmentId" WHERE s."enrolmentId" = $1`,
  ],
  'marks of a student': [
    `SELECT rm.*, a."title", a."kind" FROM "released_mark" rm JOIN "copy" c ON c."id" = rm."copyId" JOIN "release" r ON r."id" = c."releaseId"
       JOIN "activity" a ON a."id" = r."activityId" WHERE rm."enrolmentId" = $1 AND r."state" IN ('live', 'closed') ORDER BY rm."releasedAt"`,
  ],
};

const [, , url, port] = process.argv;
const pool = new pg.Pool({ connectionString: url, max: 10 });
const gzip = promisify(zlib.gzip);
http
  .createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url, 'http://localhost');
    const statements = pages[decodeURIComponent(pathname.slice(1))];
    const asked = statements.map((sql) => pool.query(sql, [searchParams.get('id')]));
    Promise.all(asked)
      .then((answers) => gzip(JSON.stringify(answers.map(({ rows }) => rows)), { level: 4 }))
      .then((body) =>
        response.writeHead(200, { 'Content-Type': 'application/json', 'Content-Encoding': 'gzip' }).end(body),
      )
      .catch((error) => response.writeHead(500).end(String(error)));
  })
  .listen(Number(port), '127.0.0.1');
