import { mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { OnModuleDestroy } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { createTransport } from 'nodemailer';
import { DataSource } from 'typeorm';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import type { MailRow } from './mail.rows.js';

const everyMs = 1000;
const atOnce = 100;

type Waiting = Pick<MailRow, 'id' | 'at' | 'toName' | 'toAddress' | 'text'>;

/** The stand-in for a mail server: each message becomes a file (RFC 5322, .eml) in a folder of the person who runs the server. Nothing leaves the
 * machine. A personal link is kept here until then, and no longer. */
@Injectable()
export class MailCarrier implements OnModuleDestroy {
  private readonly writer = createTransport({ streamTransport: true, buffer: true, newline: 'unix' });
  private timer: NodeJS.Timeout | null = null;
  private underWay: Promise<void> = Promise.resolve();

  constructor(
    private readonly dataSource: DataSource,
    private readonly log: PinoLogger,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Looks for mail again and again from now on, until the application ends. */
  start(): void {
    if (this.config.mailFolder === null) return;
    let isStuck = false;
    this.timer = setInterval(() => {
      this.carry().then(
        () => (isStuck = false),
        (error: unknown) => {
          // Said once, not every second of a full disk.
          if (!isStuck) this.log.error({ err: error }, 'mail could not be written');
          isStuck = true;
        },
      );
    }, everyMs);
  }

  async onModuleDestroy(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.underWay.catch(() => undefined); // said when it failed
  }

  /** All that waits; what fails stays and is tried again. */
  carry(): Promise<void> {
    const after = this.underWay.catch(() => undefined); // said when it failed
    this.underWay = after.then(() => this.carryAll());
    return this.underWay;
  }

  private async carryAll(): Promise<void> {
    const folder = this.config.mailFolder;
    if (folder === null) return;
    await mkdir(folder, { recursive: true, mode: 0o700 });
    while ((await this.carrySome(folder)) === atOnce);
  }

  /** A message may be written twice if the server ends between file and row, and is never lost. */
  private carrySome(folder: string): Promise<number> {
    return this.dataSource.transaction(async (manager) => {
      const mails = await manager.query<Waiting[]>(
        `SELECT "id", "at", "toName", "toAddress", "text" FROM "mail" WHERE "carriedAt" IS NULL
          ORDER BY "at", "id" LIMIT $1 FOR UPDATE SKIP LOCKED`,
        [atOnce],
      );
      for (const mail of mails)
        await writeFile(path.join(folder, fileName(mail)), await this.messageOf(mail), { mode: 0o600 });
      await manager.query(
        `UPDATE "mail" SET "carriedAt" = now(),
                "text" = CASE WHEN ("text"->'link'->>'isPersonal')::boolean THEN jsonb_set("text", '{link,url}', '""') ELSE "text" END
          WHERE "id" = ANY($1)`,
        [mails.map((mail) => mail.id)],
      );
      return mails.length;
    });
  }

  private async messageOf({ id, at, toName, toAddress, text }: Waiting): Promise<Buffer> {
    const { subject, paragraphs, link, why } = text;
    const { message } = await this.writer.sendMail({
      messageId: `<${id}@jigsaw-room.invalid>`,
      from: { name: 'Jigsaw Room', address: 'no-reply@jigsaw-room.invalid' },
      to: { name: toName, address: toAddress },
      date: at,
      subject,
      text: [...paragraphs, `${link.label}:\n${link.url}`, why].join('\n\n'),
    });
    return message as Buffer; // since `buffer` is set
  }
}

/** In the order of time in any listing. */
const fileName = ({ id, at, toAddress }: Waiting): string =>
  `${at.toISOString().replaceAll(/[:.]/g, '-')} ${toAddress.replaceAll(/[^\w@.+-]/g, '_').slice(0, 100)} ${id.slice(-8)}.eml`;
