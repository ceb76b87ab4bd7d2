import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { Progress } from '@jigsaw/contract/release';
import { WikiSettings } from '@jigsaw/contract/wiki';
import type { EnrolmentId, CopyId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { wikiFacts } from '@jigsaw/core/wiki';
import { countWords, plainText } from '@jigsaw/core/text';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import type { ActivityKind, Asked, Evidence, Opening, UnitWork } from '../release/index.js';
import { Kinds, lastDueOf, onTime } from '../release/index.js';
import { WikiPageRow, WikiRevisionRow } from './wiki.rows.js';

export interface WriterFigures {
  readonly copyId: CopyId;
  readonly authorId: EnrolmentId;
  readonly name: string;
  readonly isStudent: boolean;
  readonly revisions: number;
  readonly added: number;
  readonly latestAt: Date;
}

@Injectable()
export class WikiKind implements ActivityKind<WikiSettings> {
  readonly name = wikiFacts.name;
  readonly modes = wikiFacts.modes;
  readonly markFor = wikiFacts.markFor;
  readonly isHandedIn = wikiFacts.isHandedIn;
  readonly isWork = wikiFacts.isWork;
  readonly isMarked = wikiFacts.isMarked;
  readonly settings = WikiSettings;

  constructor(private readonly kinds: Kinds) {
    kinds.register(this);
  }

  /** A page is new to anyone who has not seen its newest revision. The prompt that staff put there is no news: it is what the wiki is. */
  itemsSql(copies: string): string {
    return `SELECT p."copyId", p."id" AS "subjectId", p."revision" AS "version", r."authorId", NULL::uuid AS "ownerId", r."savedAt" AS "at",
                   r."title" || ': ' || left(r."plain", 200) AS "excerpt"
              FROM "wiki_page" p JOIN "wiki_revision" r ON r."pageId" = p."id" AND r."number" = p."revision"
             WHERE p."copyId" = ANY(${copies}) AND p."deletedAt" IS NULL
               AND NOT (p."revision" = 1 AND EXISTS (SELECT 1 FROM "author" e WHERE e."enrolmentId" = r."authorId" AND e."role" <> 'student'))`;
  }

  /** Every copy begins with the prompt page. */
  async begin({ copies, settings, manager, now, by }: Opening<WikiSettings>): Promise<void> {
    const plain = plainText(settings.promptText);
    const pages = copies.map((copy) => ({
      id: newId<'page'>(),
      copyId: copy.id,
      revision: 1,
      createdBy: by,
      createdAt: now,
      deletedAt: null,
    }));
    await manager.insert(WikiPageRow, pages);
    const words = countWords(plain);
    await manager.insert(
      WikiRevisionRow,
      pages.map((page) => ({
        pageId: page.id,
        number: 1,
        title: settings.promptTitle,
        text: json(settings.promptText),
        plain,
        words,
        added: words,
        removed: 0,
        authorId: by,
        savedAt: now,
      })),
    );
  }

  /** The prompt page, where it is as it was put there. */
  async end(manager: EntityManager, copyIds: readonly CopyId[]): Promise<void> {
    await manager.query(
      `DELETE FROM "wiki_revision" WHERE "pageId" IN (SELECT "id" FROM "wiki_page" WHERE "copyId" = ANY($1) AND "revision" = 1)`,
      [copyIds],
    );
    await manager.query(`DELETE FROM "wiki_page" WHERE "copyId" = ANY($1) AND "revision" = 1`, [copyIds]);
  }

  async progress(asked: Asked): Promise<Map<string, Progress>> {
    const studentsIn = writersByCopy((await this.writers(asked)).filter((writer) => writer.isStudent));
    return new Map(
      asked.accesses.map(({ copy, viewer, decision, schedule }) => {
        const here = studentsIn(copy.id);
        const hasWritten = here.some((writer) => writer.authorId === viewer.enrolmentId);
        const latest = latestOf(here);
        return [
          copy.id,
          {
            state: here.length === 0 ? 'not-started' : 'in-work',
            isYours: false,
            // Nothing says when a wiki is done; what is required of everyone is to have written in it by its date.
            owes:
              decision.part === 'member' &&
              decision.access === 'open' &&
              schedule.due !== null &&
              !hasWritten,
            at: latest?.latestAt.toISOString() ?? null,
            late: null,
            done: null,
            asked: null,
          },
        ];
      }),
    );
  }

  async works(asked: Asked): Promise<UnitWork[]> {
    const studentsIn = writersByCopy((await this.writers(asked)).filter((writer) => writer.isStudent));
    return asked.accesses.flatMap((access) => {
      const members = asked.membersOf(access.copy.id);
      const here = studentsIn(access.copy.id);
      const one = (
        unit: UnitWork['unit'],
        own: readonly WriterFigures[],
        credited: readonly EnrolmentId[],
      ): UnitWork => {
        const latest = latestOf(own);
        const due = lastDueOf(access, credited);
        const isOver = due === null || asked.now.getTime() > due;
        return {
          copyId: access.copy.id,
          unit,
          latest: latest && { at: latest.latestAt, by: latest.name },
          isComplete: latest !== null && isOver,
          late: onTime,
          credited,
          suggestion: null,
        };
      };
      if (this.kinds.markFor(access) === 'group') return [one('group', here, members)];
      return members.map((id) =>
        one(
          id,
          here.filter((writer) => writer.authorId === id),
          [id],
        ),
      );
    });
  }

  async evidence(asked: Asked): Promise<Map<string, Map<string, Evidence[]>>> {
    const writersIn = writersByCopy(await this.writers(asked));
    return new Map(
      asked.accesses.map(({ copy }) => [
        copy.id,
        new Map(
          asked.membersOf(copy.id).map((id): [string, Evidence[]] => {
            const own = writersIn(copy.id).find((writer) => writer.authorId === id);
            return [
              id,
              [
                { label: 'saves', value: String(own?.revisions ?? 0) },
                { label: 'words added', value: String(own?.added ?? 0) },
              ],
            ];
          }),
        ),
      ]),
    );
  }

  /** Who saved how often and put in how many words, by copy and author. One query. */
  writers({ accesses, manager }: Pick<Asked, 'accesses' | 'manager'>): Promise<WriterFigures[]> {
    return manager.query<WriterFigures[]>(
      `SELECT p."copyId", r."authorId", n."name", n."role" = 'student' AS "isStudent",
              count(*)::int AS "revisions", sum(r."added")::int AS "added", max(r."savedAt") AS "latestAt"
         FROM "wiki_revision" r JOIN "wiki_page" p ON p."id" = r."pageId"
         JOIN "author" n ON n."enrolmentId" = r."authorId"
        WHERE p."copyId" = ANY($1) GROUP BY 1, 2, 3, 4`,
      [accesses.map((access) => access.copy.id)],
    );
  }
}

function writersByCopy(writers: readonly WriterFigures[]): (copyId: CopyId) => readonly WriterFigures[] {
  const ofCopy = groupedBy(writers, (writer) => writer.copyId);
  return (copyId) => ofCopy.get(copyId) ?? [];
}

const latestOf = (writers: readonly WriterFigures[]): WriterFigures | null =>
  writers.reduce<WriterFigures | null>(
    (latest, writer) => (latest === null || writer.latestAt > latest.latestAt ? writer : latest),
    null,
  );
