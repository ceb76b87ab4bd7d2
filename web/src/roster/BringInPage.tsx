import { Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { DropZone, FileTrigger, Tab, TabList, TabPanel, Tabs, Text } from 'react-aria-components';
import type { FileDropItem } from 'react-aria-components';
import { useNavigate, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { Role } from '@jigsaw/contract/common';
import type { ImportPreview, ImportSource } from '@jigsaw/contract/roster';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { isProblem, ProblemStrip } from '../api/index.js';
import { Bar, Button, ButtonLink, Choice, Field, Page, Scroll, useNotice, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { habitFor, rememberColumns } from './columnHabit.js';
import { ImportPreviewPanel } from './ImportPreviewPanel.js';
import { RegistrarTab } from './RegistrarTab.js';
import { useApplyImportMutation, usePreviewImportMutation } from './rosterApi.js';
import { saySeated, useUndoRoster } from './useRosterAct.js';

const Ways = styled(Tabs)`
  max-width: 760px;
  margin: 40px auto;
  padding: 0 var(--s-4);
  [role='tablist'] {
    display: flex;
    gap: var(--s-4);
    border-bottom: var(--hair);
    margin-bottom: 16px;
  }
  [role='tab'] {
    padding: 8px 0;
    cursor: pointer;
    font: 550 14px/20px var(--font-text);
    color: var(--ink-2);
    border-bottom: 2px solid transparent;
  }
  [role='tab'][data-selected] {
    color: var(--ink);
    border-bottom-color: var(--ink);
    font-weight: 650;
  }
`;
const Drop = styled(DropZone)`
  display: grid;
  justify-items: center;
  gap: 10px;
  padding: 44px 24px;
  border: 1.5px dashed var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  text-align: center;
  &[data-drop-target] {
    background: var(--sunk);
    border-color: var(--ink);
  }
  p {
    color: var(--ink-2);
    max-width: 52ch;
  }
`;
const Paste = styled.div`
  display: grid;
  gap: 12px;
  justify-items: end;
  > :first-child {
    width: 100%;
  }
  textarea {
    font: 13px/20px var(--font-mono);
  }
`;

type Meanings = ImportPreview['columns'][number]['meaning'][];

interface Given {
  readonly source: ImportSource;
  readonly title: string;
}

const roles = [
  { id: 'student', label: 'Students' },
  { id: 'assistant', label: 'Assistants' },
  { id: 'instructor', label: 'Instructors' },
  { id: 'observer', label: 'Observers' },
] as const satisfies readonly { id: Role; label: string }[];

/** A class file or a pasted list: read, shown as what would change, and only then brought in, all or nothing. */
export function BringInPage() {
  const { course } = useCourse();
  const navigate = useNavigate();
  const notice = useNotice();
  const [given, setGiven] = useState<Given | null>(null);
  const [chosenRole, setRole] = useState<Role>('student');
  const [pasted, setPasted] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [preview, { error, isLoading, reset }] = usePreviewImportMutation();
  // What was seen last stays in view while a correction is looked at.
  const [data, setSeen] = useState<ImportPreview | null>(null);
  const [mends, setMends] = useState<ReadonlyMap<number, readonly string[]>>(new Map());
  const undo = useUndoRoster();
  const [apply, applying] = useApplyImportMutation();
  const asked = useRef(0);
  const isSync = useSearchParams()[0].get('from') === 'registrar';
  const [tab, setTab] = useState<string>(isSync ? 'registrar' : 'file');
  // The registrar says itself what everybody is.
  const role = tab === 'registrar' ? 'student' : chosenRole;
  const [wasPutAside, setPutAside] = useState(false);

  const look = async (
    next: Given,
    meanings: Meanings | null,
    corrected: ReadonlyMap<number, readonly string[]> = new Map(),
  ) => {
    setFault(null);
    setGiven(next);
    setMends(corrected);
    asked.current += 1;
    const turn = asked.current;
    const answer = await preview({
      courseId: course.id,
      body: { source: next.source, role, meanings, mends: asMends(corrected) },
    });
    if (!('data' in answer) || !answer.data || turn !== asked.current) return;
    const habit = meanings === null ? habitFor(answer.data) : null;
    if (habit) await look(next, habit, corrected);
    else setSeen(answer.data);
  };
  const mend = (line: number, cells: readonly string[] | null) => {
    if (!given || !data) return;
    const next = new Map(mends);
    if (cells) next.set(line, cells);
    else next.delete(line);
    void look(given, meaningsOf(data), next);
  };
  const readFile = async (file: File) => {
    if (file.size > 10 * 1024 * 1024)
      return setFault(
        'The file is over 10 MB. A class file is a list of people; check that this is the right one.',
      );
    await look(
      {
        title: file.name,
        source: { kind: 'file', fileName: file.name, contentBase64: await toBase64(file), delimiter: null },
      },
      null,
    );
  };
  const bringIn = async (leaveOutLines: number[], drop: EnrolmentId[]) => {
    if (!given || !data) return;
    const body = {
      source: given.source,
      role,
      meanings: meaningsOf(data),
      mends: asMends(mends),
      leaveOutLines,
      drop,
      fingerprint: data.fingerprint,
    };
    const answer = await apply({ courseId: course.id, body });
    if ('data' in answer && answer.data) {
      rememberColumns(data);
      const { added, changed, dropped, changeId, seated } = answer.data;
      const said = `${added} added, ${changed} changed${dropped > 0 ? `, ${dropped} taken out` : ''}${saySeated(seated)}`;
      if (changeId) notice(said, { label: 'Undo', do: () => void undo(changeId) });
      else notice(said);
      void navigate('../people');
    } else if (isProblem(answer.error, 'stale-write')) await look(given, body.meanings, mends);
  };
  const putAside = () => {
    setPutAside(true);
    setGiven(null);
    setSeen(null);
    reset();
    applying.reset();
  };

  if (given && data) {
    const { source } = given;
    return (
      <ImportPreviewPanel
        title={given.title}
        preview={data}
        isBusy={isLoading || applying.isLoading}
        error={applying.error ?? error}
        mends={mends}
        hasMissing={given.source.kind !== 'paste'}
        onMend={mend}
        onMeanings={(meanings) => void look(given, meanings, mends)}
        onDelimiter={
          source.kind === 'file'
            ? (delimiter) => void look({ ...given, source: { ...source, delimiter } }, null)
            : undefined
        }
        onBringIn={(lines, drop) => void bringIn(lines, drop)}
        onPutAside={putAside}
      />
    );
  }
  return (
    <Page>
      <Bar>
        <h1>Bring people in</h1>
        {tab !== 'registrar' && (
          <>
            <span>as</span>
            <Choice label="Their role" isLabelHidden value={chosenRole} choices={roles} onChange={setRole} />
          </>
        )}
        <span className="grow" />
        <ButtonLink kind="quiet" to="../people">
          Back to the roster
        </ButtonLink>
      </Bar>
      <Scroll>
        <Ways selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
          <TabList aria-label="Where the people come from">
            <Tab id="file">From a file</Tab>
            <Tab id="paste">From a pasted list</Tab>
            <Tab id="registrar">From the registrar</Tab>
          </TabList>
          <TabPanel id="file">
            <Drop
              onDrop={(event) => {
                const item = event.items.find((each): each is FileDropItem => each.kind === 'file');
                if (item) void item.getFile().then(readFile);
              }}
            >
              <Upload size={28} aria-hidden="true" />
              <Text slot="label">
                <b>Drop the class file here</b>
              </Text>
              <p>
                A spreadsheet (XLSX), CSV or any delimited text, or a OneRoster bundle (ZIP), as your registry
                saves it. Nothing changes before you have seen it.
              </p>
              <FileTrigger
                acceptedFileTypes={['.csv', '.tsv', '.txt', '.xlsx', '.zip', 'text/csv', 'text/plain']}
                onSelect={(files) => files?.[0] && void readFile(files[0])}
              >
                <Button kind="main">Choose a file…</Button>
              </FileTrigger>
            </Drop>
          </TabPanel>
          <TabPanel id="paste">
            <Paste>
              <Field
                label="One person a line: an address, or a name and an address"
                lines={12}
                value={pasted}
                onChange={setPasted}
                placeholder={
                  'ada.okafor@school.example\nBen Ek <ben.ek@school.example>\nCho Min, cho.min@school.example'
                }
              />
              <Button
                kind="main"
                isDisabled={pasted.trim() === ''}
                onPress={() =>
                  void look({ title: 'Pasted list', source: { kind: 'paste', text: pasted } }, null)
                }
              >
                Show what would change
              </Button>
            </Paste>
          </TabPanel>
          <TabPanel id="registrar">
            <RegistrarTab
              isAtOnce={isSync && !wasPutAside}
              onLook={(source) => void look({ title: `${source.course} at the registrar`, source }, null)}
            />
          </TabPanel>
          {isLoading && (
            <Waiting what={given?.source.kind === 'registrar' ? 'the registrar' : 'the file'} rows={2} />
          )}
          {(fault ?? error) && !isLoading && <ProblemStrip of={error}>{fault ?? undefined}</ProblemStrip>}
        </Ways>
      </Scroll>
    </Page>
  );
}

const meaningsOf = (preview: ImportPreview) => preview.columns.map((column) => column.meaning);
const asMends = (mends: ReadonlyMap<number, readonly string[]>) =>
  [...mends].map(([line, cells]) => ({ line, cells: [...cells] }));

function toBase64(file: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).split(',')[1] ?? ''); // read as a data URL, so a string
    reader.onerror = () => reject(reader.error ?? new Error('the file could not be read'));
    reader.readAsDataURL(file);
  });
}
