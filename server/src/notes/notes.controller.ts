import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { GroupId, NoteId } from '@jigsaw/contract/common';
import { AddNote, ChangeNote, NoteList, NoteView } from '@jigsaw/contract/notes';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { NotesService } from './notes.service.js';

@ApiTags('notes')
@Controller()
export class NotesController {
  constructor(private readonly notes: NotesService) {}

  @Endpoint('GET /groups/:groupId/notes', {
    id: 'listNotes',
    does: 'What staff noted about a group and its members, for those who mark its work',
    answer: NoteList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<NoteList> {
    return this.notes.list(person, groupId);
  }

  @Endpoint('POST /groups/:groupId/notes', {
    id: 'addNote',
    does: 'Note something about a group or one of its members, for staff alone',
    body: AddNote,
    largestKb: 32,
    answer: NoteView,
  })
  add(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(AddNote) request: AddNote,
  ): Promise<NoteView> {
    return this.notes.add(person, groupId, request);
  }

  @Endpoint('PUT /notes/:noteId', {
    id: 'changeNote',
    does: "Change one's own note",
    body: ChangeNote,
    largestKb: 32,
    answer: NoteList,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('noteId', NoteId) noteId: ids.NoteId,
    @Takes(ChangeNote) request: ChangeNote,
  ): Promise<NoteList> {
    return this.notes.change(person, noteId, request);
  }

  @Endpoint('DELETE /notes/:noteId', {
    id: 'removeNote',
    does: 'Remove a note; it can be restored',
    answer: NoteList,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('noteId', NoteId) noteId: ids.NoteId,
  ): Promise<NoteList> {
    return this.notes.remove(person, noteId, true);
  }

  @Endpoint('POST /notes/:noteId/restore', {
    id: 'restoreNote',
    does: 'A note that was removed is there again',
    answer: NoteList,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('noteId', NoteId) noteId: ids.NoteId,
  ): Promise<NoteList> {
    return this.notes.remove(person, noteId, false);
  }
}
