import { Download, FileDiff, History, Upload } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import { OwnFiles } from '@jigsaw/contract/ownFiles';
import type { OwnFile, OwnVersion } from '@jigsaw/contract/ownFiles';
import { sure } from '@jigsaw/core/lists';
import { api, apiAddress } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { ArrivingFiles, saySize, UploadFaults, useUploads } from '../form/index.js';
import type { Dates } from '../look/index.js';
import { Button, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useRestoreOwnFileMutation } from './ownFilesApi.js';

const Box = styled.section`
  margin-top: 14px;
  h3 {
    font: var(--h-14);
  }
  > ul > li {
    margin-top: 6px;
    border: 1px solid var(--hue, var(--edge));
    border-radius: var(--r-2);
    background: var(--surface);
  }
  .newest {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) auto;
    align-items: center;
    gap: 6px 10px;
    padding: 8px 12px;
  }
  .newest b {
    display: block;
    font: 620 13px/17px var(--font-text);
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  ol {
    border-top: var(--hair);
    padding: 0 12px;
  }
  ol li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 8px;
    min-height: 36px;
    padding: 6px 0;
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
  ol li + li {
    border-top: var(--hair);
  }
  @media (max-width: 700px) {
    .newest {
      grid-template-columns: 20px minmax(0, 1fr);
    }
    .acts {
      grid-column: 1 / -1;
    }
    ol li {
      grid-template-columns: auto auto 1fr;
      gap: 0 8px;
    }
    ol li > span {
      grid-column: 1 / -1;
    }
    .acts > *,
    ol a,
    ol button {
      min-height: 44px;
    }
  }
`;
const Fetch = styled.a`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl-s, 28px);
  padding: 0 9px;
  border-radius: var(--r-2);
  font: 600 12px/1 var(--font-text);
  text-decoration: none;
  &:hover {
    background: var(--wash);
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
      <ul>
        {own.files.map((file) => (
          <OneFile key={file.originalId} copyId={copyId} file={file} mayPut={own.mayPut} />
        ))}
      </ul>
    </Box>
  );
}

interface OneFileProps {
  readonly copyId: string;
  readonly file: OwnFile;
  readonly mayPut: boolean;
}

function OneFile({ copyId, file, mayPut }: OneFileProps) {
  const { dates } = useCourse();
  const dispatch = useDispatch();
  const [isOpen, setIsOpen] = useState(false);
  const { originalId, name, versions } = file;
  const newest = sure(versions[0]);
  const earlier = versions.slice(1);
  const address = `copies/${copyId}/own-files/${originalId}/versions`;
  const restore = useAct(useRestoreOwnFileMutation(), {
    says: (_own, { body }) => `${sayVersion(body.number)} of ${name} is the newest again`,
    inverse: ({ body, ...asked }) => ({
      ...asked,
      body: { number: body.newest, newest: body.newest + 1 },
    }),
  });
  const uploads = useUploads(address, OwnFiles, () => dispatch(api.util.invalidateTags(['Copy'])), {
    newest: String(newest.number),
  });
  const fetchLink = (version: OwnVersion) => (
    <Fetch
      href={apiAddress(`${address}/${version.number}`)}
      download={version.name}
      aria-label={`Download ${sayVersion(version.number)} of ${name}`}
    >
      <Download size={14} aria-hidden="true" />
      Download
    </Fetch>
  );
  return (
    <li>
      <UploadFaults faults={uploads.faults} />
      <div className="newest">
        <FileDiff size={18} aria-hidden="true" />
        <span>
          <b>{newest.name}</b>
          <Small>{sayWho(newest, dates)}</Small>
        </span>
        <span className="acts">
          {fetchLink(newest)}
          {mayPut && (
            <FileTrigger onSelect={(chosen) => uploads.add([...(chosen ?? [])].slice(0, 1))}>
              <Button isSmall aria-label={`Add a new version of ${name}`}>
                <Upload size={14} aria-hidden="true" />
                New version…
              </Button>
            </FileTrigger>
          )}
          {earlier.length > 0 && (
            <Button
              kind="quiet"
              isSmall
              aria-expanded={isOpen}
              aria-label={`Earlier versions of ${name}`}
              onPress={() => setIsOpen(!isOpen)}
            >
              <History size={14} aria-hidden="true" />
              {earlier.length} earlier
            </Button>
          )}
        </span>
      </div>
      <ArrivingFiles arriving={uploads.arriving} />
      {isOpen && (
        <ol aria-label={`Earlier versions of ${name}`}>
          {earlier.map((version) => (
            <li key={version.number}>
              <span>
                {version.name}
                <br />
                <Small>{sayWho(version, dates)}</Small>
              </span>
              {fetchLink(version)}
              {mayPut && (
                <Button
                  kind="quiet"
                  isSmall
                  aria-label={`Restore ${sayVersion(version.number)} of ${name}`}
                  onPress={() =>
                    void restore({
                      copyId,
                      originalId,
                      body: { number: version.number, newest: newest.number },
                    })
                  }
                >
                  Restore
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </li>
  );
}

const sayVersion = (number: number): string => (number === 0 ? 'The file as attached' : `Version ${number}`);

/** “Version 3, Kofi, Tue 3 Nov, 10:05, 12 kB”. */
function sayWho({ number, by, at, restored, sizeBytes }: OwnVersion, dates: Dates): string {
  const again = restored === null ? null : `${sayVersion(restored).toLowerCase()} again`;
  const who = by === null ? null : by.isYou ? 'you' : by.name;
  return [sayVersion(number), again, who, at === null ? null : dates.dateTime(at), saySize(sizeBytes)]
    .filter((part) => part !== null)
    .join(', ');
}
