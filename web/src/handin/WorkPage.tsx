import { Paperclip } from 'lucide-react';
import { Suspense, useRef, useState } from 'react';
import { FileTrigger, ProgressBar } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { Link, useParams } from 'react-router';
import { styled } from 'styled-components';
import { CopyView } from '@jigsaw/contract/handin';
import type { WorkFile } from '@jigsaw/contract/handin';
import type { RichTextNode } from '@jigsaw/core/text';
import { emptyText } from '@jigsaw/core/text';
import { api, isProblem, problemOf, ProblemStrip, saySaved, useAutosave } from '../api/index.js';
import { Button, Emblem, Empty, hueOfGroup, PersonName, Small, Tag, useNotice, Waiting } from '../look/index.js';
import { RichText, RichTextEditor } from '../text/index.js';
import { useCourse } from '../track/index.js';
import { useHandInMutation, useReadCopyQuery, useSavePartMutation, useTakeOutFileMutation } from './handinApi.js';
import { uploadFile } from './uploadFile.js';
import type { Upload } from './uploadFile.js';
import { sayLate } from './words.js';
import { FileList, HandedInWork, PartView } from './Work.js';

const Frame = styled.main`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
`;
const Sill = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 64px;
  padding: 6px 32px 6px 26px;
  background: var(--hue-tint);
  border-bottom: 1px solid var(--ink);
  h1 {
    font: var(--h-22);
    font-size: 24px;
    overflow-wrap: anywhere;
  }
  a {
    font: 600 13px/16px var(--font-text);
    color: var(--hue-ink);
  }
  > div:nth-child(2) {
    flex: 1;
    min-width: 0;
  }
  > div:last-child {
    text-align: right;
    font: var(--t-13);
    color: var(--hue-ink);
  }
  > div:last-child b {
    display: block;
    color: var(--ink);
  }
  @media (max-width: 700px) {
    flex-wrap: wrap;
    padding: 10px 16px;
    > div:last-child {
      text-align: left;
      width: 100%;
    }
  }
