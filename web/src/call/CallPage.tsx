import { Copy, DoorClosed, DoorOpen, EyeOff } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { CallView } from '@jigsaw/contract/call';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { absentAfterMs, daysOf } from '@jigsaw/core/call';
import { sayMinutes } from '@jigsaw/core/handin';
import { namesTogether } from '@jigsaw/core/text';
import { ProblemStrip, sitInBase, sitsIn, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Emblem, Muted, Small, Split, Waiting } from '../look/index.js';
import { useCopy, useNow } from '../page/index.js';
import { Brief, CopyFrame, useSeenHere } from '../rooms/index.js';
import { useReadCallQuery } from './callApi.js';
import { DoorSheet } from './DoorSheet.js';
import { millis, Today } from './Today.js';
import { useVisit } from './useVisit.js';

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 8px 32px 8px 26px;
  border-bottom: 3px dashed var(--ink);
  background: var(--surface);
  font: var(--t-13);
  > p {
    flex: 1;
    min-width: 220px;
  }
  @media (max-width: 700px) {
    padding: 8px 16px;
  }
`;
const Floor = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
`;
const Main = styled.div`
  overflow: auto;
  padding: 22px 32px;
  display: grid;
  gap: 18px;
  align-content: start;
  @media (max-width: 700px) {
    padding: 14px 16px;
  }
`;
const Card = styled.section`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 10px 26px;
  align-items: center;
  padding: 22px 24px 22px 30px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-3);
  h2 {
    font: var(--h-32);
    letter-spacing: -0.02em;
    overflow-wrap: anywhere;
  }
  .link {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 10px;
    margin-top: 12px;
  }
  .acts {
    display: grid;
    gap: 8px;
    button,
    a {
      min-height: 44px;
      padding: 0 22px;
      font-size: 15px;
    }
  }
  .acts a {
    display: grid;
    place-items: center;
    border: 1px solid var(--ink);
    border-radius: var(--r-2);
    font: 600 15px/1 var(--font-text);
    text-decoration: none;
  }
  @media (max-width: 900px) {
    grid-template-columns: auto minmax(0, 1fr);
    padding: 14px 16px;
    gap: 12px;
    h2 {
      font: var(--h-22);
    }
    .acts {
      grid-column: 1 / -1;
    }
  }
`;
const Side = styled.aside`
  overflow: auto;
  border-left: var(--hair);
  background: var(--paper);
  padding: 22px 26px;
  h2 {
    font: var(--h-17);
    padding-bottom: 8px;
    border-bottom: var(--hair);
  }
  li {
    display: grid;
    grid-template-columns: 84px minmax(0, 1fr);
    gap: 10px;
    padding: 9px 0;
    border-bottom: var(--hair);
    font: var(--t-13);
  }
  b {
    font-weight: 620;
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: 1px solid var(--ink);
    padding: 14px 16px;
  }
`;

/** The place where a group meets: who is in, the way in, and who came before. */
export default function CallPage({ head }: { readonly head: CopyHead }) {
  // Someone whose line or machine breaks says nothing: they are missed.
  const call = useReadCallQuery(head.id, { pollingInterval: absentAfterMs / 2 });
  const seen = useSeenHere(head);
  return (
    <CopyFrame head={head}>
      {unshown(call) !== undefined ? (
        <ProblemStrip of={call.error} onRetry={() => void call.refetch()} />
      ) : call.data ? (
        <div ref={seen} style={{ display: 'grid', minHeight: 0 }}>
          <Call head={head} view={call.data} />
        </div>
      ) : (
        <Waiting what="the call" rows={6} />
      )}
    </CopyFrame>
  );
}

