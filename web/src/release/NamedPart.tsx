import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import type { ReachView } from '@jigsaw/contract/release';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import { Sentence } from '../form/index.js';
import { Button, Chosen, PeoplePicker, Without } from '../look/index.js';

interface NamedPartProps {
  /** What the people have to do with it. */
  readonly says: string;
  /** What adds the first of them. */
  readonly verb: string;
  readonly people: ReachView['named'];
  readonly onChange: (enrolmentId: EnrolmentId, isIn: boolean) => void;
}

/** People by name beside groups. The roster is asked for once someone wants to choose. */
export function NamedPart({ says, verb, people, onChange }: NamedPartProps) {
  const { course } = useCourse();
  const [isChoosing, setChoosing] = useState(false);
  const roster = useReadRosterQuery(isChoosing ? course.id : skipToken);
  const students = roster.data?.entries.filter((entry) => entry.role === 'student' && entry.leftAt === null);
  const chosen = people.map((person) => person.enrolmentId);
  const set = (next: readonly EnrolmentId[]) => {
    for (const id of next) if (!chosen.includes(id)) onChange(id, true);
    for (const id of chosen) if (!next.includes(id)) onChange(id, false);
  };
  if (people.length === 0 && !isChoosing)
    return (
      <Sentence>
        <Button kind="quiet" isSmall onPress={() => setChoosing(true)}>
          {verb}
        </Button>
      </Sentence>
    );
  return (
    <Sentence role="group" aria-label={says}>
      {says}
      {students ? (
        <PeoplePicker people={students} chosen={chosen} onChange={set} isFocused />
      ) : (
        <>
          {people.map(({ enrolmentId, name }) => (
            <Chosen key={enrolmentId}>
              <bdi>{name}</bdi>
              <Without what={name} onPress={() => onChange(enrolmentId, false)} />
            </Chosen>
          ))}
          <Button kind="quiet" isSmall isDisabled={isChoosing} onPress={() => setChoosing(true)}>
            {isChoosing ? 'One moment…' : 'Add another…'}
          </Button>
        </>
      )}
    </Sentence>
  );
}
