import pg from 'pg';
import { sure } from '@jigsaw/core/lists';
import type { Client } from './client.js';
import { demoPassword, domain, staff } from './people.js';

/** The parts of a term that would take hours through the front door, written as the product would have written them. Everything is made from the numbers
 * of its rows, so that it is the same at every load. */
async function inDatabase(
  databaseUrl: string,
  statements: readonly string[],
  courseId: string,
): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('BEGIN');
    for (const statement of statements)
      await client.query(statement, statement.includes('$1') ? [courseId] : []);
    await client.query('COMMIT');
    await client.query('ANALYZE');
  } finally {
    await client.end();
  }
}

/** Everyone has chosen the password of the demo. It is worked out once: that is slow by design. */
export async function letStudentsIn(
  base: string,
  instructor: Client,
  databaseUrl: string,
  courseId: string,
): Promise<void> {
  const links = await instructor.post<{ links: { email: string; url: string }[] }>(
    `courses/${courseId}/roster/sign-in-links`,
  );
  const { email, url } = sure(links.links.find((link) => link.email === `brewer1@${domain}`));
  const answer = await fetch(`${base}/api/session/password`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ token: url.split('#')[1], password: demoPassword }),
  });
  if (!answer.ok) throw new Error(`${email} could not choose a password: ${await answer.text()}`);
  await inDatabase(
    databaseUrl,
    [
      `UPDATE "person" p SET "passwordHash" = one."passwordHash", "provenAt" = now(), "lastSeenAt" = now()
         FROM "person" one WHERE one."email" = 'brewer1@${domain}' AND p."email" <> '${staff.instructor.email}'
          AND p."id" IN (SELECT "personId" FROM "enrolment" WHERE "courseId" = $1)`,
      `DELETE FROM "password_link"`,
    ],
    courseId,
  );
}

const sentence = (about: string) =>
  `'At hour ' || ${about} || ' the gravity had fallen further than we had thought it would, and the taste was cleaner than that of the batch before; we kept the temperature and looked again in the morning.'`;
/** A rich text of one paragraph. */
const richText = (text: string) =>
  `jsonb_build_object('type', 'doc', 'content', jsonb_build_array(jsonb_build_object('type', 'paragraph', 'content',
     jsonb_build_array(jsonb_build_object('type', 'text', 'text', ${text})))))`;

/** Copies of this course that are live, with their teams' numbers and what is due when. */
const copies = `
  WITH c AS (
    SELECT copy."id" AS "copyId", copy."groupId", a."kind", a."points", a."due", r."stateAt" AS "releasedAt", g."number",
           row_number() OVER (PARTITION BY g."id" ORDER BY r."stateAt") AS "turn"
      FROM "copy" copy JOIN "release" r ON r."id" = copy."releaseId" JOIN "activity" a ON a."id" = r."activityId" JOIN "course_group" g ON g."id" = copy."groupId"
     WHERE r."courseId" = $1 AND r."stateAt" < now()),
  members AS (
    SELECT m."groupId", m."enrolmentId", row_number() OVER (PARTITION BY m."groupId" ORDER BY m."enrolmentId") AS "seat"
      FROM "membership" m WHERE m."until" IS NULL)`;

