import { Upload } from 'lucide-react';
import { useState } from 'react';
import { DropZone, FileTrigger, Tab, TabList, TabPanel, Tabs, Text } from 'react-aria-components';
import type { FileDropItem } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { Role } from '@jigsaw/contract/common';
import type { ImportSource } from '@jigsaw/contract/import';
import { longestReadSeconds } from '@jigsaw/core/roster';
import { ProblemStrip } from '../api/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Choice,
  Field,
  Page,
  Scroll,
  Working,
  WorkingUntil,
} from '../look/index.js';
import { ImportPreviewPanel } from './ImportPreviewPanel.js';
import { RegistrarTab } from './RegistrarTab.js';
import { useImport } from './useImport.js';
import type { Given } from './useImport.js';

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

const roles = [
  { id: 'student', label: 'Students' },
  { id: 'assistant', label: 'Assistants' },
  { id: 'instructor', label: 'Instructors' },
  { id: 'observer', label: 'Observers' },
] as const satisfies readonly { id: Role; label: string }[];

/** A class file or a pasted list: read, shown as what would change, and only then imported, all or nothing. */
export function ImportPage() {
  const [chosenRole, setRole] = useState<Role>('student');
  const [pasted, setPasted] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const isSync = useSearchParams()[0].get('from') === 'registrar';
  const [tab, setTab] = useState<string>(isSync ? 'registrar' : 'file');
  const [isCancelled, setCancelled] = useState(false);
  // The registrar says itself what everyone is.
  const coming = useImport(tab === 'registrar' ? 'student' : chosenRole);
  const { given, seen } = coming;

  const look = (source: ImportSource, title: string) => {
    setFault(null);
    void coming.look(source, title);
  };
  const readFile = async (file: File) => {
    if (file.size > 10 * 1024 * 1024)
      setFault('The file is over 10 MB. A class file is a list of people; check that this is the right one.');
    else
      look(
        { kind: 'file', fileName: file.name, contentBase64: await toBase64(file), delimiter: null },
        file.name,
      );
  };

  if (given && seen) {
    const { source } = given;
    return (
      <ImportPreviewPanel
        title={given.title}
        preview={seen}
        isBusy={coming.isBusy}
        error={coming.fault}
        mends={given.mends}
        hasMissing={source.kind !== 'paste'}
        onMend={coming.mend}
        onSayOfLines={coming.sayOfLines}
        onMeanings={(meanings) => coming.say({ meanings })}
        onPlace={({ sheet, headingLine }) => {
          if (source.kind === 'file') look({ ...source, sheet, headingLine }, given.title);
          if (source.kind === 'paste') look({ ...source, headingLine }, given.title);
        }}
        onDelimiter={
          source.kind === 'file' ? (delimiter) => look({ ...source, delimiter }, given.title) : undefined
        }
        onImport={(lines, drop) => void coming.importPeople(lines, drop)}
        onCancel={() => {
          setCancelled(true);
          coming.cancel();
        }}
      />
    );
  }
  return (
    <Page>
      <Bar>
        <h1>Import people</h1>
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
                saves it. You see every change first.
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
                label="Emails, with names where you have them: a list, part of a mail, or cells of a spreadsheet"
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
                onPress={() => look({ kind: 'paste', text: pasted }, 'Pasted list')}
              >
                Show what would change
              </Button>
            </Paste>
          </TabPanel>
          <TabPanel id="registrar">
            <RegistrarTab
              isAtOnce={isSync && !isCancelled}
              onLook={(source) => look(source, `${source.course} at the registrar`)}
            />
          </TabPanel>
          {coming.isLooking && <Reading of={given} shareSent={coming.shareSent} onStop={coming.cancel} />}
          {(fault ?? coming.lookFault) && !coming.isLooking && (
            <ProblemStrip of={coming.lookFault}>{fault ?? undefined}</ProblemStrip>
          )}
        </Ways>
      </Scroll>
    </Page>
  );
}

/** How far what is being looked at is: first on its way to the server, then read there. */
function Reading({
  of,
  shareSent,
  onStop,
}: {
  readonly of: Given | null;
  readonly shareSent: number | null;
  readonly onStop: () => void;
}) {
  if (of?.source.kind === 'registrar')
    return <Working what="Asking the registrar" stop="Stop asking" onStop={onStop} />;
  const name = of?.title ?? '';
  if (shareSent !== null && shareSent < 1)
    return (
      <Working
        what={`Sending ${name}`}
        share={shareSent}
        note={`${Math.round(shareSent * 100)} %`}
        stop="Stop sending"
        onStop={onStop}
      />
    );
  return (
    <WorkingUntil
      what={`Reading ${name}`}
      seconds={longestReadSeconds}
      beyond="other files come first"
      stop="Stop reading"
      onStop={onStop}
    />
  );
}

function toBase64(file: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).split(',')[1] ?? ''); // read as a data URL, so a string
    reader.onerror = () => reject(reader.error ?? new Error('the file could not be read'));
    reader.readAsDataURL(file);
  });
}
