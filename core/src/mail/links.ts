import type { MailText } from './invitation.js';

export interface PersonalLink {
  readonly url: string;
  /** In words. */
  readonly until: string;
}

/** To an address for which a password was chosen with a link that a course handed out: someone else may have had the link. */
export const passwordChosen = ({
  courseTitle,
  courseCode,
  url,
  until,
}: PersonalLink & { readonly courseTitle: string; readonly courseCode: string }): MailText => ({
  subject: 'A password was chosen for your address',
  paragraphs: [
    `Someone chose a password for this email address, with a sign-in link from ${courseTitle} (${courseCode}). If that was you, you do not need to do anything.`,
    `If it was not you, or to see all your courses, choose a new password with the link below. Everyone who signed in with the old password is signed out. The link is only for you. It works once, until ${until}.`,
  ],
  link: { label: 'Choose a new password', url, isPersonal: true },
  why: `This address is on the roster of ${courseCode}.`,
});

/** To someone who asked for a link on the sign-in page. */
export const linkAsked = ({ url, until }: PersonalLink): MailText => ({
  subject: 'Your link to sign in',
  paragraphs: [
    'Someone asked for a sign-in link for this email address. If it was not you, ignore this message; nothing changes.',
    `The link lets you choose a new password and see all your courses. It is only for you. It works once, until ${until}.`,
  ],
  link: { label: 'Choose a password', url, isPersonal: true },
  why: 'This was asked for on the sign-in page.',
});
