import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import { OwnFiles } from '@jigsaw/contract/ownFiles';
import type { OwnFile } from '@jigsaw/contract/ownFiles';
import { sure } from '@jigsaw/core/lists';
import { api } from '../api/index.js';
import { useUploads } from '../form/index.js';
import { Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useRestoreOwnFileMutation } from './ownFilesApi.js';
import { sayVersion, VersionedFile, VersionedFiles } from './VersionedFile.js';

const Box = styled.section`
  margin-top: 14px;
  h3 {
    font: var(--h-14);
  }
`;

interface OwnFilesPartProps {
  readonly copyId: string;
  readonly own: OwnFiles;
  /** “Crock”, “the class”. */
  readonly whose: string;
}

/** Files of which this copy has its own: the newest version of each, the way to a newer one, and all that were before. */
export function OwnFilesPart({ copyId, own, whose }: OwnFilesPartProps) {
  if (own.files.length === 0) return null;
  return (
    <Box aria-label="Files to work in">
      <h3>
        Files to work in <Small>{whose} has its own. Every version stays.</Small>
      </h3>
      <VersionedFiles>
        {own.files.map((file) => (
          <OneFile key={file.originalId} copyId={copyId} file={file} mayPut={own.mayPut} />
        ))}
      </VersionedFiles>
    </Box>
  );
}

interface OneFileProps {
  readonly copyId: string;
  readonly file: OwnFile;
  readonly mayPut: boolean;
}

function OneFile({ copyId, file, mayPut }: OneFileProps) {
  const dispatch = useDispatch();
  const { originalId, name, versions } = file;
  const address = `copies/${copyId}/own-files/${originalId}/versions`;
  const restore = useAct(useRestoreOwnFileMutation(), {
    says: (_own, { body }) => `${sayVersion(body.number)} of ${name} is the newest again`,
    inverse: ({ body, ...asked }) => ({
      ...asked,
      body: { number: body.newest, newest: body.newest + 1 },
    }),
  });
  const uploads = useUploads(address, OwnFiles, () => dispatch(api.util.invalidateTags(['Copy'])), {
    newest: String(sure(versions[0]).number),
  });
  return (
    <VersionedFile
      name={name}
      versions={versions}
      address={address}
      uploads={mayPut ? uploads : null}
      onRestore={(number, newest) => void restore({ copyId, originalId, body: { number, newest } })}
    />
  );
}
