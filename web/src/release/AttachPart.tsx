import { Mic, Paperclip, Video, X } from 'lucide-react';
import { useLayoutEffect, useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { AttachedFile } from '@jigsaw/contract/release';
import { apiAddress } from '../api/index.js';
import { ArrivingFiles, canRecord, FileLinks, RecordSheet, UploadFaults, useUploads } from '../form/index.js';
import { Button, Choice, Small, useNotice } from '../look/index.js';
import type { Composing } from './useComposer.js';

const Add = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-top: 10px;
`;

const Acts = styled.span`
  display: flex;
  align-items: center;
  gap: 4px;
  padding-right: 6px;
`;
const uses = [
  { id: 'all', label: 'All read it' },
  { id: 'own', label: 'Each group changes its own' },
] as const;

/** Files for everyone who gets the activity: to read, or one of its own for each group. */
export function AttachPart({ composing }: { readonly composing: Composing }) {
  const { activity, draft, change } = composing;
  const notice = useNotice();
  const [recording, setRecording] = useState<'sound' | 'video' | null>(null);
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
        label="Files"
        files={files}
        addressOf={(fileId) => apiAddress(`activities/${activity.id}/files/${fileId}`)}
        act={(fileId, name) => (
          <Acts>
            <Choice
              label={`Use of ${name}`}
              isLabelHidden
              value={files.find(({ id }) => id === fileId)?.isPerGroup ? 'own' : 'all'}
              choices={uses}
              onChange={(use) =>
                put(
                  attached.current.map((file) =>
                    file.id === fileId ? { ...file, isPerGroup: use === 'own' } : file,
                  ),
                )
              }
            />
            <Button
              kind="quiet"
              isIconOnly
              aria-label={`Remove ${name}`}
              onPress={() => remove(fileId, name)}
            >
              <X size={15} aria-hidden="true" />
            </Button>
          </Acts>
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
        {canRecord() && (
          <>
            <Button kind="quiet" isSmall onPress={() => setRecording('sound')}>
              <Mic size={14} aria-hidden="true" />
              Record sound…
            </Button>
            <Button kind="quiet" isSmall onPress={() => setRecording('video')}>
              <Video size={14} aria-hidden="true" />
              Record video…
            </Button>
          </>
        )}
        {files.length === 0 && <Small>Everyone who gets this can read them.</Small>}
      </Add>
      {recording && (
        <RecordSheet what={recording} onDone={(file) => add([file])} onClose={() => setRecording(null)} />
      )}
    </section>
  );
}
