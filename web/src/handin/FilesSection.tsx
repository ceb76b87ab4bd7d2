import { Paperclip } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { WorkView } from '@jigsaw/contract/handin';
import type { WorkFile } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { counted } from '@jigsaw/core/text';
import { api } from '../api/index.js';
import { ArrivingFiles, UploadFaults, useUploads } from '../form/index.js';
import { useAct } from '../page/index.js';
import { Button, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useDeleteFileMutation } from './handinApi.js';
import { FileList } from './HandedIn.js';

export function FilesSection({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const dispatch = useDispatch();
  const { arriving, faults, add } = useUploads(`copies/${head.id}/files`, WorkView, () =>
    dispatch(api.util.invalidateTags(['Copy', 'Room'])),
  );
  const deleteFile = useAct(useDeleteFileMutation(), {
    says: (_work, { fileId, isDeleted }) =>
      `${work.files.find((file) => file.id === fileId)?.name ?? 'File'} ${isDeleted ? 'deleted' : 'restored'}`,
    inverse: (asked) => ({ ...asked, isDeleted: !asked.isDeleted }),
  });
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
      <UploadFaults faults={faults} />
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
      <ArrivingFiles arriving={arriving} />
      {work.mayHandIn && (
        <div className="add">
          <FileTrigger
            allowsMultiple={rules.mostFiles > 1}
            acceptedFileTypes={rules.types.map((type) => `.${type}`)}
            onSelect={(files) => add(files ?? [])}
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
