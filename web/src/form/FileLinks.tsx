import { Download, FileText } from 'lucide-react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Small } from '../look/index.js';

const List = styled.ul`
  display: grid;
  gap: 6px;
  margin-top: 10px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    border: var(--hair);
    border-radius: var(--r-2);
    background: var(--surface);
  }
  a {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) auto 18px;
    gap: 10px;
    align-items: center;
    min-height: 40px;
    padding: 4px 12px;
    border-radius: var(--r-2);
    text-decoration: none;
  }
  a:hover {
    background: var(--wash);
  }
  audio,
  video {
    grid-column: 1 / -1;
    width: 100%;
    max-height: 320px;
  }
  b {
    font: 620 13px/17px var(--font-text);
    overflow-wrap: anywhere;
  }
`;

/** "12 kB" */
export function saySize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1000)} kB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}

interface FileLinksProps {
  readonly label: string;
  readonly files: readonly {
    readonly id: string;
    readonly name: string;
    readonly mediaType: string;
    readonly sizeBytes: number;
  }[];
  readonly addressOf: (fileId: string) => string;
  readonly act?: (fileId: string, name: string) => ReactNode;
}

/** Files to fetch, by name and size; sound and video can be played where they stand. */
export function FileLinks({ label, files, addressOf, act }: FileLinksProps) {
  if (files.length === 0) return null;
  return (
    <List aria-label={label}>
      {files.map(({ id, name, mediaType, sizeBytes }) => (
        <li key={id}>
          <a href={addressOf(id)} download={name}>
            <FileText size={17} aria-hidden="true" />
            <b>{name}</b>
            <Small>{saySize(sizeBytes)}</Small>
            <Download size={15} aria-hidden="true" />
          </a>
          {act?.(id, name)}
          {mediaType.startsWith('audio/') && (
            <audio controls preload="none" src={addressOf(id)} aria-label={`Play ${name}`} />
          )}
          {mediaType.startsWith('video/') && (
            <video controls preload="none" src={addressOf(id)} aria-label={`Play ${name}`} />
          )}
        </li>
      ))}
    </List>
  );
}
