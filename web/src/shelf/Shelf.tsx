import { Upload } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import type { FileDropItem } from 'react-aria-components';
import { DropZone, FileTrigger } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import { ShelfView } from '@jigsaw/contract/shelf';
import type { ShelfFile } from '@jigsaw/contract/shelf';
import { sure } from '@jigsaw/core/lists';
import { mostBytes } from '@jigsaw/core/shelf';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { ArrivingFiles, saySize, UploadFaults, useUploads } from '../form/index.js';
import { Button, Small, Tag, Waiting } from '../look/index.js';
import { sayVersion, VersionedFile, VersionedFiles } from '../ownFiles/index.js';
import { useAct } from '../page/index.js';
import {
  showShelf,
  useReadShelfQuery,
  useRemoveShelfFileMutation,
  useRestoreShelfFileMutation,
  useRestoreShelfVersionMutation,
  useMarkSeenOnShelfMutation,
} from './shelfApi.js';

const Part = styled.section`
  position: relative; /* what is hidden in it for screen readers stays in it */
  margin-top: 28px;
  max-width: 1280px;
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 12px;
    margin-bottom: 8px;
  }
  header h2 {
    margin: 0;
  }
  .under {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    margin-top: 10px;
  }
  .removed li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    min-height: 36px;
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
`;
const Place = styled(DropZone)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 8px;
  padding: 10px 12px;
  border: 1px dashed var(--edge);
  border-radius: var(--r-2);
  &[data-drop-target] {
    background: var(--hue-tint, var(--sunk));
    border-color: var(--ink);
  }
  @media (max-width: 700px) {
    button {
      min-height: 44px;
    }
  }
