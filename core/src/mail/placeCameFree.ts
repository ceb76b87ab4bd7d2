import type { MailText } from './invitation.js';

export interface FreePlace {
  readonly name: string;
  readonly group: string;
  readonly courseCode: string;
  readonly url: string;
}

/** To a student who asked to hear of it. */
export const placeCameFree = ({ name, group, courseCode, url }: FreePlace): MailText => ({
  subject: `A place in ${group} is free`,
  paragraphs: [
    `Hello ${name},`,
    `${group} has a free place now. Places are first come, first served. This message does not reserve it.`,
  ],
  link: { label: 'Choose your group', url, isPersonal: false },
  why: `You asked in ${courseCode} to be told when a place in ${group} is free. You are told once; ask again if you need to.`,
});
