import { useState } from 'react';
import { styled } from 'styled-components';
import type { EventSettings, OwnTime } from '@jigsaw/contract/calendar';
import { inTurn } from '@jigsaw/core/calendar';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { NumberInLine, Sentence } from '../form/index.js';
import { sayTimes } from '../kinds/index.js';
import { Button, DateTimeField, Emblem, GroupLines, Sheet, Small } from '../look/index.js';
import type { NamedGroup } from '../text/index.js';

const Form = styled.div`
  display: grid;
  gap: 12px;
  ol {
    max-height: 260px;
    overflow: auto;
  }
`;
const longest = 1440;
const usual = 20;

/** So many minutes that all groups fit between the start and the end. */
function fitting({ starts, ends }: EventSettings, groups: number): number {
  if (starts === null || ends === null) return usual;
  return Math.max(1, Math.floor((Date.parse(ends) - Date.parse(starts)) / 60_000 / groups));
}

interface InTurnSheetProps {
  readonly settings: EventSettings;
  readonly groups: readonly NamedGroup[];
  readonly onSet: (own: OwnTime[]) => void;
  readonly onClose: () => void;
}

/** One group after another, each as long as the others. */
export function InTurnSheet({ settings, groups, onSet, onClose }: InTurnSheetProps) {
  const { course, dates } = useCourse();
  const [first, setFirst] = useState(settings.starts);
  const [lasts, setLasts] = useState(() => fitting(settings, groups.length));
  const [pause, setPause] = useState(0);
  const order = groups.map(({ id }) => id);
  const placeOf = (groupId: string) => settings.own.find((each) => each.groupId === groupId)?.place ?? '';
  const times =
    first === null || lasts < 1
      ? []
      : inTurn(order, { first, lasts, pause }).map((each) => ({ ...each, place: placeOf(each.groupId) }));
  const replaced = settings.own.length;
  const last = times.at(-1);
  const isTooLong = last && settings.ends !== null && Date.parse(last.ends) > Date.parse(settings.ends);
  return (
    <Sheet title="One group after another" onClose={onClose}>
      <Form>
        <DateTimeField
          label="The first group starts"
          value={first}
          timeZone={course.timeZone}
          onChange={setFirst}
        />
        <Sentence>
          Each group has
          <NumberInLine
            label="Minutes for each group"
            value={lasts}
            onChange={(next) => setLasts(Math.min(longest, next))}
          />
          minutes, with
          <NumberInLine
            label="Minutes between groups"
            value={pause}
            onChange={(next) => setPause(Math.min(longest, next))}
          />
          minutes between groups
        </Sentence>
        <GroupLines as="ol" aria-label="Times as they would be" tabIndex={0}>
          {times.map(({ groupId, starts, ends }, at) => (
            <li key={groupId}>
              <Emblem number={groups[at]?.number ?? 0} size={22} />
              <b>
                <bdi>{groups[at]?.name}</bdi>
              </b>
              {sayTimes(starts, ends, dates)}
            </li>
          ))}
        </GroupLines>
        {last && (
          <Small role="status">
            The last group is done {dates.dateTime(last.ends)}
            {isTooLong && settings.ends !== null && `, after the end for all at ${dates.time(settings.ends)}`}
            .
          </Small>
        )}
        {replaced > 0 && (
          <Small role="status">
            This replaces the times of {counted(replaced, 'group')}; places of their own stay.
          </Small>
        )}
      </Form>
      <footer>
        {first === null ? (
          <Small>Choose when the first group starts</Small>
        ) : (
          lasts < 1 && <Small>Give each group at least a minute</Small>
        )}
        <Button kind="main" isDisabled={times.length === 0} onPress={() => onSet(times)}>
          Set {counted(times.length, 'time')}
        </Button>
      </footer>
    </Sheet>
  );
}
