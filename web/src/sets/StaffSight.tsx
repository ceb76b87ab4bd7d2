import { useState } from 'react';
import { RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { CourseSettings } from '@jigsaw/contract/course';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, Option, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useChangeAssistantsMutation } from './setsApi.js';

type Sees = CourseSettings['assistantsSee'];

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 6px;
`;
const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  th,
  td {
    padding: 6px 8px;
    border-bottom: var(--hair);
    text-align: left;
    overflow-wrap: anywhere;
  }
  thead th {
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  tbody th {
    font: inherit;
    font-weight: 600;
  }
`;

interface StaffSightProps {
  readonly settings: CourseSettings;
  readonly mayChange: boolean;
}

/** Whose work assistants see. Nothing changes before it is saved, and first it says who would lose sight of what. */
export function StaffSight({ settings, mayChange }: StaffSightProps) {
  const { course } = useCourse();
  const { assistantsSee, staff, groups } = settings;
  const [chosen, setChosen] = useState<Sees>(assistantsSee);
  const change = useAct(useChangeAssistantsMutation(), {
    says: (answer) =>
      answer.assistantsSee === 'all'
        ? 'Assistants see every group'
        : 'Assistants see only the groups they lead',
    inverse: (asked) => ({
      ...asked,
      assistantsSee: asked.assistantsSee === 'all' ? ('theirs' as const) : ('all' as const),
    }),
  });
  const losing = staff.filter((each) => each.role === 'assistant' && each.leads < groups);
  return (
    <div>
      <Choices
        aria-label="What assistants see"
        value={chosen}
        isDisabled={!mayChange}
        onChange={(next) => setChosen(next as Sees)}
      >
        <Option value="all">
          <b>Assistants see every group</b>
          <Small>They read and mark the work of all groups. Leading a group only shows whose it is.</Small>
        </Option>
        <Option value="theirs">
          <b>Assistants see only the groups they lead</b>
          <Small>
            They cannot see rooms, hand-ins and marks of other groups. They still see who is in which group.
          </Small>
        </Option>
      </Choices>
      {chosen !== assistantsSee && (
        <p role="status">
          {chosen === 'all'
            ? losing.length === 0
              ? 'No one sees more than before.'
              : `${counted(losing.length, 'assistant')} would see the work of every group again.`
            : losing.length === 0
              ? 'No one would lose sight of a group.'
              : `${counted(losing.length, 'assistant')} would lose sight of groups: ${losing.map((each) => `${each.name} (${groups - each.leads} of ${groups})`).join(', ')}.`}
        </p>
      )}
      {mayChange && chosen !== assistantsSee && (
        <div style={{ display: 'flex', gap: 8 }}>
          <Button
            kind="main"
            isDisabled={change.isBusy}
            onPress={() => void change({ courseId: course.id, assistantsSee: chosen })}
          >
            Save
          </Button>
          <Button onPress={() => setChosen(assistantsSee)}>Cancel</Button>
        </div>
      )}
      <Table>
        <thead>
          <tr>
            <th>Name</th>
            <th>Role</th>
            <th>Leads</th>
            <th>Sees the work of</th>
          </tr>
        </thead>
        <tbody>
          {staff.map(({ enrolmentId, name, role, leads }) => (
            <tr key={enrolmentId}>
              <th scope="row">
                <bdi>{name}</bdi>
              </th>
              <td>{role === 'instructor' ? 'Instructor' : 'Assistant'}</td>
              <td>{leads === 0 ? 'no group' : counted(leads, 'group')}</td>
              <td>
                {role === 'instructor' || chosen === 'all' || leads === groups
                  ? 'every group'
                  : leads === 0
                    ? 'no group'
                    : `${leads} of ${groups} groups`}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Small>Who leads which group is chosen on the Board of each set, under Set.</Small>
    </div>
  );
}
