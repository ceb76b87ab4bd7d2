import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Outbox } from '@jigsaw/contract/mail';
import type { CourseId, PersonId } from '@jigsaw/core/ids';
import type { MailText } from '@jigsaw/core/mail';
import { newId } from '../platform/ids.js';
import { MailRow } from './mail.rows.js';

const mailsShown = 500;

export interface NewMail {
  readonly personId: PersonId;
  readonly toName: string;
  readonly toAddress: string;
  readonly text: MailText;
}

/** What was written, and its recipient. The carrier takes it from here. */
@Injectable()
export class MailService {
  constructor(private readonly dataSource: DataSource) {}

  /** In the transaction of what it tells of, so that no one is told of what did not happen.
   * @param courseId whose outbox shows it; null: no one's. */
  async post(
    manager: EntityManager,
    courseId: CourseId | null,
    at: Date,
    mails: readonly NewMail[],
  ): Promise<void> {
    const rows = JSON.stringify(mails.map((mail) => ({ id: newId(), ...mail })));
    await manager.query(
      `INSERT INTO "mail" ("id", "courseId", "personId", "at", "toName", "toAddress", "text")
       SELECT x."id", $2, x."personId", $3, x."toName", x."toAddress", x."text"
         FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "personId" uuid, "toName" text, "toAddress" text, "text" jsonb)`,
      [rows, courseId, at],
    );
  }

  /** When people were last written to from a course, by account. */
  async lastWrittenTo(manager: EntityManager, courseId: CourseId): Promise<ReadonlyMap<string, Date>> {
    const rows = await manager.query<{ personId: PersonId; at: Date }[]>(
      `SELECT "personId", max("at") AS "at" FROM "mail" WHERE "courseId" = $1 GROUP BY 1`,
      [courseId],
    );
    return new Map(rows.map((row) => [row.personId, row.at]));
  }

  /** The caller has made sure that the asker may see the course's mail. */
  async outbox(courseId: CourseId): Promise<Outbox> {
    const [rows, total] = await this.dataSource
      .getRepository(MailRow)
      .findAndCount({ where: { courseId }, order: { at: 'DESC', id: 'DESC' }, take: mailsShown });
    return {
      total,
      mails: rows.map(({ id, at, toName, toAddress, text }) => ({
        id,
        at: at.toISOString(),
        toName,
        toAddress,
        subject: text.subject,
        paragraphs: [...text.paragraphs],
        link: { label: text.link.label, url: text.link.isPersonal ? null : text.link.url },
        why: text.why,
      })),
    };
  }
}
