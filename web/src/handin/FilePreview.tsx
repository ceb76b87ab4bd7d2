import { useEffect, useState } from 'react';
import { styled } from 'styled-components';
import type { WorkFile } from '@jigsaw/contract/handin';
import { decode } from '@jigsaw/core/files';
import { readTable } from '@jigsaw/core/roster';
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

const mostRows = 200;

type Content =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'rows'; readonly rows: readonly (readonly string[])[]; readonly more: number }
  | { readonly kind: 'image'; readonly url: string }
  | { readonly kind: 'none'; readonly why: string };

/** Words and tables are shown as text only: nothing in a file is ever run. */
function read(name: string, bytes: Uint8Array<ArrayBuffer>): Content {
  const ending = endingOf(name);
  const image = images[ending];
  if (image) return { kind: 'image', url: URL.createObjectURL(new Blob([bytes], { type: image })) };
  if (ending === 'csv' || ending === 'tsv') {
    const read = readTable(bytes);
    if (read.ok) {
      const { table } = read;
      const rows = [...(table.hasHeader ? [table.headings] : []), ...table.rows.map((row) => row.cells)];
      return { kind: 'rows', rows: rows.slice(0, mostRows), more: Math.max(0, rows.length - mostRows) };
    }
  }
  const decoded = decode(bytes);
  return decoded.ok
    ? { kind: 'text', text: decoded.text }
    : { kind: 'none', why: 'It holds no text that can be shown here. Download it to look.' };
}

/** A file as it can be read without leaving the page. */
export default function FilePreview({ copyId, file }: { readonly copyId: string; readonly file: WorkFile }) {
  const [content, setContent] = useState<Content | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    let url: string | null = null;
    void (async () => {
      try {
        const answer = await fetch(`/api/copies/${copyId}/files/${file.id}`, { signal: stop.signal });
        if (!answer.ok) throw new Error('refused');
        const found = read(file.name, new Uint8Array(await answer.arrayBuffer()));
        if (found.kind === 'image') url = found.url;
        setContent(found);
      } catch {
        if (!stop.signal.aborted)
          setContent({ kind: 'none', why: 'It cannot be shown now. Download it, or try again.' });
      }
    })();
    return () => {
      stop.abort();
      if (url) URL.revokeObjectURL(url);
    };
  }, [copyId, file.id, file.name]);
  if (!content) return <Waiting what={file.name} rows={3} />;
  return (
    <Box role="region" aria-label={file.name} tabIndex={0}>
      {content.kind === 'text' && <pre>{content.text}</pre>}
      {content.kind === 'image' && <img src={content.url} alt={file.name} />}
      {content.kind === 'none' && <Small>{content.why}</Small>}
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
