import { Eye, FlaskConical } from 'lucide-react';
import { useEffect, useEffectEvent, useState } from 'react';
import type { ReactNode } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import type { SessionView } from '@jigsaw/contract/identity';
import { sitInBase } from '../api/index.js';
import { cameFromKey } from '../course/index.js';
import { Button, PersonName, Segments, Waiting } from '../look/index.js';
import { readStored, useAct, useStored } from '../page/index.js';
import {
  useClearPracticeMutation,
  useRestorePracticeMutation,
  useStartPracticeMutation,
} from '../practice/index.js';

/** Perforated, as everything that stands between the page and the world. */
const Strip = styled.section`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  min-height: 42px;
  padding: 5px var(--s-4);
  background: var(--surface);
  border-bottom: 3px dashed var(--ink);
  /* It says so for as long as it lasts, also where the whole page scrolls. */
  position: sticky;
  top: 0;
  z-index: var(--z-track);
  > p {
    flex: 1 1 260px;
    font: var(--t-13);
  }
  > a {
    font: 600 13px/20px var(--font-text);
    color: var(--ink);
    text-underline-offset: 3px;
  }
  svg {
    flex: none;
  }
  @media (max-width: 1000px) {
    > [role='radiogroup'] {
      display: none;
    }
  }
`;
const Both = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-height: 0;
  > div {
    display: grid;
    grid-template: minmax(0, 1fr) / minmax(0, 1fr);
    min-width: 0;
    min-height: 0;
  }
  @media (min-width: 1001px) {
    &[data-beside] {
      grid-template-columns: minmax(0, 1fr) 416px;
    }
    > aside {
      padding: 12px;
      background: var(--sunk);
      border-left: 1px solid var(--ink);
    }
  }
  @media (max-width: 1000px) {
    > aside {
      display: none;
    }
  }
  @media (max-width: 700px) {
    display: block;
  }
  iframe {
    display: block;
    width: 390px;
    height: 100%;
    border: 1px solid var(--ink);
    border-radius: var(--r-2);
    background: var(--floor);
  }
`;

interface SittingInProps {
  readonly session: SessionView;
  readonly children: ReactNode;
}

/** A course as one of its students sees it, with the same page at the width of a phone beside it if wanted. */
export function SittingIn({ session, children }: SittingInProps) {
  return session.sitsIn?.practisesIn ? (
    <Practising courseId={session.sitsIn.courseId} group={session.sitsIn.practisesIn}>
      {children}
    </Practising>
  ) : (
    <Looking session={session}>{children}</Looking>
  );
}

function Looking({ session: { person, sitsIn }, children }: SittingInProps) {
  const { pathname, search } = useLocation();
  const [look, setLook] = useStored('jigsaw.sit-in-beside', z.enum(['page', 'both']), 'reader');
  const [from] = useState(() => readStored(cameFromKey, z.string().startsWith('/'), 'reader'));
  // The page that stands beside has the strip of the one around it.
  if (window.self !== window.top) return children;
  return (
    <>
      <Strip aria-label="Sitting in" data-sitting-in>
        <Eye size={17} aria-hidden="true" />
        <p>
          <b>
            Sitting in as <PersonName name={person.name} reading={person.reading} />.
          </b>{' '}
          You see what they see. Nothing is sent or changed, and they are not told.
        </p>
        <Segments
          label="How it is shown"
          value={look ?? 'page'}
          choices={[
            { id: 'page', label: 'Page' },
            { id: 'both', label: 'With a phone beside it' },
          ]}
          onChange={setLook}
        />
        <a href={from ?? `/c/${sitsIn?.courseId ?? ''}/people`}>Leave</a>
      </Strip>
      <Both data-beside={look === 'both' || undefined}>
        <div>{children}</div>
        {look === 'both' && (
          <aside aria-label="At the width of a phone">
            <iframe src={`${sitInBase()}${pathname}${search}`} title="The same page on a phone" />
          </aside>
        )}
      </Both>
    </>
  );
}

interface PractisingProps {
  readonly courseId: string;
  readonly group: NonNullable<NonNullable<SessionView['sitsIn']>['practisesIn']>;
  readonly children: ReactNode;
}

/** A course in which the practice student acts, as a member of a group. */
function Practising({ courseId, group: { groupId, name }, children }: PractisingProps) {
  const navigate = useNavigate();
  const [from] = useState(() => readStored(cameFromKey, z.string().startsWith('/'), 'reader'));
  const start = useAct(useStartPracticeMutation());
  const [isTurning, setTurning] = useState(false);
  /** Meanwhile nothing is shown, so that no link of the round before leads into the one after it. */
  const turn = async (act: () => Promise<unknown>) => {
    setTurning(true);
    await navigate(`/c/${courseId}/room`);
    await act();
    setTurning(false);
  };
  const restore = useAct(useRestorePracticeMutation(), { says: () => 'What was practised is back' });
  const clear = useAct(useClearPracticeMutation(), {
    says: () => 'What was practised in this course is cleared',
    undo: ({ round }) => (round > 1 ? () => turn(() => restore({ courseId, round: round - 1 })) : null),
  });
  // What was released since someone practised here last has its copy, too.
  const makeReady = () => start({ courseId, groupId });
  const begin = useEffectEvent(() => void makeReady());
  useEffect(() => begin(), []);
  const clearAll = () => turn(async () => (await clear({ courseId })) && (await makeReady()));
  return (
    <>
      <Strip aria-label="Practising" data-sitting-in>
        <FlaskConical size={17} aria-hidden="true" />
        <p>
          <b>Practising as a member of {name}.</b> No one else sees what you do here, and nothing counts.
        </p>
        <Button isSmall isDisabled={isTurning} onPress={() => void clearAll()}>
          Clear what was practised
        </Button>
        <a href={from ?? `/c/${courseId}/rooms`}>Leave</a>
      </Strip>
      {isTurning ? <Waiting what="the room" /> : children}
    </>
  );
}
