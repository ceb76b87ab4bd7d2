import type { MailText } from './invitation.js';

export interface Message {
  readonly subject: string;
  /** As typed; an empty line begins a paragraph. */
  readonly text: string;
  readonly from: { readonly name: string; readonly email: string };
  readonly courseCode: string;
  readonly url: string;
}

/** What staff write to people of the roster. */
export const message = ({ subject, text, from, courseCode, url }: Message): MailText => ({
  subject,
  paragraphs: text
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.trim())
    .filter((paragraph) => paragraph !== ''),
  link: { label: 'Open the course', url, isPersonal: false },
  why: `${from.name} wrote to you through the course ${courseCode}. Reply to ${from.email}.`,
});
