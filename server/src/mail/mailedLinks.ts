import { Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { linkAsked } from '@jigsaw/core/mail';
import { sure } from '@jigsaw/core/lists';
import { PeopleService } from '../identity/index.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { MailService } from './mail.service.js';

const mostWaiting = 1000;

/** Links by mail for anyone who asks on the sign-in page. The answer is the same, and as quick, whether or not anybody has the address: what is
 * to be done is done after it. */
@Injectable()
export class MailedLinks {
  private waiting = 0;
  private last: Promise<void> = Promise.resolve();

  constructor(
    private readonly people: PeopleService,
    private readonly mail: MailService,
    private readonly unitOfWork: UnitOfWork,
    private readonly log: PinoLogger,
  ) {}

  ask(email: string): void {
    if (this.waiting >= mostWaiting) return;
    this.waiting += 1;
    this.last = this.last
      .then(() => this.send(email))
      .catch((error: unknown) => this.log.error({ err: error }, 'a link by mail could not be written'))
      .finally(() => (this.waiting -= 1));
  }

  /** Once all that was asked for until now is done. */
  settled(): Promise<void> {
    return this.last;
  }

  private send(email: string): Promise<void> {
    return this.unitOfWork.run(async ({ manager, now }) => {
      const person = await this.people.askingForLink(manager, email);
      if (!person) return;
      const { urlOf, expiresAt } = await this.people.mailedLinks(manager, [person.id]);
      const text = linkAsked({
        url: sure(urlOf.get(person.id)),
        until: untilWords(expiresAt, 'UTC'),
      });
      await this.mail.post(manager, null, now, [
        { personId: person.id, toName: person.name, toAddress: person.email, text },
      ]);
    });
  }
}

/** "Saturday 12 December 2026 at 10:00 UTC" */
export const untilWords = (at: Date, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZoneName: 'short',
    timeZone,
  }).format(at);
