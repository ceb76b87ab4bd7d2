import type { EntityManager } from 'typeorm';
import type { EnrolmentId, CopyId } from '@jigsaw/core/ids';
import type { RichTextNode } from '@jigsaw/core/text';
import type { Rewritten } from '../roster/index.js';
import { rewrite } from '../roster/index.js';

interface Part {
  readonly id: string;
  readonly copyId: CopyId;
  readonly text: RichTextNode;
  readonly words: number;
  readonly version: number;
}
interface HandIn {
  readonly id: string;
  readonly parts: readonly FrozenPart[];
}
interface FrozenPart {
  readonly enrolmentId: EnrolmentId;
  readonly text: RichTextNode;
  readonly words: number;
}

/** Two entries of one person may both have written in one group's text and handed in the same thing: the texts stand one after the
 * other then, and attempts are counted in the order in which they came. */
export async function joinHandIns(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<readonly Rewritten[]> {
  const all = [
    ...(await joinParts(manager, keep, other)),
    ...(await joinFrozenParts(manager, keep, other)),
    ...(await countAttempts(manager, keep, other)),
  ];
  for (const each of all) await rewrite(manager, each);
  return all;
}

async function joinParts(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<Rewritten[]> {
  const pairs = await manager.query<{ kept: Part; added: Part }[]>(
    `SELECT to_jsonb(k.*) AS "kept", to_jsonb(o.*) AS "added" FROM "part" k JOIN "part" o ON o."copyId" = k."copyId" AND o."enrolmentId" = $2
      WHERE k."enrolmentId" = $1`,
    [keep, other],
  );
  return pairs.map(({ kept, added }) => {
    const pick = ({ text, words, version }: Pick<Part, 'text' | 'words' | 'version'>) => ({
      text,
      words,
      version,
    });
    return {
      table: 'part',
      id: kept.id,
      before: pick(kept),
      after: { ...together(kept, added), version: kept.version + 1 },
    };
  });
}

async function joinFrozenParts(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<Rewritten[]> {
  const handIns = await manager.query<HandIn[]>(
    `SELECT "id", "parts" FROM "hand_in" WHERE "parts" @> jsonb_build_array(jsonb_build_object('enrolmentId', $1::text))`,
    [other],
  );
  return handIns.map(({ id, parts }) => ({
    table: 'hand_in',
    id,
    before: { parts },
    after: { parts: asOne(parts, keep, other) },
  }));
}

function asOne(parts: readonly FrozenPart[], keep: EnrolmentId, other: EnrolmentId): FrozenPart[] {
  const [first, ...more] = parts.filter((part) => part.enrolmentId === keep || part.enrolmentId === other);
  if (!first) return [...parts];
  const joined = {
    ...more.reduce((sum, part) => ({ ...sum, ...together(sum, part) }), first),
    enrolmentId: keep,
  };
  return parts.flatMap((part) => (part === first ? [joined] : more.includes(part) ? [] : [part]));
}

const together = (
  one: { text: RichTextNode; words: number },
  two: { text: RichTextNode; words: number },
) => ({
  text: { ...one.text, content: [...(one.text.content ?? []), ...(two.text.content ?? [])] },
  words: one.words + two.words,
});

/** Where both handed in themselves, all attempts are numbered anew, first beyond every number so that none is taken. */
async function countAttempts(
  manager: EntityManager,
  keep: EnrolmentId,
  other: EnrolmentId,
): Promise<Rewritten[]> {
  const rows = await manager.query<
    { id: string; copyId: CopyId; ownerId: EnrolmentId; attempt: number; place: number; most: number }[]
  >(
    `SELECT h."id", h."copyId", h."ownerId", h."attempt", row_number() OVER (PARTITION BY h."copyId" ORDER BY h."handedInAt", h."id")::int AS "place",
            max(h."attempt") OVER (PARTITION BY h."copyId") AS "most"
       FROM "hand_in" h WHERE h."ownerId" IN ($1, $2)
        AND 2 = (SELECT count(DISTINCT b."ownerId") FROM "hand_in" b WHERE b."copyId" = h."copyId" AND b."ownerId" IN ($1, $2))`,
    [keep, other],
  );
  const change = (id: string, from: number, to: number): Rewritten => ({
    table: 'hand_in',
    id,
    before: { attempt: from },
    after: { attempt: to },
  });
  const beyond = (row: (typeof rows)[number]) => row.most + row.place;
  return [
    ...rows.map((row) => change(row.id, row.attempt, beyond(row))),
    ...rows.map((row) => change(row.id, beyond(row), row.place)),
  ];
}
