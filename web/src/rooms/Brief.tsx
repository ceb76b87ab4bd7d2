import type { CopyHead } from '@jigsaw/contract/rooms';
import { apiAddress } from '../api/index.js';
import { FileLinks } from '../form/index.js';

import { OwnFilesPart } from '../ownFiles/index.js';
import { RichText } from '../text/index.js';
import { valuesOf } from './placeholders.js';

/** What was written for this copy, and the files that were attached. */
export function Brief({ head }: { readonly head: CopyHead }) {
  return (
    <>
      <RichText node={head.brief} values={valuesOf(head)} />
      <FileLinks
        label="Attached files"
        files={head.files}
        addressOf={(fileId) => apiAddress(`copies/${head.id}/attached/${fileId}`)}
      />
      <OwnFilesPart copyId={head.id} own={head.ownFiles} whose={head.group?.name ?? 'The class'} />
    </>
  );
}
