import type { MailText } from './invitation.js';

export interface Message {
  readonly subject: string;
  /** As typed; an empty line begins a paragraph. */
  readonly text: string;
  /** Who wrote it. */
  readonly from: string;
  readonly courseCode: string;
  /** Where it is read and replied to. */
  readonly url: string;
}

/** What people of a course write to one another. */
export const message = ({ subject, text, from, courseCode, url }: Message): MailText => ({
  subject,
  paragraphs: text
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.trim())
    .filter((paragraph) => paragraph !== ''),
  link: { label: 'Read and reply', url, isPersonal: false },
  why: `${from} wrote to you in the course ${courseCode}. Reply there; mail to this address is not read.`,
});
