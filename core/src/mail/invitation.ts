/** `isPersonal`: it lets its reader in, so nobody else may see where it leads. */
export interface MailLink {
  readonly label: string;
  readonly url: string;
  readonly isPersonal: boolean;
}

/** A message as its reader sees it. The link stands alone, so that it can be a button or a line. */
export interface MailText {
  readonly subject: string;
  readonly paragraphs: readonly string[];
  readonly link: MailLink;
  /** Why it was written, for whoever wonders. */
  readonly why: string;
}

export interface Invited {
  readonly name: string;
  readonly courseTitle: string;
  readonly courseCode: string;
  readonly invitedBy: string;
  readonly url: string;
  /** In the course's own time. */
  readonly until: string;
}

/** How somebody learns that they are in a course and comes in for the first time. */
export const invitation = ({ name, courseTitle, courseCode, invitedBy, url, until }: Invited): MailText => ({
  subject: `Your place in ${courseTitle}`,
  paragraphs: [
    `Hello ${name},`,
    `${invitedBy} has put you on the roster of ${courseTitle} (${courseCode}). Your group and its work are there.`,
    `Choose a password to come in. The link is yours alone: it works once, until ${until}.`,
  ],
  link: { label: 'Choose a password and come in', url, isPersonal: true },
  why: `You are on the roster of ${courseCode} and have not come in yet.`,
});