`;
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
  > section {
    max-width: 820px;
  }
  h2 {
    margin-bottom: 8px;
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

export function WorkPage() {
  const { copyId = '' } = useParams();
  const copy = useReadCopyQuery(copyId);
  if (copy.data) return <Work key={copyId} copy={copy.data} />;
  if (isProblem(copy.error, 'not-found')) return <Empty title="Nothing here">There is nothing at this address, or it is not yours to see.</Empty>;
  return copy.error ? <ProblemStrip of={copy.error} onRetry={() => void copy.refetch()} /> : <Waiting what="the assignment" />;
}

function Work({ copy }: { readonly copy: CopyView }) {
  const { dates } = useCourse();
  const { group } = copy;
  const values = { groupName: group.name, groupNumber: group.number, memberNames: copy.members.map((member) => member.name) };
  const others = copy.parts.filter((part) => !part.author.isYou && part.words > 0);
  return (
    <Frame style={hueOfGroup(group.number)}>
      <Sill>
        <Emblem number={group.number} size={44} />
        <div>
          <Link to={`../room/${group.id}`}>{group.name}</Link>
          <h1>{copy.title}</h1>
        </div>
        <div>
          <b>{copy.schedule.due ? `Due ${dates.dateTime(copy.schedule.due)}, ${dates.fromNow(copy.schedule.due)}` : 'No due date'}</b>
          One hand-in for the {copy.members.length} of you, {copy.points} points
        </div>
      </Sill>
      <Body>
        <Main>
          <Brief aria-label="Brief">
            <RichText node={copy.brief} values={values} />
          </Brief>
          {copy.mayHandIn ? (
            <OwnPart copy={copy} />
          ) : (
            <ProblemStrip>
              {copy.access === 'read-only' ? 'This is closed. You can read it, but no longer change it.' : 'This is the group’s work; you can read it.'}
            </ProblemStrip>
          )}
          <FilesSection copy={copy} />
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
        <HandInSide copy={copy} />
      </Body>
    </Frame>
  );
}

/** One's own part of the text. Nobody else can change it, and it can change nobody else's. */
function OwnPart({ copy }: { readonly copy: CopyView }) {
  const { dates } = useCourse();
  const own = copy.parts.find((part) => part.author.isYou);
  const [text, setText] = useState<RichTextNode>(own?.text ?? emptyText);
  const version = useRef(own?.version ?? 0);
  const [save] = useSavePartMutation();
  const autosave = useAutosave<RichTextNode>(async (value) => {
    const saved = await save({ copyId: copy.id, body: { text: value, version: version.current } }).unwrap();
    version.current = saved.parts.find((part) => part.author.isYou)?.version ?? version.current;
  });
  const change = (next: RichTextNode) => {
    setText(next);
    autosave.change(next);
  };
  const { state } = autosave;
  const theirs = state.kind === 'conflict' ? CopyView.safeParse(state.current).data?.parts.find((part) => part.author.isYou) : undefined;
  return (
    <section aria-label="Your part">
      <h2>
        Your part<small role="status">{saySaved(state, dates.time)}</small>
      </h2>
      {state.kind === 'failed' && <ProblemStrip onRetry={() => void autosave.flush()}>{state.sentence}</ProblemStrip>}
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

function FilesSection({ copy }: { readonly copy: CopyView }) {
  const { dates } = useCourse();
  const notice = useNotice();
  const dispatch = useDispatch();
  const [arriving, setArriving] = useState<readonly ArrivingFile[]>([]);
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [takeOut] = useTakeOutFileMutation();
  const counter = useRef(0);

  const add = async (file: File) => {
    counter.current += 1;
    const id = counter.current;
    const upload = uploadFile(copy.id, file, (share) => setArriving((before) => before.map((each) => (each.id === id ? { ...each, share } : each))));
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
  const remove = async (file: WorkFile) => {
    const answer = await takeOut({ copyId: copy.id, fileId: file.id, isOut: true });
    if ('error' in answer && answer.error) setFaults((before) => [...before, problemOf(answer.error).detail]);
    else notice(`${file.name} taken out`, { label: 'Undo', do: () => void takeOut({ copyId: copy.id, fileId: file.id, isOut: false }) });
  };
  if (!copy.mayHandIn && copy.files.length === 0) return null;
  return (
    <section aria-label="Files">
      <h2>
        Files<small>everyone adds their own; nobody has to delete another’s</small>
      </h2>
      {faults.map((fault, at) => (
        <ProblemStrip key={at}>{fault}</ProblemStrip>
      ))}
      <FileList
        copyId={copy.id}
        files={copy.files}
        dates={dates}
        act={(file) =>
          copy.mayHandIn && file.addedBy.isYou ? (
            <Button kind="quiet" isSmall onPress={() => void remove(file)} aria-label={`Take ${file.name} out`}>
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
      {copy.mayHandIn && (
        <div style={{ marginTop: 8 }}>
          <FileTrigger
            allowsMultiple
            onSelect={(files) => {
              setFaults([]);
              for (const file of files ?? []) void add(file);
            }}
          >
            <Button>
              <Paperclip size={16} aria-hidden="true" />
              Add files…
            </Button>
          </FileTrigger>
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
function Shares({ copy }: { readonly copy: CopyView }) {
  return (
    <Who aria-label="Who has put in what">
      {copy.members.map((member) => {
        const words = copy.parts.find((part) => part.author.enrolmentId === member.enrolmentId)?.words ?? 0;
        const files = copy.files.filter((file) => file.addedBy.enrolmentId === member.enrolmentId).length;
        const done = [words > 0 && `${words} words`, files > 0 && `${files} ${files === 1 ? 'file' : 'files'}`].filter(Boolean).join(', ');
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

function HandInSide({ copy }: { readonly copy: CopyView }) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [handIn, { error, isLoading }] = useHandInMutation();
  const latest = copy.handIns[0];
  const late = sayLate(copy.lateNow);
  const isEmpty = copy.files.length === 0 && copy.parts.every((part) => part.words === 0);
  const isUnchanged = copy.state === 'handed-in';
  const why = isEmpty ? 'Write something or add a file first.' : isUnchanged ? 'Everything here is handed in.' : null;
  const submit = async () => {
    const answer = await handIn({ copyId: copy.id, attempt: (latest?.attempt ?? 0) + 1 });
    if ('data' in answer && answer.data) notice(`Handed in for all ${copy.members.length}`);
  };
  return (
    <Side aria-label="Hand in">
      <h2>{latest ? (isUnchanged ? 'Handed in' : 'Handed in, changed since') : 'Not handed in yet'}</h2>
      {latest && (
        <p>
          <PersonName name={latest.handedInBy.name} /> handed in {dates.dateTime(latest.handedInAt)}
          {sayLate(latest.late) ? `, ${sayLate(latest.late)}` : ', on time'}. It counts for {latest.credited.map((member) => member.name).join(', ')}.
        </p>
      )}
      {copy.mayHandIn && (
        <>
          {late && !isUnchanged && (
            <p>
              <Tag $look="needs">{late}</Tag> <Small>if handed in now</Small>
            </p>
          )}
          {error && <ProblemStrip of={error} />}
          <div className="main">
            <Button kind="main" isDisabled={why !== null || isLoading} onPress={() => void submit()}>
              {isLoading ? 'Handing in…' : latest ? `Hand in again for all ${copy.members.length}` : `Hand in for all ${copy.members.length}`}
            </Button>
          </div>
          <Small>{why ?? 'What is here is handed in as it is. You can add to it and hand in again; the latest counts.'}</Small>
        </>
      )}
      <Shares copy={copy} />
      {copy.handIns.length > 0 && (
        <ol aria-label="Hand-ins">
          {copy.handIns.map((each) => (
            <li key={each.id}>
              <details>
                <summary>
                  <b>No. {each.attempt}</b> · {dates.dateTime(each.handedInAt)} · {each.files.length} files,{' '}
                  {each.parts.reduce((sum, part) => sum + part.words, 0)} words
                </summary>
                <HandedInWork copyId={copy.id} handIn={each} dates={dates} />
              </details>
            </li>
          ))}
        </ol>
      )}
    </Side>
  );
}
