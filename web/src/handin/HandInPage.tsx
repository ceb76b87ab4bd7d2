import { Paperclip } from 'lucide-react';
import { Suspense, useEffect, useRef, useState } from 'react';
import { FileTrigger, ProgressBar } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import { WorkView } from '@jigsaw/contract/handin';
import type { WorkFile } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { RichTextNode } from '@jigsaw/core/text';
import { counted, emptyText } from '@jigsaw/core/text';
import { api, ProblemStrip } from '../api/index.js';
import { saySaved, useAutosave, useAct } from '../page/index.js';
import { CopyFrame, useMarkSeenMutation, valuesOf } from '../rooms/index.js';
import { Button, PersonName, Small, Tag, useNotice, Waiting } from '../look/index.js';
import { RichText, RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { RubricTable } from '../rubric/index.js';
import {
  useHandInMutation,
  useReadWorkQuery,
  useSavePartMutation,
  useTakeOutFileMutation,
} from './handinApi.js';
import { uploadFile } from './uploadFile.js';
import type { Upload } from './uploadFile.js';
import { sayLate } from './words.js';
import { FileList, HandedInWork, PartView } from './HandedIn.js';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  min-height: 0;
  @media (max-width: 900px) {
    display: block;
  }
`;
const Main = styled.div`
  overflow: auto;
  padding: 22px 32px 40px;
  display: grid;
  gap: 22px;
  align-content: start;
  > section,
  > details {
    max-width: 820px;
  }
  h2 {
    margin-bottom: 8px;
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
    margin-top: 8px;
  }
  h2 small {
    font: var(--t-13);
    color: var(--ink-2);
    margin-left: 8px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
const Side = styled.aside`
  overflow: auto;
  border-left: 1px solid var(--ink);
  background: var(--surface);
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  align-content: start;
  .main button {
    width: 100%;
    height: 44px;
    font-size: 15px;
  }
  ol {
    display: grid;
    gap: 8px;
    border-top: var(--hair);
    padding-top: 12px;
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: 1px solid var(--ink);
    padding: 16px;
  }
`;
const Brief = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 16px 20px;
`;
const OneStudent = styled.section`
  border-top: var(--hair);
  padding: 10px 0;
  > header {
    display: flex;
    align-items: baseline;
    gap: 10px;
    margin-bottom: 6px;
  }
`;
const Arriving = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 10px;
  align-items: center;
  padding: 8px 12px;
  margin-top: 6px;
  border: 1px dashed var(--edge);
  border-radius: var(--r-2);
  [role='progressbar'] {
    grid-column: 1 / -1;
    height: 6px;
    background: var(--sunk);
    border-radius: 2px;
  }
  i {
    display: block;
    height: 6px;
    border-radius: 2px;
    background: var(--hue);
  }
`;

/** What is handed in: read, written and added to by its members, read by staff. */
export default function HandInPage({ head }: { readonly head: CopyHead }) {
  const work = useReadWorkQuery(head.id);
  const [markSeen] = useMarkSeenMutation();
  const { unread } = head;
  useEffect(() => {
    if (unread > 0) void markSeen({ copyId: head.id, body: { what: 'all' } });
  }, [unread, head.id, markSeen]);
  return (
    <CopyFrame head={head} note={sayWhose(head, work.data)}>
      {work.data ? (
        <Work head={head} work={work.data} />
      ) : work.error ? (
        <ProblemStrip of={work.error} onRetry={() => void work.refetch()} />
      ) : (
        <Waiting what="the work" />
      )}
    </CopyFrame>
  );
}

const sayPoints = ({ points }: CopyHead) => (points === null ? 'not marked' : `${points} points`);
function sayWhose(head: CopyHead, work: WorkView | undefined): string {
  if (work?.rules.by === 'student')
    return `Each hands in alone, ${sayPoints(head)}. Teammates do not see it.`;
  return `One hand-in for the ${head.members.length} of ${head.part === 'member' ? 'you' : 'them'}, ${sayPoints(head)}`;
}

function Work({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const others = work.parts.filter((part) => !part.author.isYou && part.words > 0);
  const isEach = work.rules.by === 'student';
  return (
    <Body>
      <Main>
        <Brief aria-label="Brief">
          <RichText node={head.brief} values={valuesOf(head)} />
        </Brief>
        {head.rubric && head.points !== null && (
          <RubricTable rubric={head.rubric} points={head.points} isFolded />
        )}
        {!work.mayHandIn && <ProblemStrip>{sayWhyNot(head, work)}</ProblemStrip>}
        {work.mayHandIn && work.rules.takesText && <OwnPart head={head} work={work} />}
        {isEach && head.part !== 'member' ? (
          <EachHandIn head={head} work={work} />
        ) : (
          <FilesSection head={head} work={work} />
        )}
        {others.length > 0 && (
          <section aria-label="What the others wrote">
            <h2>
              What the others wrote<small>only they can change it</small>
            </h2>
            {others.map((part) => (
              <PartView key={part.author.enrolmentId} part={part} />
            ))}
          </section>
        )}
      </Main>
      {!(isEach && head.part !== 'member') && <HandInSide head={head} work={work} />}
    </Body>
  );
}

function sayWhyNot(head: CopyHead, work: WorkView): string {
  if (head.part === 'staff') return 'This is the students’ own work; you can read it.';
  if (head.part === 'reader') return 'This is another group’s work; you can read it.';
  if (head.access === 'read-only') return 'This is closed. You can read it, but no longer change it.';
  return work.rules.attempts === 'one'
    ? 'One hand-in is taken here, and it is in.'
    : 'You can read it, but not change it.';
}

/** For staff: what each student of a group handed in alone. */
function EachHandIn({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  return (
    <section aria-label="Hand-ins">
      <h2>Hand-ins</h2>
      {head.members.map((member) => {
        const own = work.handIns.filter((handIn) => handIn.owner?.enrolmentId === member.enrolmentId);
        return (
          <OneStudent key={member.enrolmentId} aria-label={member.name}>
            <header>
              <b>
                <PersonName name={member.name} reading={member.reading} />
              </b>
              <Small>
                {own[0]
                  ? `${dates.dateTime(own[0].handedInAt)}, ${sayLate(own[0].late) ?? 'on time'}`
                  : 'not handed in'}
              </Small>
            </header>
            {own.map((handIn) => (
              <HandedInWork key={handIn.id} copyId={head.id} handIn={handIn} dates={dates} />
            ))}
          </OneStudent>
        );
      })}
    </section>
  );
}

/** One's own part of the text. Nobody else can change it, and it can change nobody else's. */
function OwnPart({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const own = work.parts.find((part) => part.author.isYou);
  const [text, setText] = useState<RichTextNode>(own?.text ?? emptyText);
  const version = useRef(own?.version ?? 0);
  const [save] = useSavePartMutation();
  const autosave = useAutosave<RichTextNode>(async (value) => {
    const saved = await save({ copyId: head.id, body: { text: value, version: version.current } }).unwrap();
    version.current = saved.parts.find((part) => part.author.isYou)?.version ?? version.current;
  });
  const change = (next: RichTextNode) => {
    setText(next);
    autosave.change(next);
  };
  const { state } = autosave;
  const theirs =
    state.kind === 'conflict'
      ? WorkView.safeParse(state.current).data?.parts.find((part) => part.author.isYou)
      : undefined;
  return (
    <section aria-label="Your part">
      <h2>
        Your part<small role="status">{saySaved(state, dates.time)}</small>
      </h2>
      {state.kind === 'failed' && (
        <ProblemStrip onRetry={() => void autosave.flush()}>{state.sentence}</ProblemStrip>
      )}
      {state.kind === 'conflict' && theirs && (
        <ProblemStrip>
          {state.sentence}
          <PartView part={theirs} />
          <Button
            isSmall
            onPress={() => {
              version.current = theirs.version;
              autosave.settle();
              autosave.change(text);
            }}
          >
            Keep what is in this window
          </Button>{' '}
          <Button
            isSmall
            onPress={() => {
              version.current = theirs.version;
              setText(theirs.text);
              autosave.settle();
            }}
          >
            Take the other text
          </Button>
        </ProblemStrip>
      )}
      <Suspense fallback={<Waiting what="the editor" rows={3} />}>
        <RichTextEditor label="Your part of the text" value={text} onChange={change} minHeight={150} />
      </Suspense>
    </section>
  );
}

interface ArrivingFile {
  readonly id: number;
  readonly name: string;
  readonly share: number;
  readonly upload: Upload;
}

function FilesSection({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const dispatch = useDispatch();
  const [arriving, setArriving] = useState<readonly ArrivingFile[]>([]);
  const [faults, setFaults] = useState<readonly string[]>([]);
  const takeOut = useAct(useTakeOutFileMutation(), {
    says: (_work, { fileId, isOut }) =>
      `${work.files.find((file) => file.id === fileId)?.name ?? 'File'} ${isOut ? 'taken out' : 'put back'}`,
    inverse: (asked) => ({ ...asked, isOut: !asked.isOut }),
  });
  const counter = useRef(0);

  const add = async (file: File) => {
    counter.current += 1;
    const id = counter.current;
    const upload = uploadFile(head.id, file, (share) =>
      setArriving((before) => before.map((each) => (each.id === id ? { ...each, share } : each))),
    );
    setArriving((before) => [...before, { id, name: file.name, share: 0, upload }]);
    try {
      await upload.done;
      dispatch(api.util.invalidateTags(['Copy', 'Room']));
    } catch (error) {
      setFaults((before) => [...before, `${file.name}: ${(error as Error).message}`]);
    } finally {
      setArriving((before) => before.filter((each) => each.id !== id));
    }
  };
  const remove = (file: WorkFile) => takeOut({ copyId: head.id, fileId: file.id, isOut: true });
  const { rules } = work;
  const takes = [
    `at most ${counted(rules.mostFiles, 'file')}`,
    rules.types.length > 0 && rules.types.map((type) => `.${type}`).join(', '),
    `up to ${rules.largestMb} MB each`,
  ].filter(Boolean);
  const isFull = work.files.length >= rules.mostFiles;
  if (!work.mayHandIn && work.files.length === 0) return null;
  return (
    <section aria-label="Files">
      <h2>
        Files
        <small>
          {rules.by === 'student' ? 'yours alone' : 'everyone adds their own; nobody has to delete another’s'}
        </small>
      </h2>
      {faults.map((fault, at) => (
        <ProblemStrip key={at}>{fault}</ProblemStrip>
      ))}
      <FileList
        copyId={head.id}
        files={work.files}
        dates={dates}
        act={(file) =>
          work.mayHandIn && file.addedBy.isYou && !(rules.attempts === 'all' && file.isHandedIn) ? (
            <Button
              kind="quiet"
              isSmall
              onPress={() => void remove(file)}
              aria-label={`Take ${file.name} out`}
            >
              Take out
            </Button>
          ) : null
        }
      />
      {arriving.map((file) => (
        <Arriving key={file.id}>
          <span>{file.name}</span>
          <Button kind="quiet" isSmall onPress={file.upload.cancel}>
            Cancel
          </Button>
          <ProgressBar aria-label={`Adding ${file.name}`} value={Math.round(file.share * 100)}>
            {({ percentage }) => <i style={{ width: `${percentage ?? 0}%` }} />}
          </ProgressBar>
        </Arriving>
      ))}
      {work.mayHandIn && (
        <div className="add">
          <FileTrigger
            allowsMultiple={rules.mostFiles > 1}
            acceptedFileTypes={rules.types.map((type) => `.${type}`)}
            onSelect={(files) => {
              setFaults([]);
              for (const file of files ?? []) void add(file);
            }}
          >
            <Button isDisabled={isFull}>
              <Paperclip size={16} aria-hidden="true" />
              Add files…
            </Button>
          </FileTrigger>
          <Small>
            {isFull
              ? `${rules.mostFiles === 1 ? 'One file is' : `${rules.mostFiles} files are`} the most here.`
              : `Takes ${takes.join(', ')}.`}
          </Small>
        </div>
      )}
    </section>
  );
}

const Who = styled.ul`
  border-top: var(--hair);
  padding-top: 10px;
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 0;
    font: var(--t-13);
  }
  li > :last-child {
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

/** What each member has put in so far; the same for everyone in the group. */
function Shares({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  return (
    <Who aria-label="Who has put in what">
      {head.members.map((member) => {
        const words = work.parts.find((part) => part.author.enrolmentId === member.enrolmentId)?.words ?? 0;
        const files = work.files.filter((file) => file.addedBy.enrolmentId === member.enrolmentId).length;
        const done = [words > 0 && `${words} words`, files > 0 && counted(files, 'file')]
          .filter(Boolean)
          .join(', ');
        return (
          <li key={member.enrolmentId}>
            <b>
              <PersonName name={member.name} reading={member.reading} />
              {member.isYou && ' (you)'}
            </b>
            <span>{done || 'nothing yet'}</span>
          </li>
        );
      })}
    </Who>
  );
}

function HandInSide({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [handIn, { error, isLoading }] = useHandInMutation();
  const latest = work.handIns[0];
  const late = sayLate(work.lateNow);
  const isEach = work.rules.by === 'student';
  const isNew = work.files.some((file) => !file.isHandedIn);
  const isEmpty = work.files.length === 0 && work.parts.every((part) => part.words === 0);
  const isUnchanged =
    work.state === 'done' ||
    (work.rules.attempts === 'all' && latest !== undefined && !isNew && !work.rules.takesText);
  const why = isEmpty
    ? work.rules.takesText
      ? 'Write something or add a file first.'
      : 'Add a file first.'
    : isUnchanged
      ? 'Everything here is handed in.'
      : null;
  const forWhom = isEach ? '' : ` for all ${head.members.length}`;
  const submit = async () => {
    const answer = await handIn({ copyId: head.id, attempt: (latest?.attempt ?? 0) + 1 });
    if ('data' in answer && answer.data) notice(`Handed in${forWhom}`);
  };
  return (
    <Side aria-label="Hand in">
      <h2>{latest ? (isUnchanged ? 'Handed in' : 'Handed in, changed since') : 'Not handed in yet'}</h2>
      {latest && (
        <p>
          <PersonName name={latest.handedInBy.isYou ? 'You' : latest.handedInBy.name} /> handed in{' '}
          {dates.dateTime(latest.handedInAt)}
          {sayLate(latest.late) ? `, ${sayLate(latest.late)}` : ', on time'}
          {isEach
            ? '.'
            : `. It counts for ${latest.credited.map((member) => (member.isYou ? 'you' : member.name)).join(', ')}.`}
        </p>
      )}
      {work.mayHandIn && (
        <>
          {late && !isUnchanged && (
            <p>
              <Tag $look="needs">{late}</Tag> <Small>if handed in now</Small>
            </p>
          )}
          {error && <ProblemStrip of={error} />}
          <div className="main">
            <Button kind="main" isDisabled={why !== null || isLoading} onPress={() => void submit()}>
              {isLoading ? 'Handing in…' : `${latest ? 'Hand in again' : 'Hand in'}${forWhom}`}
            </Button>
          </div>
          <Small>{why ?? attemptsSay[work.rules.attempts]}</Small>
        </>
      )}
      {!isEach && <Shares head={head} work={work} />}
      {work.handIns.length > 0 && (
        <ol aria-label="Hand-ins">
          {work.handIns.map((each) => (
            <li key={each.id}>
              <details>
                <summary>
                  <b>No. {each.attempt}</b> · {dates.dateTime(each.handedInAt)} · {each.files.length}{' '}
                  {each.files.length === 1 ? 'file' : 'files'}
                  {work.rules.takesText && `, ${each.parts.reduce((sum, part) => sum + part.words, 0)} words`}
                </summary>
                <HandedInWork copyId={head.id} handIn={each} dates={dates} />
              </details>
            </li>
          ))}
        </ol>
      )}
    </Side>
  );
}

const attemptsSay = {
  one: 'One hand-in is taken here: look once more before you press.',
  latest: 'What is here is handed in as it is. You can add to it and hand in again; the latest counts.',
  all: 'What is new here is handed in. You can hand in more later; all of it is kept.',
} as const;
