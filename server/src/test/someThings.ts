import { randomUUID } from 'node:crypto';
import type { AudienceView } from '@jigsaw/contract/audiences';
import type { HeadingView, OutlineView } from '@jigsaw/contract/outline';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView } from '@jigsaw/contract/release';
import type { RosterChangeList as Changes } from '@jigsaw/contract/roster';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { ShelfView } from '@jigsaw/contract/shelf';
import type { WikiView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { addFile, aText, putOnShelf, attachedTo, copyOf, putOwn, released, toRead } from './aCourse.js';
import type { z } from 'zod';
import type { CourseForTests } from './aCourse.js';
import type { Browser } from './testServer.js';

/** What there is in a course, made for its group Crock (Noor and Jorge) where it is a group's. */
export interface Things {
  readonly live: ActivityView;
  /** Crock's copies: an assignment, a discussion, a wiki and an event. */
  readonly copyId: string;
  readonly talk: string;
  readonly wiki: string;
  readonly event: string;
  readonly call: string;
  /** Of an assignment, with one version that Noor put there. */
  readonly ownFile: { readonly copyId: string; readonly fileId: string };
  readonly visitId: string;
  /** A questionnaire, its activity and its one question, on a scale. */
  readonly poll: { readonly copyId: string; readonly activityId: string; readonly question: string };
  /** Attached to the assignment. */
  readonly attachedId: string;
  readonly post: { readonly id: string; readonly parentId: null; readonly text: unknown };
  readonly pageId: string;
  readonly fileId: string;
  /** A second set, in which students choose their places. */
  readonly other: GroupSetView;
  readonly panels: BoardView['groups'];
  /** Expert tables of the course's bench teams. */
  readonly tables: GroupSetView;
  readonly changeId: string;
  readonly audience: AudienceView;
  readonly heading: HeadingView;
  /** Of the instructor, about Crock. */
  readonly noteId: string;
  /** Of Noor, on the shelf of Crock. */
  readonly shelfId: string;
  /** Of Noor in Crock, with a second message by the instructor. */
  readonly threadId: string;
  readonly messageId: string;
  /** Of the instructor to two students. */
  readonly sendingId: string;
}

export async function someThings(given: CourseForTests): Promise<Things> {
  const { instructor, course } = given;
  const noor = sure(given.students.get('noor'));
  const read = async <Answer>(path: string, by: Browser = instructor) =>
    (await by.get(`/api/${path}`).expect(200)).body as Answer;
  const attached = await attachedTo(given, 'brief.txt', course.id);
  const live = attached.live;
  await released(given, { kind: 'discussion', title: 'Talk', settings: {} });
  await released(given, { kind: 'wiki', title: 'Pages', settings: {} });
  await released(given, toRead('event', { title: 'Meeting', settings: { starts: '2026-11-12T10:00:00.000Z', ends: '2026-11-12T11:00:00.000Z' } })); // prettier-ignore
  const copyId = await copyOf(noor.browser, course.id);
  const event = await copyOf(noor.browser, course.id, 'Meeting');
  await released(given, toRead('call', { title: 'Bench call' }));
  const sheet = await attachedTo(given, 'sheet.csv', 'day,pH', { isPerGroup: true, title: 'Sheet' });
  const ownFile = { copyId: await copyOf(noor.browser, course.id, 'Sheet'), fileId: sheet.fileId };
  await putOwn(noor.browser, ownFile.copyId, ownFile.fileId, 0, course.id).expect(200);
  const call = await copyOf(noor.browser, course.id, 'Bench call');
  const visitId = randomUUID();
  await noor.browser.post(`/api/copies/${call}/call/visits`).send({ id: visitId }).expect(200);
  const question = randomUUID();
  const asked = await released(given, toRead('questionnaire', { title: 'Poll', settings: { questions: [{ id: question, kind: 'scale', text: 'How sour?' }] } })); // prettier-ignore
  const poll = { activityId: asked.id, copyId: await copyOf(noor.browser, course.id, 'Poll'), question };
  const talk = await copyOf(noor.browser, course.id, 'Talk');
  const wiki = await copyOf(noor.browser, course.id, 'Pages');
  const post = { id: randomUUID(), parentId: null, text: aText('pH') };
  await noor.browser.post(`/api/copies/${talk}/posts`).send(post).expect(200);
  const [page] = (await read<WikiView>(`copies/${wiki}/wiki`, noor.browser)).pages;
  const other = (
    await instructor
      .post(`/api/courses/${course.id}/sets`)
      .send({ name: 'Panels', shape: { by: 'count', groups: 2 }, capacity: null, pattern: 'Panel {n}', names: [], signUp: { opens: null, closes: null, showsNames: true } })
      .expect(200)
  ).body as GroupSetView; // prettier-ignore
  const panels = (await read<BoardView>(`sets/${other.id}/board`)).groups;
  const experts = { name: 'Experts', topics: ['Salt', 'Starch'], most: null, seed: 3 };
  const tables = (await instructor.post(`/api/sets/${given.set.id}/experts`).send(experts).expect(200)).body as GroupSetView; // prettier-ignore
  const fileId = sure((await addFile(noor.browser, copyId, 'log.txt', Buffer.from(course.id))).files[0]).id;
  await instructor
    .put(`/api/courses/${course.id}/roster/attributes`)
    .send({ name: 'Home', kind: 'category' })
    .expect(200);
  await instructor
    .post(`/api/courses/${course.id}/roster/changes`)
    .send({ act: 'edit', edits: [{ enrolmentId: noor.enrolmentId, from: {}, to: { number: '11' } }] })
    .expect(200);
  const { changes } = await read<z.output<typeof Changes>>(`courses/${course.id}/roster/changes`);
  const changeId = sure(changes[0]).id;
  const audience = (
    await instructor
      .post(`/api/courses/${course.id}/audiences`)
      .send({ name: 'Dairy', include: wholeSet(given.set.id).include, exclude: [] })
      .expect(200)
  ).body as AudienceView;
  const outline = (
    await instructor.post(`/api/courses/${course.id}/headings`).send({ title: 'Milk' }).expect(200)
  ).body as OutlineView;
  const noteId = randomUUID();
  await instructor.post(`/api/groups/${sure(given.board.groups[0]).id}/notes`).send({ id: noteId, text: 'Quiet', about: null }).expect(200); // prettier-ignore
  const shelf = (await putOnShelf(noor.browser, sure(given.board.groups[0]).id, 'plan.txt', 'Salt first').expect(200)).body as ShelfView; // prettier-ignore
  const [threadId, messageId, sendingId] = [randomUUID(), randomUUID(), randomUUID()];
  const write = (by: Browser, id: string, to: object, count: number) =>
    by.post(`/api/courses/${course.id}/messages`).send({ id, to, subject: 'Jars', text: 'Two', count }).expect(200); // prettier-ignore
  await write(noor.browser, threadId, { kind: 'groups', groupIds: [sure(given.board.groups[0]).id] }, 1);
  await instructor
    .post(`/api/threads/${threadId}/messages`)
    .send({ id: messageId, text: 'Good' })
    .expect(200);
  const two = [...given.students.values()].slice(0, 2).map(({ enrolmentId }) => enrolmentId);
  await write(instructor, sendingId, { kind: 'people', enrolmentIds: two }, 2);
  return {
    threadId,
    messageId,
    sendingId,
    noteId,
    shelfId: sure(shelf.files[0]).id,
    audience,
    heading: sure(outline.headings[0]),
    live,
    copyId,
    talk,
    wiki,
    event,
    call,
    ownFile,
    visitId,
    poll,
    attachedId: attached.fileId,
    post,
    pageId: sure(page).id,
    fileId,
    other,
    panels,
    tables,
    changeId,
  };
}
