import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { HandInView, PartView, WorkFile, WorkView } from '@jigsaw/contract/handin';
import type { Author, Member } from '@jigsaw/contract/course';
import type { PageView as WikiPageView, RevisionLine, WikiView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { id, at, text, aMember } from './people.js';

export const aWork = ({
  rules,
  ...more
}: Partial<Omit<WorkView, 'rules'>> & { rules?: Partial<WorkView['rules']> } = {}): WorkView => ({
  copyId: id('copy'),
  rules: {
    by: 'group',
    takesText: true,
    mostFiles: 50,
    types: [],
    largestMb: 250,
    attempts: 'latest',
    ...rules,
  },
  mayHandIn: true,
  parts: [],
  files: [],
  handIns: [],
  state: 'not-started',
  ...more,
});

export const aPart = (author: Member, words: string): PartView => ({
  author,
  text: text(words),
  words: words.split(' ').length,
  version: 1,
  updatedAt: at,
});

export const anAuthor = (name: string, more: Partial<Author> = {}): Author => ({
  ...aMember(name),
  isStaff: false,
  ...more,
});

/** A post that opens a thread, unless it answers another. */
export const aPost = (name: string, words: string, more: Partial<PostView> = {}): PostView => ({
  id: id(`p${words}`),
  threadId: more.parentId ?? id(`p${words}`),
  parentId: null,
  author: anAuthor(name, { isYou: name === 'Noor' }),
  text: text(words),
  words: words.split(' ').length,
  version: 1,
  createdAt: at,
  editedAt: null,
  deletedBy: null,
  isNew: false,
  mayChange: name === 'Noor',
  mayDelete: name === 'Noor',
  ...more,
});

export const aTalk = (
  threads: readonly (readonly PostView[])[],
  more: Partial<DiscussionView> = {},
): DiscussionView => ({
  threads: threads.map((posts) => ({ id: sure(posts[0]).id, posts: [...posts] })),
  asOf: 700,
  next: null,
  mayOpenThread: true,
  mayReply: true,
  met: [],
  ...more,
});

export const aRevision = (number: number, name: string, more: Partial<RevisionLine> = {}): RevisionLine => ({
  number,
  title: 'Days 15 to 28',
  author: anAuthor(name),
  savedAt: at,
  words: 10,
  added: 4,
  removed: 1,
  ...more,
});

export const aPage = (words: string, revision = 2, more: Partial<WikiPageView> = {}): WikiPageView => ({
  id: id('page'),
  title: 'Days 15 to 28',
  text: text(words),
  words: words.split(' ').length,
  revision,
  savedAt: at,
  savedBy: anAuthor('Jorge'),
  isDeleted: false,
  mayWrite: true,
  revisions: Array.from({ length: revision }, (_, index) =>
    aRevision(revision - index, index % 2 ? 'Noor' : 'Jorge'),
  ),
  ...more,
});

export const aWiki = (page: WikiPageView, more: Partial<WikiView> = {}): WikiView => ({
  pages: [
    {
      id: page.id,
      title: page.title,
      words: page.words,
      revision: page.revision,
      savedAt: at,
      savedBy: page.savedBy,
      isNew: false,
      isDeleted: page.isDeleted,
    },
  ],
  mayWrite: true,
  writers: [],
  ...more,
});

export const aFile = (name: string, addedBy: Member): WorkFile => ({
  id: id(name),
  name,
  mediaType: 'text/plain',
  sizeBytes: 2048,
  addedBy,
  addedAt: at,
  isHandedIn: false,
});

export const aHandIn = (more: Partial<HandInView> = {}): HandInView => ({
  id: id('handin'),
  attempt: 1,
  owner: null,
  handedInAt: at,
  handedInBy: aMember('Jorge'),
  late: { minutes: 0, deduction: '0' },
  credited: [aMember('Noor'), aMember('Jorge')],
  parts: [{ author: aMember('Jorge'), text: text('It fell to 4.4.'), words: 4 }],
  files: [],
  ...more,
});
