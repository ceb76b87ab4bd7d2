import { useEffect, useRef, useState } from 'react';
import { ProgressBar } from 'react-aria-components';
import { styled } from 'styled-components';
import type { Schema } from '@jigsaw/contract/common';
import { ProblemStrip } from '../api/index.js';
import { Button } from '../look/index.js';
import { uploadFile } from './uploadFile.js';

interface ArrivingFile {
  readonly id: number;
  readonly name: string;
  readonly share: number;
  readonly cancel: () => void;
}

/** Why a file did not arrive, in a sentence; the file is still at hand. */
interface UploadFault {
  readonly id: number;
  readonly sentence: string;
  readonly retry: () => void;
}

export interface Uploads {
  readonly arriving: readonly ArrivingFile[];
  readonly faults: readonly UploadFault[];
  readonly add: (files: Iterable<File>) => void;
}

/** Files on their way to one address.
 * @param onArrived with the answer to each.
 * @param more of the query, beside each file's name and type. */
export function useUploads<Answer>(
  address: string,
  answer: Schema<Answer>,
  onArrived: (answer: Answer) => void,
  more: Readonly<Record<string, string>> = {},
): Uploads {
  const [arriving, setArriving] = useState<readonly ArrivingFile[]>([]);
  const [faults, setFaults] = useState<readonly UploadFault[]>([]);
  const counter = useRef(0);
  // What is tried again goes to where files go by then: another version may be the newest.
  const latest = useRef<(file: File) => Promise<void>>(() => Promise.resolve());
  const add = async (file: File) => {
    counter.current += 1;
    const id = counter.current;
    const { done, cancel } = uploadFile(
      address,
      answer,
      file,
      (share) => setArriving((before) => before.map((each) => (each.id === id ? { ...each, share } : each))),
      more,
    );
    setArriving((before) => [...before, { id, name: file.name, share: 0, cancel }]);
    try {
      onArrived(await done);
    } catch (error) {
      const retry = () => {
        setFaults((before) => before.filter((fault) => fault.id !== id));
        void latest.current(file);
      };
      const sentence = `${file.name}: ${(error as Error).message}`;
      setFaults((before) => [...before, { id, sentence, retry }]);
    } finally {
      setArriving((before) => before.filter((each) => each.id !== id));
    }
  };
  useEffect(() => {
    latest.current = add;
  });
  return {
    arriving,
    faults,
    add: (files) => {
      setFaults([]);
      for (const file of files) void add(file);
    },
  };
}

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
    background: var(--hue, var(--ink));
  }
`;

/** How far each of them is, each with its way to stop it. */
export function ArrivingFiles({ arriving }: Pick<Uploads, 'arriving'>) {
  return arriving.map((file) => (
    <Arriving key={file.id}>
      <span>{file.name}</span>
      <Button kind="quiet" isSmall onPress={file.cancel}>
        Cancel
      </Button>
      <ProgressBar aria-label={`Adding ${file.name}`} value={Math.round(file.share * 100)}>
        {({ percentage }) => <i style={{ width: `${percentage ?? 0}%` }} />}
      </ProgressBar>
    </Arriving>
  ));
}

/** Why some of them did not arrive, each with the way to try it again. */
export const UploadFaults = ({ faults }: Pick<Uploads, 'faults'>) =>
  faults.map(({ id, sentence, retry }) => (
    <ProblemStrip key={id} onRetry={retry}>
      {sentence}
    </ProblemStrip>
  ));
