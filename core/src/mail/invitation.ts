/** `isPersonal`: it lets its reader in, so no one else may see where it leads. */
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
  /** Why it was written, for anyone who wonders. */
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

/** How someone learns that they are in a course and comes in for the first time. */
export const invitation = ({ name, courseTitle, courseCode, invitedBy, url, until }: Invited): MailText => ({
  subject: `Your place in ${courseTitle}`,
  paragraphs: [
    `Hello ${name},`,
    `${invitedBy} has added you to ${courseTitle} (${courseCode}). You find your group and its work there.`,
    `Choose a password to sign in. The link is only for you. It works once, until ${until}.`,
  ],
  link: { label: 'Choose a password', url, isPersonal: true },
  why: `You are on the roster of ${courseCode} and have not signed in yet.`,
});
