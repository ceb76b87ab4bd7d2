import { Inject, Injectable } from '@nestjs/common';
import type { Viewer } from '@jigsaw/core/course';
import type { EnrolmentId, ThreadId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { message } from '@jigsaw/core/mail';
import { courseOf } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { MailService } from '../mail/index.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import type { Work } from '../platform/unitOfWork.js';
import { addressesOf } from './hearing.js';

export interface ToMail {
  readonly threadId: ThreadId;
  readonly subject: string;
  readonly text: string;
  readonly to: readonly EnrolmentId[];
}

/** Messages go by mail too, with the way to the thread. */
@Injectable()
export class MessageMail {
  constructor(
    private readonly mail: MailService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** The writer gets no mail of their own. */
  async post(
    { manager, now }: Work,
    person: SignedIn,
    { courseId, enrolmentId }: Viewer,
    messages: readonly ToMail[],
  ): Promise<void> {
    const to = new Set(messages.flatMap((each) => each.to));
    to.delete(enrolmentId);
    if (to.size === 0) return;
    const addresses = keyedBy(await addressesOf(manager, courseId, to), (each) => each.enrolmentId);
    const { code } = await courseOf(manager, courseId);
    const base = `${this.config.publicUrl}/c/${courseId}/messages`;
    const mails = messages.flatMap(({ threadId, subject, text, to: each }) => {
      const mail = message({
        subject,
        text,
        from: person.name,
        courseCode: code,
        url: `${base}/${threadId}`,
      });
      return each.flatMap((id) => {
        const found = addresses.get(id);
        if (!found) return [];
        const { personId, toName, toAddress } = found;
        return [{ personId, toName, toAddress, text: mail }];
      });
    });
    await this.mail.post(manager, courseId, now, mails);
  }
}
