import { Paperclip } from 'lucide-react';
import { useRef, useState } from 'react';
import { FileTrigger, ProgressBar } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import type { WorkView } from '@jigsaw/contract/handin';
import type { WorkFile } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { counted } from '@jigsaw/core/text';
import { api, ProblemStrip } from '../api/index.js';
import { useAct } from '../page/index.js';
import { Button, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useDeleteFileMutation } from './handinApi.js';
import { uploadFile } from './uploadFile.js';
import type { Upload } from './uploadFile.js';
import { FileList } from './HandedIn.js';

const Arriving = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 10px;
  align-items: center;
  padding: 8px 12px;
  margin-top: 6px;
  border: 1px dashed var(--edge);
  border-radius: var(--r-2);
  [role='progressbar'] {
    grid-column: 1 / -1;
    height: 6px;
    background: var(--sunk);
    border-radius: 2px;
  }
  i {
    display: block;
    height: 6px;
    border-radius: 2px;
    background: var(--hue);
  }
`;

interface ArrivingFile {
  readonly id: number;
  readonly name: string;
  readonly share: number;
  readonly upload: Upload;
}

export function FilesSection({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const dispatch = useDispatch();
  const [arriving, setArriving] = useState<readonly ArrivingFile[]>([]);
  const [faults, setFaults] = useState<readonly string[]>([]);
  const deleteFile = useAct(useDeleteFileMutation(), {
    says: (_work, { fileId, isDeleted }) =>
      `${work.files.find((file) => file.id === fileId)?.name ?? 'File'} ${isDeleted ? 'deleted' : 'restored'}`,
    inverse: (asked) => ({ ...asked, isDeleted: !asked.isDeleted }),
  });
  const counter = useRef(0);

  const add = async (file: File) => {
    counter.current += 1;
    const id = counter.current;
    const upload = uploadFile(head.id, file, (share) =>
      setArriving((before) => before.map((each) => (each.id === id ? { ...each, share } : each))),
    );
    setArriving((before) => [...before, { id, name: file.name, share: 0, upload }]);
    try {
      await upload.done;
      dispatch(api.util.invalidateTags(['Copy', 'Room']));
    } catch (error) {
      setFaults((before) => [...before, `${file.name}: ${(error as Error).message}`]);
    } finally {
      setArriving((before) => before.filter((each) => each.id !== id));
    }
  };
  const remove = (file: WorkFile) => deleteFile({ copyId: head.id, fileId: file.id, isDeleted: true });
  const { rules } = work;
  const takes = [
    `at most ${counted(rules.mostFiles, 'file')}`,
    rules.types.length > 0 && rules.types.map((type) => `.${type}`).join(', '),
    `up to ${rules.largestMb} MB each`,
  ].filter(Boolean);
  const isFull = work.files.length >= rules.mostFiles;
  if (!work.mayHandIn && work.files.length === 0) return null;
  return (
    <section aria-label="Files">
      <h2>
        Files
        <small>{rules.by === 'student' ? 'only yours' : 'each member adds their own files'}</small>
      </h2>
      {faults.map((fault, at) => (
        <ProblemStrip key={at}>{fault}</ProblemStrip>
      ))}
      <FileList
        copyId={head.id}
        files={work.files}
        dates={dates}
        act={(file) =>
          work.mayHandIn && file.addedBy.isYou && !(rules.attempts === 'all' && file.isHandedIn) ? (
            <Button kind="quiet" isSmall onPress={() => void remove(file)} aria-label={`Delete ${file.name}`}>
              Delete
            </Button>
          ) : null
        }
      />
      {arriving.map((file) => (
        <Arriving key={file.id}>
          <span>{file.name}</span>
          <Button kind="quiet" isSmall onPress={file.upload.cancel}>
            Cancel
          </Button>
          <ProgressBar aria-label={`Adding ${file.name}`} value={Math.round(file.share * 100)}>
            {({ percentage }) => <i style={{ width: `${percentage ?? 0}%` }} />}
          </ProgressBar>
        </Arriving>
      ))}
      {work.mayHandIn && (
        <div className="add">
          <FileTrigger
            allowsMultiple={rules.mostFiles > 1}
            acceptedFileTypes={rules.types.map((type) => `.${type}`)}
            onSelect={(files) => {
              setFaults([]);
              for (const file of files ?? []) void add(file);
            }}
          >
            <Button isDisabled={isFull}>
              <Paperclip size={16} aria-hidden="true" />
              Add files…
            </Button>
          </FileTrigger>
          <Small>
            {isFull
              ? `No more than ${counted(rules.mostFiles, 'file')} here.`
              : `File types and limits: ${takes.join(', ')}.`}
          </Small>
        </div>
      )}
    </section>
  );
}