function Call({ head, view }: { readonly head: CopyHead; readonly view: CallView }) {
  const { dates } = useCourse();
  const now = useNow();
  const visit = useVisit(head.id);
  const copy = useCopy();
  const [isAsking, setIsAsking] = useState(false);
  const whose = head.group?.name ?? 'the class';
  const isMember = head.part === 'member';
  const seesDays = isMember && !sitsIn();
  const others = view.inNow.filter(({ member }) => !member.isYou);
  const copyLink = () =>
    copy(
      window.location.href.replace(sitInBase(), ''),
      'Link copied',
      'Copy the address of this page from above.',
    );
  const days = daysOf(view.visits.map(millis), now, (at) => dates.day(new Date(at).toISOString())).filter(
    ({ day }) => day !== dates.day(new Date(now).toISOString()),
  );
  return (
    <Floor>
      <Strip>
        <DoorOpen size={17} aria-hidden="true" />
        <p>
          {view.door.address === '' ? (
            <>
              <b>This page stands in for a call.</b> It shows who is here. Say where your call takes place,
              and the door leads there.
            </>
          ) : (
            <>
              <b>The door leads to</b> {view.door.address}
            </>
          )}
        </p>
        {view.maySetDoor && (
          <Button isSmall onPress={() => setIsAsking(true)}>
            Where does the door lead?
          </Button>
        )}
      </Strip>
      <Split $aside="330px">
        <Main>
          <Card aria-label="Who is in">
            {head.group ? (
              <Emblem number={head.group.number} size={72} />
            ) : (
              <DoorOpen size={40} aria-hidden="true" />
            )}
            <div>
              <h2 aria-live="polite">{sayWho(view)}</h2>
              <p>
                {sayHow(view, dates.time)} The door is open to {whose}
                {isMember ? ` and staff` : ''}.
              </p>
              <div className="link">
                <Button isSmall onPress={() => void copyLink()}>
                  <Copy size={14} aria-hidden="true" />
                  Copy link
                </Button>
                <Small>It stays the same all term, and works for members only.</Small>
              </div>
            </div>
            <div className="acts">
              {visit.isIn ? (
                <>
                  <Button onPress={visit.leave}>
                    <DoorClosed size={18} aria-hidden="true" />
                    Leave
                  </Button>
                  {view.door.address !== '' && (
                    <a href={view.door.address} target="_blank" rel="noopener noreferrer">
                      Open the call
                    </a>
                  )}
                </>
              ) : (
                view.mayStepIn && (
                  <Button kind="main" isDisabled={visit.isBusy} onPress={() => void visit.stepIn()}>
                    <DoorOpen size={18} aria-hidden="true" />
                    Step in
                  </Button>
                )
              )}
            </div>
          </Card>
          {visit.wasAway && (
            <ProblemStrip>
              Your page was away for a while, so the others saw you leave. Step in again.
            </ProblemStrip>
          )}
          {visit.error !== undefined && <ProblemStrip of={visit.error} />}
          {others.length > 0 && visit.isIn && (
            <Muted>With you: {namesTogether(others.map(({ member }) => member.name))}.</Muted>
          )}
          <Brief head={head} />
          {seesDays && view.members.length <= mostRows && <Today view={view} now={now} />}
          {isMember && (
            <Muted>
              <EyeOff size={14} aria-hidden="true" /> Nothing is recorded. Only who came and how long, and
              only you who share this see that.
            </Muted>
          )}
        </Main>
        <Side aria-label="The days before">
          <h2>The days before</h2>
          {!seesDays && <Muted>Only members see who came on the days before.</Muted>}
          {seesDays && days.length === 0 && <Muted>No one came yet.</Muted>}
          <ul>
            {days.map(({ day, names, ms }) => (
              <li key={day}>
                <span>{day}</span>
                <span>
                  <b>{namesTogether(names)}</b>, {sayMinutes(Math.max(1, Math.round(ms / 60_000)))}
                </span>
              </li>
            ))}
          </ul>
        </Side>
      </Split>
      {isAsking && (
        <DoorSheet copyId={head.id} door={view.door} whose={whose} onClose={() => setIsAsking(false)} />
      )}
    </Floor>
  );
}

/** A class has no lines for each of its people. */
const mostRows = 12;

function sayWho({ inNow }: CallView): string {
  if (inNow.length === 0) return 'No one is in';
  if (inNow.length > 3) return `${inNow.length} are in`;
  const others = inNow.filter(({ member }) => !member.isYou).map(({ member }) => member.name);
  const isYou = others.length < inNow.length;
  if (others.length === 0) return 'You are in';
  return `${namesTogether(isYou ? [...others, 'you'] : others)} ${inNow.length === 1 ? 'is' : 'are'} in`;
}

function sayHow({ inNow }: CallView, time: (iso: string) => string): string {
  const [first] = inNow;
  if (!first) return '';
  return `Since ${time(first.since)}${inNow.length === 1 ? ', alone' : ''}.`;
}
