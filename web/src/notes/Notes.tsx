import { useState } from 'react';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { NoteId } from '@jigsaw/contract/common';
import type { NoteView } from '@jigsaw/contract/notes';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Choice, Field, PersonName, Small, useFontsOf, Waiting } from '../look/index.js';
import { useAct, useKeptDraft } from '../page/index.js';
import {
  useAddNoteMutation,
  useChangeNoteMutation,
  useListNotesQuery,
  useRemoveNoteMutation,
  useRestoreNoteMutation,
} from './notesApi.js';

const Part = styled.section`
  display: grid;
  gap: 10px;
  form {
    display: grid;
    gap: 8px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  ul {
    display: grid;
    gap: 8px;
  }
  li {
    display: grid;
    gap: 4px;
    padding: 10px 12px;
    background: var(--surface);
    border: var(--hair);
    border-left: 3px solid var(--ink);
    border-radius: var(--r-2);
    font: var(--t-13);
  }
  li > p {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
`;

interface NotesProps {
  readonly groupId: string;
  readonly members: readonly { readonly enrolmentId: EnrolmentId; readonly name: string }[];
}

const ofTheGroup = 'group';

/** What staff noted about a group, and a place to note more. */
export function Notes({ groupId, members }: NotesProps) {
  const notes = useListNotesQuery(groupId);
  if (unshown(notes) !== undefined)
    return <ProblemStrip of={notes.error} onRetry={() => void notes.refetch()} />;
  if (!notes.currentData) return <Waiting what="the notes" rows={2} />;
  return (
    <Part aria-label="Notes">
      <h2>Notes</h2>
      <Small>For staff. No student ever sees them.</Small>
      <NewNote groupId={groupId} members={members} />
      <ul>
        {notes.currentData.notes.map((note) => (
          <Note key={note.id} groupId={groupId} note={note} />
        ))}
      </ul>
    </Part>
  );
}

const newId = () => NoteId.parse(uuid());
const Draft = z.object({ text: z.string(), about: z.string() });

/** What is not sent yet stays through a reload; a press that is sent twice writes one note. */
function NewNote({ groupId, members }: NotesProps) {
  const [draft, setDraft, drop] = useKeptDraft(`note ${groupId}`, Draft, { text: '', about: ofTheGroup });
  const [id, setId] = useState(newId);
  const add = useAct(useAddNoteMutation(), { isRefusalShown: true });
  const about = members.find(({ enrolmentId }) => enrolmentId === draft.about)?.enrolmentId ?? null;
  const submit = async () => {
    if (!(await add({ groupId, body: { id, text: draft.text, about } }))) return;
    drop();
    setId(newId());
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {add.error !== undefined && <ProblemStrip of={add.error} />}
      <Field
        label="New note"
        lines={2}
        maxLength={5000}
        value={draft.text}
        onChange={(text) => setDraft({ ...draft, text })}
      />
      <div className="acts">
        <Choice
          label="About"
          isLabelHidden
          value={about ?? ofTheGroup}
          choices={[
            { id: ofTheGroup, label: 'About the group' },
            ...members.map(({ enrolmentId, name }) => ({ id: enrolmentId, label: name })),
          ]}
          onChange={(next) => setDraft({ ...draft, about: next })}
        />
        <Button type="submit" isDisabled={draft.text.trim() === '' || add.isBusy}>
          Add note
        </Button>
      </div>
    </form>
  );
}

interface NoteProps {
  readonly groupId: string;
  readonly note: NoteView;
}
function Note({ groupId, note }: NoteProps) {
  const { dates } = useCourse();
  const [isChanging, setChanging] = useState(false);
  const restore = useAct(useRestoreNoteMutation());
  const remove = useAct(useRemoveNoteMutation(), {
    says: () => 'Note removed',
    undo: () => () => restore({ groupId, noteId: note.id }),
  });
  useFontsOf(note.text);
  const { about, author, createdAt, editedAt, text, mayRemove } = note;
  return (
    <li>
      <Small>
        <PersonName name={author.name} reading={null} />, {dates.dateTime(createdAt)}
        {editedAt && ', edited'}
        {about && (
          <>
            , about <PersonName name={about.name} reading={about.reading} />
          </>
        )}
      </Small>
      {isChanging ? (
        <ChangeNote groupId={groupId} note={note} onClose={() => setChanging(false)} />
      ) : (
        <p dir="auto">{text}</p>
      )}
      {!isChanging && (author.isYou || mayRemove) && (
        <div className="acts">
          {author.isYou && (
            <Button kind="quiet" isSmall onPress={() => setChanging(true)}>
              Edit
            </Button>
          )}
          {mayRemove && (
            <Button kind="quiet" isSmall onPress={() => void remove({ groupId, noteId: note.id })}>
              Remove
            </Button>
          )}
        </div>
      )}
    </li>
  );
}

/** On top of the note as it was when this began. Where another window was faster that is said and shown, and who presses again writes over it. */
function ChangeNote({ groupId, note, onClose }: NoteProps & { readonly onClose: () => void }) {
  const [begunAt] = useState(note.version);
  const [hasSeen, setHasSeen] = useState(false);
  const [text, setText] = useState(note.text);
  const change = useAct(useChangeNoteMutation(), { isRefusalShown: true });
  const submit = async () => {
    const version = hasSeen ? note.version : begunAt;
    if (await change({ groupId, noteId: note.id, body: { text, version } })) onClose();
    else setHasSeen(true);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {change.error !== undefined && <ProblemStrip of={change.error} />}
      {hasSeen && note.version !== begunAt && (
        <Small>
          It now says: <span dir="auto">{note.text}</span>
        </Small>
      )}
      <Field label="Note" lines={3} maxLength={5000} value={text} onChange={setText} autoFocus />
      <div className="acts">
        <Button type="submit" isSmall isDisabled={text.trim() === '' || change.isBusy}>
          Save
        </Button>
        <Button kind="quiet" isSmall onPress={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
