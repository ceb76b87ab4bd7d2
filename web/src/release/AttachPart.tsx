import { Paperclip, X } from 'lucide-react';
import { useLayoutEffect, useRef } from 'react';
import { FileTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { AttachedFile } from '@jigsaw/contract/release';
import { ArrivingFiles, UploadFaults, useUploads } from '../form/index.js';
import { Button, FileLinks, Small, useNotice } from '../look/index.js';
import type { Composing } from './useComposer.js';

const Add = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-top: 10px;
`;

/** Files that everyone reads who gets the activity. */
export function AttachPart({ composing }: { readonly composing: Composing }) {
  const { activity, draft, change } = composing;
  const notice = useNotice();
  const files = draft.files ?? [];
  // Several arrive between two renderings; none may push out another.
  const attached = useRef(files);
  useLayoutEffect(() => {
    attached.current = files;
  });
  const put = (next: readonly AttachedFile[]) => {
    attached.current = [...next];
    change({ files: [...next] });
  };
  const remove = (fileId: string, name: string) => {
    const before = attached.current;
    put(before.filter((file) => file.id !== fileId));
    notice(`${name} removed`, { label: 'Undo', do: () => put(before) });
  };
  const { arriving, faults, add } = useUploads(`activities/${activity.id}/files`, AttachedFile, (file) =>
    put([...attached.current, file]),
  );
  return (
    <section aria-label="Attached files">
      <UploadFaults faults={faults} />
      <FileLinks
        label="Files for all to read"
        files={files}
        addressOf={(fileId) => `/api/activities/${activity.id}/files/${fileId}`}
        act={(fileId, name) => (
          <Button kind="quiet" isIconOnly aria-label={`Remove ${name}`} onPress={() => remove(fileId, name)}>
            <X size={15} aria-hidden="true" />
          </Button>
        )}
      />
      <ArrivingFiles arriving={arriving} />
      <Add>
        <FileTrigger allowsMultiple onSelect={(chosen) => add(chosen ?? [])}>
          <Button isSmall>
            <Paperclip size={14} aria-hidden="true" />
            Attach files…
          </Button>
        </FileTrigger>
        {files.length === 0 && <Small>Everyone who gets this can read them.</Small>}
      </Add>
    </section>
  );
}
