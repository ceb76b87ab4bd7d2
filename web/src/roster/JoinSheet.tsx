import { useState } from 'react';
import { Label, RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip } from '../api/index.js';
import { Button, GroupChip, Option, PersonName, Sheet, Small, Tag } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { roleWords } from './columns.js';
import { useRosterAct } from './useRosterAct.js';

const Pair = styled(RadioGroup)`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 10px 0 12px;
  > :first-child {
    grid-column: 1 / -1;
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
`;
const Card = styled(Option)`
  align-content: start;
  gap: 6px;
  padding: 12px;
  overflow-wrap: anywhere;
  header {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: start;
    margin: 0;
  }
  .places {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
  }
`;

interface JoinSheetProps {
  readonly pair: readonly [RosterEntry, RosterEntry];
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** Someone who stands in the roster twice: which entry stays, and what it takes over. */
export function JoinSheet({ pair, onClose, onDone }: JoinSheetProps) {
  const { course, dates } = useCourse();
  const [stays, setStays] = useState(() => likelier(pair, course.enrolmentId).enrolmentId);
  const { act, error, isBusy } = useRosterAct();
  const keep = sure(pair.find((entry) => entry.enrolmentId === stays));
  const other = sure(pair.find((entry) => entry.enrolmentId !== stays));
  const isYouLost = other.enrolmentId === course.enrolmentId;
  const join = async () => {
    if (
      await act(
        { act: 'join', keep: keep.enrolmentId, other: other.enrolmentId },
        `${keep.name} has one merged entry now`,
      )
    )
      onDone();
  };
  return (
    <Sheet title="One person, two entries" onClose={onClose}>
      {error && <ProblemStrip of={error} />}
      <p>
        Places, posts, work, credits and marks of both go to the entry that stays. Nothing is lost, and it can
        be undone.
      </p>
      <Pair value={stays} onChange={(id) => setStays(id as typeof stays)}>
        <Label>Which entry stays?</Label>
        {pair.map((entry) => (
          <Card key={entry.enrolmentId} value={entry.enrolmentId}>
            <header>
              <b>
                <PersonName name={entry.name} reading={entry.reading} />
              </b>
              {entry.enrolmentId === stays && <Tag $look="plain">Stays</Tag>}
            </header>
            <span>{entry.email}</span>
            <Small>
              {[entry.number, roleWords[entry.role], ...Object.values(entry.attributes)]
                .filter(Boolean)
                .join(' · ')}
              <br />
              {entry.lastSeenAt
                ? `Last in ${dates.dateTime(entry.lastSeenAt)}`
                : entry.hasComeIn
                  ? 'Has chosen a password'
                  : 'Has not signed in yet'}
              {entry.leftAt && `, left ${dates.day(entry.leftAt)}`}
            </Small>
            <span className="places">
              {entry.groups.map((group) => (
                <GroupChip key={group.groupId} number={group.number} name={group.name} />
              ))}
            </span>
          </Card>
        ))}
      </Pair>
      <Small>
        {keep.name} signs in as {keep.email}. Class files and the registrar may go on naming {other.email}: it
        is the same person from now on.
      </Small>
      <footer>
        {isYouLost && <Small>Keep your own entry.</Small>}
        <Button kind="main" isDisabled={isBusy || isYouLost} onPress={() => void join()}>
          {isBusy ? 'One moment…' : 'Merge entries'}
        </Button>
      </footer>
    </Sheet>
  );
}

/** The one who is here, has signed in, and was seen last. */
function likelier([one, two]: readonly [RosterEntry, RosterEntry], you: string): RosterEntry {
  const weight = (entry: RosterEntry) => [
    entry.enrolmentId === you,
    entry.leftAt === null,
    entry.hasComeIn,
    entry.lastSeenAt ?? '',
    entry.number !== null,
  ];
  const [a, b] = [weight(one), weight(two)];
  const at = a.findIndex((each, index) => each !== b[index]);
  return at >= 0 && sure(b[at]) > sure(a[at]) ? two : one;
}
