import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, IsNull } from 'typeorm';
import type { AddNote, ChangeNote, NoteList, NoteView } from '@jigsaw/contract/notes';
import type { ActType } from '@jigsaw/core/audit';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, GroupId, NoteId } from '@jigsaw/core/ids';
import { authorsById, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { membersByName, staffOfRoom } from '../rooms/index.js';
import { NoteRow } from './notes.rows.js';

/** Of one group. */
const mostNotes = 500;

/** Notes of staff about a group, for those of them who mark its work. */
@Injectable()
export class NotesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
  ) {}

  /** @throws not-found for a group that is not theirs to note something about, too. */
  async list(person: SignedIn, groupId: GroupId): Promise<NoteList> {
    const { manager } = this.dataSource;
    return notesOf(manager, await staffOfRoom(manager, this.viewers, person, groupId, 'keep-notes'), groupId);
  }

  /** Sent twice it is written once.
   * @throws invalid-input for someone who is not in the group. */
  async add(person: SignedIn, groupId: GroupId, { id, text, about }: AddNote): Promise<NoteView> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const viewer = await staffOfRoom(manager, this.viewers, person, groupId, 'keep-notes');
      const members = await membersByName(manager, [groupId]);
      if (about !== null && !members.some(({ enrolmentId }) => enrolmentId === about))
        throw problems.invalidInput('They are not in this group any more. Write it about the group.');
      if ((await manager.countBy(NoteRow, { groupId, deletedAt: IsNull() })) >= mostNotes)
        throw problems.conflict(`${mostNotes} notes are the most. Remove one that is not needed any more.`);
      const written = await manager.query<unknown[]>(
        `INSERT INTO "staff_note" ("id", "groupId", "authorId", "aboutId", "text", "createdAt", "version") VALUES ($1, $2, $3, $4, $5, $6, 1) ON CONFLICT DO NOTHING RETURNING "id"`,
        [id, groupId, viewer.enrolmentId, about, text, now],
      );
      const { courseId } = viewer;
      if (written.length > 0)
        await tell(work, person, { courseId, type: 'note.written', note: { id, groupId } });
      const { notes } = await notesOf(manager, viewer, groupId);
      const note = notes.find((each) => each.id === id);
      if (!note) throw problems.conflict('This note was removed meanwhile. Restore it, or write a new one.');
      return note;
    });
  }

  /** @throws stale-write with the note as it is.
   * @throws not-yours for anyone but its author. */
  async change(person: SignedIn, noteId: NoteId, { text, version }: ChangeNote): Promise<NoteList> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const { note, viewer } = await this.lock(manager, person, noteId);
      if (note.deletedAt) throw problems.notFound();
      if (note.authorId !== viewer.enrolmentId) throw problems.notYours('Only its author changes a note.');
      const { notes } = await notesOf(manager, viewer, note.groupId);
      if (note.version !== version)
        throw problems.staleWrite(
          notes.find(({ id }) => id === noteId),
          'You changed this in another window. Both texts are here; choose one.',
        );
      await manager.update(NoteRow, noteId, { text, version: version + 1, editedAt: now });
      await tell(work, person, { courseId: viewer.courseId, type: 'note.changed', note });
      return notesOf(manager, viewer, note.groupId);
    });
  }

  /** Its author, or who manages the groups, removes a note and restores it. */
  async remove(person: SignedIn, noteId: NoteId, isRemoved: boolean): Promise<NoteList> {
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const { note, viewer } = await this.lock(manager, person, noteId);
      if (!mayRemove(viewer, note)) throw problems.notYours('Its author removes a note, or an instructor.');
      if (isRemoved !== (note.deletedAt !== null)) {
        await manager.update(NoteRow, noteId, { deletedAt: isRemoved ? now : null });
        const type = isRemoved ? 'note.removed' : 'note.restored';
        await tell(work, person, { courseId: viewer.courseId, type, note });
      }
      return notesOf(manager, viewer, note.groupId);
    });
  }

  private async lock(
    manager: EntityManager,
    person: SignedIn,
    noteId: NoteId,
  ): Promise<{ note: NoteRow; viewer: Viewer }> {
    const note = await manager.findOne(NoteRow, { where: { id: noteId }, lock: { mode: 'pessimistic_write' } }); // prettier-ignore
    if (!note) throw problems.notFound();
    return { note, viewer: await staffOfRoom(manager, this.viewers, person, note.groupId, 'keep-notes') };
  }
}

interface Told {
  readonly courseId: CourseId;
  readonly type: ActType;
  readonly note: Pick<NoteRow, 'id' | 'groupId'>;
}
const tell = ({ record }: Work, person: SignedIn, { courseId, type, note }: Told) =>
  record({
    type,
    courseId,
    actorId: person.id,
    subjectId: note.id,
    facts: { groupId: note.groupId },
    staff: 'keep-notes',
    staffOf: note.groupId,
  });

const mayRemove = (viewer: Viewer, note: NoteRow) =>
  note.authorId === viewer.enrolmentId || may(viewer.role, 'manage-groups');

async function notesOf(manager: EntityManager, viewer: Viewer, groupId: GroupId): Promise<NoteList> {
  const rows = await manager.find(NoteRow, {
    where: { groupId, deletedAt: IsNull() },
    order: { createdAt: 'DESC', id: 'DESC' },
  });
  const ids = rows.flatMap(({ authorId, aboutId }) => (aboutId ? [authorId, aboutId] : [authorId]));
  const person = await authorsById(manager, ids, viewer.enrolmentId);
  const about = ({ aboutId }: NoteRow): NoteView['about'] => {
    if (aboutId === null) return null;
    const { enrolmentId, name, reading } = person(aboutId);
    return { enrolmentId, name, reading };
  };
  return {
    notes: rows.map((note) => ({
      id: note.id,
      text: note.text,
      about: about(note),
      author: person(note.authorId),
      createdAt: note.createdAt.toISOString(),
      editedAt: note.editedAt?.toISOString() ?? null,
      version: note.version,
      mayRemove: mayRemove(viewer, note),
    })),
  };
}
