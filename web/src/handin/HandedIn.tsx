import { Download, FileText } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { HandInView, PartView as Part, WorkFile } from '@jigsaw/contract/handin';
import { saySize } from '../form/index.js';
import { Button, PersonName, Small, Waiting } from '../look/index.js';
import type { Dates } from '../look/index.js';
import { RichText } from '../text/index.js';
import { firstToRead, isReadable } from './readable.js';
import { counted } from '@jigsaw/core/text';
import { apiAddress } from '../api/index.js';

const FilePreview = lazy(() => import('./FilePreview.js'));

const Files = styled.ul`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) auto auto auto;
    gap: 10px;
    align-items: center;
    padding: 7px 10px 7px 12px;
    border: var(--hair);
    border-radius: var(--r-2);
    background: var(--surface);
  }
  b {
    display: block;
    font-weight: 620;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  a {
    display: grid;
    place-items: center;
    min-width: 32px;
    min-height: 32px;
    border-radius: var(--r-2);
  }
  a:hover {
    background: var(--wash);
  }
`;
const PartBox = styled.section`
  padding: 12px 0;
  border-bottom: var(--hair);
  &:last-child {
    border-bottom: 0;
  }
  > header {
    display: flex;
    align-items: baseline;
    gap: 8px;
    margin-bottom: 4px;
  }
  > header b {
    font-weight: 650;
  }
`;

interface FileListProps {
  readonly copyId: string;
  readonly files: readonly WorkFile[];
  readonly dates: Dates;
  readonly act?: (file: WorkFile) => ReactNode;
  /** The first file that can be read here lies open. */
  readonly isOpen?: boolean;
}

/** Files with who added them; those that a page can show are read in place. */
export function FileList({ copyId, files, dates, act, isOpen = false }: FileListProps) {
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set());
  const first = isOpen ? firstToRead(files) : undefined;
  const toggle = (id: string) =>
    setToggled(
      toggled.has(id) ? new Set([...toggled].filter((each) => each !== id)) : new Set([...toggled, id]),
    );
  const isShown = (file: WorkFile) => (file.id === first?.id) !== toggled.has(file.id);
  return (
    <Files>
      {files.map((file) => (
        <li key={file.id}>
          <FileText size={18} aria-hidden="true" />
          <span style={{ minWidth: 0 }}>
            <b>{file.name}</b>
            <Small>
              {saySize(file.sizeBytes)} · <PersonName name={file.addedBy.name} />
              {file.addedBy.isYou && ' (you)'}, {dates.dateTime(file.addedAt)}
            </Small>
          </span>
          {isReadable(file) ? (
            <Button
              kind="quiet"
              isSmall
              aria-expanded={isShown(file)}
              aria-label={`${isShown(file) ? 'Close' : 'Read'} ${file.name}`}
              onPress={() => toggle(file.id)}
            >
              {isShown(file) ? 'Close' : 'Read'}
            </Button>
          ) : (
            <span />
          )}
          {act?.(file) ?? <span />}
          <a
            href={apiAddress(`copies/${copyId}/files/${file.id}`)}
            download={file.name}
            aria-label={`Download ${file.name}`}
          >
            <Download size={16} aria-hidden="true" />
          </a>
          {isShown(file) && (
            <Suspense fallback={<Waiting what={file.name} rows={3} />}>
              <FilePreview copyId={copyId} file={file} />
            </Suspense>
          )}
        </li>
      ))}
    </Files>
  );
}

export function PartView({ part }: { readonly part: HandInView['parts'][number] | Part }) {
  return (
    <PartBox>
      <header>
        <b>
          <PersonName name={part.author.name} reading={part.author.reading} />
        </b>
        <Small>{counted(part.words, 'word')}</Small>
      </header>
      <RichText node={part.text} />
    </PartBox>
  );
}

/** What was handed in, as it was then. */
export function HandedInWork({
  copyId,
  handIn,
  dates,
  isOpen = false,
}: {
  readonly copyId: string;
  readonly handIn: HandInView;
  readonly dates: Dates;
  readonly isOpen?: boolean;
}) {
  return (
    <>
      {handIn.files.length > 0 && (
        <FileList copyId={copyId} files={handIn.files} dates={dates} isOpen={isOpen} />
      )}
      {handIn.parts.map((part) => (
        <PartView key={part.author.enrolmentId} part={part} />
      ))}
    </>
  );
}
