import { Download, FileText, History, Upload } from 'lucide-react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { FileTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { OwnVersion } from '@jigsaw/contract/ownFiles';
import { sure } from '@jigsaw/core/lists';
import { apiAddress } from '../api/index.js';
import { useCourse } from '../course/index.js';
import type { Uploads } from '../form/index.js';
import { ArrivingFiles, saySize, UploadFaults } from '../form/index.js';
import type { Dates } from '../look/index.js';
import { Button, Small } from '../look/index.js';

/** Files that have versions, one below the other. */
export const VersionedFiles = styled.ul`
  > li {
    margin-top: 6px;
    border: 1px solid var(--hue, var(--edge));
    border-radius: var(--r-2);
    background: var(--surface);
  }
  .newest {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) auto;
    align-items: center;
    gap: 6px 10px;
    padding: 8px 12px;
  }
  .newest b {
    font: 620 13px/17px var(--font-text);
    overflow-wrap: anywhere;
  }
  .newest .name {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 8px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
  ol {
    border-top: var(--hair);
    padding: 0 12px;
  }
  ol li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 8px;
    min-height: 36px;
    padding: 6px 0;
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
  ol li + li {
    border-top: var(--hair);
  }
  @media (max-width: 700px) {
    .newest {
      grid-template-columns: 20px minmax(0, 1fr);
    }
    .acts {
      grid-column: 1 / -1;
    }
    ol li {
      grid-template-columns: auto auto 1fr;
      gap: 0 8px;
    }
    ol li > span {
      grid-column: 1 / -1;
    }
    .acts > *,
    ol a,
    ol button {
      min-height: 44px;
    }
  }
`;
const Fetch = styled.a`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl-s, 28px);
  padding: 0 9px;
  border-radius: var(--r-2);
  font: 600 12px/1 var(--font-text);
  text-decoration: none;
  &:hover {
    background: var(--wash);
  }
`;

interface VersionedFileProps {
  /** As the page calls it. */
  readonly name: string;
  /** The newest first; never none. */
  readonly versions: readonly OwnVersion[];
  /** Of its versions, below the API. */
  readonly address: string;
  /** Newer ones on their way; null: none may be added. */
  readonly uploads: Uploads | null;
  readonly onRestore: (number: number, newest: number) => void;
  /** Stands beside its name. */
  readonly mark?: ReactNode;
  readonly act?: ReactNode;
}

/** The newest version of a file, the way to a newer one, and all that were before. */
export function VersionedFile(props: VersionedFileProps) {
  const { name, versions, address, uploads, onRestore, mark, act } = props;
  const { dates } = useCourse();
  const [isOpen, setIsOpen] = useState(false);
  const newest = sure(versions[0]);
  const earlier = versions.slice(1);
  const fetchLink = (version: OwnVersion) => (
    <Fetch
      href={apiAddress(`${address}/${version.number}`)}
      download={version.name}
      aria-label={`Download ${sayVersion(version.number)} of ${name}`}
    >
      <Download size={14} aria-hidden="true" />
      Download
    </Fetch>
  );
  return (
    <li>
      {uploads && <UploadFaults faults={uploads.faults} />}
      <div className="newest">
        <FileText size={18} aria-hidden="true" />
        <span>
          <span className="name">
            <b>{newest.name}</b>
            {mark}
          </span>
          <Small>{sayWho(newest, dates)}</Small>
        </span>
        <span className="acts">
          {fetchLink(newest)}
          {uploads && (
            <FileTrigger onSelect={(chosen) => uploads.add([...(chosen ?? [])].slice(0, 1))}>
              <Button isSmall aria-label={`Add a new version of ${name}`}>
                <Upload size={14} aria-hidden="true" />
                New version…
              </Button>
            </FileTrigger>
          )}
          {earlier.length > 0 && (
            <Button
              kind="quiet"
              isSmall
              aria-expanded={isOpen}
              aria-label={`Earlier versions of ${name}`}
              onPress={() => setIsOpen(!isOpen)}
            >
              <History size={14} aria-hidden="true" />
              {earlier.length} earlier
            </Button>
          )}
          {act}
        </span>
      </div>
      {uploads && <ArrivingFiles arriving={uploads.arriving} />}
      {isOpen && (
        <ol aria-label={`Earlier versions of ${name}`}>
          {earlier.map((version) => (
            <li key={version.number}>
              <span>
                {version.name}
                <br />
                <Small>{sayWho(version, dates)}</Small>
              </span>
              {fetchLink(version)}
              {uploads && (
                <Button
                  kind="quiet"
                  isSmall
                  aria-label={`Restore ${sayVersion(version.number)} of ${name}`}
                  onPress={() => onRestore(version.number, newest.number)}
                >
                  Restore
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </li>
  );
}

/** How a person calls one of them. */
export const sayVersion = (number: number): string =>
  number === 0 ? 'The file as attached' : `Version ${number}`;

/** “Version 3, Kofi, Tue 3 Nov, 10:05, 12 kB”. */
function sayWho({ number, by, at, restored, sizeBytes }: OwnVersion, dates: Dates): string {
  const again = restored === null ? null : `${sayVersion(restored).toLowerCase()} again`;
  const who = by === null ? null : by.isYou ? 'you' : by.name;
  return [sayVersion(number), again, who, at === null ? null : dates.dateTime(at), saySize(sizeBytes)]
    .filter((part) => part !== null)
    .join(', ');
}