`;

/** So long it stands in view before it counts as seen. */
const longEnoughMs = 1200;

/** What the members of a group share with one another. */
export function Shelf({ groupId }: { readonly groupId: string }) {
  const shelf = useReadShelfQuery(groupId);
  if (unshown(shelf) !== undefined)
    return <ProblemStrip of={shelf.error} onRetry={() => void shelf.refetch()} />;
  if (!shelf.currentData) return <Waiting what="the shelf" rows={2} />;
  return <ShownShelf key={groupId} groupId={groupId} shelf={shelf.currentData} />;
}

interface ShownShelfProps {
  readonly groupId: string;
  readonly shelf: ShelfView;
}

function ShownShelf({ groupId, shelf }: ShownShelfProps) {
  const { files, removed, mayPut, bytes } = shelf;
  const dispatch = useDispatch();
  const seenRef = useSeenShelf(groupId, files);
  const uploads = useUploads(`groups/${groupId}/shelf`, ShelfView, (answer) =>
    dispatch(showShelf(groupId, answer) as never),
  );
  return (
    <Part aria-label="Shelf" ref={seenRef}>
      <header>
        <h2>Shelf</h2>
        <Small>
          {mayPut
            ? 'Files you share with your group. Every version stays.'
            : 'Files the members share. Every version stays.'}
        </Small>
      </header>
      {files.length > 0 && (
        <VersionedFiles aria-label="Files on the shelf">
          {files.map((file) => (
            <OneFile key={file.id} groupId={groupId} file={file} mayPut={mayPut} />
          ))}
        </VersionedFiles>
      )}
      <UploadFaults faults={uploads.faults} />
      <ArrivingFiles arriving={uploads.arriving} />
      {mayPut ? (
        <Place
          aria-label="Add files to the shelf"
          onDrop={({ items }) => {
            const dropped = items.filter((item): item is FileDropItem => item.kind === 'file');
            void Promise.all(dropped.map((item) => item.getFile())).then(uploads.add);
          }}
        >
          <FileTrigger allowsMultiple onSelect={(chosen) => uploads.add(chosen ?? [])}>
            <Button>
              <Upload size={15} aria-hidden="true" />
              Add files…
            </Button>
          </FileTrigger>
          <Small>
            Or drop them here. A file with a name that is on the shelf becomes its newest version.
          </Small>
        </Place>
      ) : (
        files.length === 0 && <Small>Nothing on the shelf yet.</Small>
      )}
      <Under groupId={groupId} removed={removed}>
        {files.length > 0 && (
          <Small>
            {files.length === 1 ? '1 file' : `${files.length} files`}, {saySize(bytes)} of{' '}
            {mostBytes / 1024 ** 3} GB
          </Small>
        )}
      </Under>
    </Part>
  );
}

interface OneFileProps {
  readonly groupId: string;
  readonly file: ShelfFile;
  readonly mayPut: boolean;
}

function OneFile({ groupId, file, mayPut }: OneFileProps) {
  const { id: fileId, versions, isNew, mayRemove } = file;
  const newest = sure(versions[0]);
  const { name } = newest;
  const dispatch = useDispatch();
  const address = `groups/${groupId}/shelf/${fileId}/versions`;
  const uploads = useUploads(address, ShelfView, (answer) => dispatch(showShelf(groupId, answer) as never), {
    newest: String(newest.number),
  });
  const restoreVersion = useAct(useRestoreShelfVersionMutation(), {
    says: (_shelf, { body }) => `${sayVersion(body.number)} of ${name} is the newest again`,
    inverse: ({ body, ...asked }) => ({
      ...asked,
      body: { number: body.newest, newest: body.newest + 1 },
    }),
  });
  const restore = useAct(useRestoreShelfFileMutation());
  const remove = useAct(useRemoveShelfFileMutation(), {
    says: () => `${name} removed from the shelf`,
    undo: () => () => restore({ groupId, fileId }),
  });
  return (
    <VersionedFile
      name={name}
      versions={versions}
      address={address}
      uploads={mayPut ? uploads : null}
      onRestore={(number, before) =>
        void restoreVersion({ groupId, fileId, body: { number, newest: before } })
      }
      mark={isNew && <Tag $look="solid">new</Tag>}
      act={
        mayRemove && (
          <Button
            kind="quiet"
            isSmall
            aria-label={`Remove ${name}`}
            onPress={() => void remove({ groupId, fileId })}
          >
            Remove
          </Button>
        )
      }
    />
  );
}

interface UnderProps {
  readonly groupId: string;
  readonly removed: ShelfView['removed'];
  readonly children: ReactNode;
}

/** How much there is, and what was removed, folded away. */
function Under({ groupId, removed, children }: UnderProps) {
  const { dates } = useCourse();
  const [isOpen, setIsOpen] = useState(false);
  const restore = useAct(useRestoreShelfFileMutation());
  return (
    <>
      <div className="under">
        {children}
        {removed.length > 0 && (
          <Button kind="quiet" isSmall aria-expanded={isOpen} onPress={() => setIsOpen(!isOpen)}>
            {removed.length} removed
          </Button>
        )}
      </div>
      {isOpen && removed.length > 0 && (
        <ul className="removed" aria-label="Removed files">
          {removed.map(({ id, name, by, at }) => (
            <li key={id}>
              <span>
                {name}{' '}
                <Small>
                  removed by {by.isYou ? 'you' : by.name}, {dates.dateTime(at)}
                </Small>
              </span>
              <Button
                kind="quiet"
                isSmall
                aria-label={`Restore ${name}`}
                onPress={() => void restore({ groupId, fileId: id })}
              >
                Restore
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Says that a shelf was seen once what is new has stood in view for a moment. */
function useSeenShelf(groupId: string, files: readonly ShelfFile[]) {
  const [markSeen] = useMarkSeenOnShelfMutation();
  const ref = useRef<HTMLElement>(null);
  const newest = files.find(({ isNew }) => isNew)?.versions[0]?.at;
  useEffect(() => {
    if (newest === undefined || !ref.current) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const observer = new IntersectionObserver(([entry]) => {
      clearTimeout(timer);
      if (entry?.isIntersecting)
        timer = setTimeout(() => void markSeen({ groupId, body: { upTo: newest } }), longEnoughMs);
    });
    observer.observe(ref.current);
    return () => {
      clearTimeout(timer);
      observer.disconnect();
    };
  }, [groupId, newest, markSeen]);
  return ref;
}