/** What a term leaves behind: work written and handed in, marks, posts and pages. */
export const leaveTraces = (databaseUrl: string, courseId: string): Promise<void> =>
  inDatabase(
    databaseUrl,
    [
      // Nine of ten teams write; two or three of each.
      `${copies} INSERT INTO "part" ("id", "copyId", "enrolmentId", "text", "words", "version", "createdAt", "updatedAt")
       SELECT gen_random_uuid(), c."copyId", m."enrolmentId", ${richText(sentence('m."seat" * 7 + c."turn"'))}, 34, 2, c."releasedAt" + interval '1 day', c."releasedAt" + interval '2 days'
         FROM c JOIN members m ON m."groupId" = c."groupId"
        WHERE c."kind" = 'assignment' AND (c."number" + c."turn") % 10 <> 0 AND m."seat" <= 2 + c."number" % 2`,
      // What is due is handed in, a little of it late and a little not at all.
      `${copies} INSERT INTO "hand_in" ("id", "copyId", "ownerId", "attempt", "handedInBy", "handedInAt", "parts", "fileIds")
       SELECT gen_random_uuid(), c."copyId", NULL, 1, (SELECT m."enrolmentId" FROM members m WHERE m."groupId" = c."groupId" AND m."seat" = 1),
              c."due" - interval '3 hours' + CASE WHEN (c."number" * 3 + c."turn") % 17 = 0 THEN interval '20 hours' ELSE interval '0' END,
              (SELECT jsonb_agg(jsonb_build_object('enrolmentId', p."enrolmentId", 'text', p."text", 'words', p."words")) FROM "part" p WHERE p."copyId" = c."copyId"), '{}'
         FROM c WHERE c."kind" = 'assignment' AND c."due" < now() AND EXISTS (SELECT 1 FROM "part" p WHERE p."copyId" = c."copyId")`,
      `INSERT INTO "credit" ("handInId", "enrolmentId")
       SELECT h."id", m."enrolmentId" FROM "hand_in" h JOIN "copy" c ON c."id" = h."copyId" JOIN "membership" m ON m."groupId" = c."groupId" AND m."until" IS NULL`,
      `INSERT INTO "mark" ("id", "copyId", "enrolmentId", "markerId", "typedMark", "overrideReason", "picks", "feedback", "version", "workAt", "updatedAt")
       SELECT gen_random_uuid(), h."copyId", NULL, NULL, 9 + (abs(hashtext(h."copyId"::text)) % 22) * 0.5, '', '{}', 'Clear, and the readings bear it out. Say next time why you changed the temperature.', 1,
              h."handedInAt", h."handedInAt" + interval '5 days'
         FROM "hand_in" h WHERE h."handedInAt" < now() - interval '8 days'`,
      // A dozen posts a team in each discussion; one team has a thread of 500.
      `${copies}, said AS (
         SELECT gen_random_uuid() AS "id", c.*, m."enrolmentId", n, ${sentence('n || \'.\' || m."seat"')} AS "plain"
           FROM c JOIN members m ON m."groupId" = c."groupId" CROSS JOIN generate_series(1, 3) n WHERE c."kind" = 'discussion')
       INSERT INTO "post" ("id", "copyId", "threadId", "parentId", "authorId", "text", "plain", "words", "createdAt")
       SELECT "id", "copyId", "id", NULL, "enrolmentId", ${richText('"plain"')}, "plain", 34, LEAST(now() - interval '1 hour', "releasedAt" + n * interval '20 hours')
         FROM said`,
      `${copies}, longest AS (SELECT c."copyId" FROM c WHERE c."kind" = 'discussion' AND c."number" = 1 ORDER BY c."releasedAt" LIMIT 1),
         opener AS (SELECT p.* FROM "post" p JOIN longest ON longest."copyId" = p."copyId" ORDER BY p."createdAt", p."id" LIMIT 1)
       INSERT INTO "post" ("id", "copyId", "threadId", "parentId", "authorId", "text", "plain", "words", "createdAt")
       SELECT gen_random_uuid(), o."copyId", o."id", o."id", m."enrolmentId", ${richText(`'Reading ' || n`)}, 'Reading ' || n, 2, o."createdAt" + n * interval '5 minutes'
         FROM opener o CROSS JOIN generate_series(1, 500) n JOIN "copy" c ON c."id" = o."copyId" JOIN members m ON m."groupId" = c."groupId" AND m."seat" = 1 + n % 4`,
      // Three pages in each wiki, each saved twice more.
      `${copies} INSERT INTO "wiki_page" ("id", "copyId", "revision", "createdBy", "createdAt")
       SELECT gen_random_uuid(), c."copyId", 3, m."enrolmentId", c."releasedAt" + m."seat" * interval '1 day'
         FROM c JOIN members m ON m."groupId" = c."groupId" AND m."seat" <= 3 WHERE c."kind" = 'wiki'`,
      `INSERT INTO "wiki_revision" ("pageId", "number", "title", "text", "plain", "words", "added", "removed", "authorId", "savedAt")
       SELECT w."id", n, 'Line ' || w."createdAt"::date || ' ' || left(w."id"::text, 4), ${richText(sentence('n'))}, ${sentence('n')}, 34, CASE n WHEN 1 THEN 34 ELSE 2 END,
              CASE n WHEN 1 THEN 0 ELSE 2 END, w."createdBy", w."createdAt" + n * interval '1 hour'
         FROM "wiki_page" w JOIN "copy" c ON c."id" = w."copyId" JOIN "release" r ON r."id" = c."releaseId" CROSS JOIN generate_series(1, 3) n
        WHERE r."courseId" = $1 AND w."revision" = 3`,
      // Everyone has read what is older than a week; most have read the rest.
      `INSERT INTO "seen" ("enrolmentId", "subjectId", "version", "at")
       SELECT m."enrolmentId", p."id", 1, now() FROM "post" p JOIN "copy" c ON c."id" = p."copyId" JOIN "membership" m ON m."groupId" = c."groupId" AND m."until" IS NULL
        WHERE p."createdAt" < now() - interval '7 days' OR abs(hashtext(p."id"::text || m."enrolmentId"::text)) % 3 > 0`,
      `INSERT INTO "seen" ("enrolmentId", "subjectId", "version", "at")
       SELECT m."enrolmentId", w."id", w."revision", now() FROM "wiki_page" w JOIN "copy" c ON c."id" = w."copyId" JOIN "membership" m ON m."groupId" = c."groupId" AND m."until" IS NULL
        WHERE abs(hashtext(w."id"::text || m."enrolmentId"::text)) % 3 > 0`,
    ],
    courseId,
  );
