import { useEffect, useState } from 'react';
import { styled } from 'styled-components';
import type { WorkFile } from '@jigsaw/contract/handin';
import { apiAddress } from '../api/index.js';
import { NotRead, readApart } from '../form/index.js';
import type { Readable } from '../form/index.js';
import { Small, Waiting } from '../look/index.js';
import { endingOf, images } from './readable.js';

const Box = styled.div`
  grid-column: 1 / -1;
  border-top: var(--hair);
  padding-top: 8px;
  min-width: 0;
  max-height: 60vh;
  overflow: auto;
  pre {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    font: 400 14px/21px var(--font-text);
    max-width: 72ch;
  }
  table {
    font: var(--t-13);
    font-variant-numeric: tabular-nums;
  }
  td {
    padding: 3px 12px 3px 0;
    border-bottom: var(--hair);
    white-space: nowrap;
  }
  tr:first-child td {
    font-weight: 650;
  }
  img {
    max-width: 100%;
    display: block;
  }
`;

type Content = Readable | { readonly kind: 'image'; readonly url: string };

/** Nothing in a file is ever run. */
async function read(name: string, bytes: Uint8Array<ArrayBuffer>, stop: AbortSignal): Promise<Content> {
  const ending = endingOf(name);
  const image = images[ending];
  if (image) return { kind: 'image', url: URL.createObjectURL(new Blob([bytes], { type: image })) };
  return readApart((reading) => reading.readable(bytes, ending === 'csv' || ending === 'tsv'), stop);
}

/** A file as it can be read without leaving the page. */
export default function FilePreview({ copyId, file }: { readonly copyId: string; readonly file: WorkFile }) {
  const [content, setContent] = useState<Content | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    let url: string | null = null;
    void (async () => {
      try {
        const answer = await fetch(apiAddress(`copies/${copyId}/files/${file.id}`), { signal: stop.signal });
        if (!answer.ok) throw new Error('refused');
        const found = await read(file.name, new Uint8Array(await answer.arrayBuffer()), stop.signal);
        if (found.kind === 'image') url = found.url;
        setContent(found);
      } catch (error) {
        if (stop.signal.aborted) return;
        setFault(
          error instanceof NotRead
            ? 'It takes too long to be shown here. Download it to look.'
            : 'It cannot be shown now. Download it, or try again.',
        );
      }
    })();
    return () => {
      stop.abort();
      if (url) URL.revokeObjectURL(url);
    };
  }, [copyId, file.id, file.name]);
  if (fault !== null) return <Small>{fault}</Small>;
  if (!content) return <Waiting what={file.name} rows={3} />;
  return (
    <Box role="region" aria-label={file.name} tabIndex={0}>
      {content.kind === 'text' && <pre>{content.text}</pre>}
      {content.kind === 'image' && <img src={content.url} alt={file.name} />}
      {content.kind === 'none' && (
        <Small>It holds no text that can be shown here. Download it to look.</Small>
      )}
      {content.kind === 'rows' && (
        <>
          <table>
            <tbody>
              {content.rows.map((cells, row) => (
                <tr key={row}>
                  {cells.map((cell, column) => (
                    <td key={column}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {content.more > 0 && <Small>and {content.more} more rows</Small>}
        </>
      )}
    </Box>
  );
}
