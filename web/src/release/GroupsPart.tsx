import { styled } from 'styled-components';
import { Field, Option } from '../look/index.js';
import { Shapes } from './FillPart.js';
import { Figure, SetPart } from './SetPart.js';
import type { By, ChangeSetForm, SetForm } from './setForm.js';

const ShapeRow = styled.div`
  display: grid;
  gap: 8px;
`;

interface GroupsPartProps {
  readonly form: SetForm;
  readonly onChange: ChangeSetForm;
  readonly students: number;
}

/** How many groups are made, how large, and what they are called. */
export function GroupsPart({ form, onChange, students }: GroupsPartProps) {
  const { by } = form;
  return (
    <>
      <SetPart title="How many" says={`${students} students`}>
        <Shapes aria-label="How many groups" value={by} onChange={(value) => onChange({ by: value as By })}>
          <ShapeRow>
            <Option value="spread">Groups as equal as possible</Option>
            <Option value="fill">Full groups and one smaller group</Option>
            <Figure
              label="Members in a group"
              value={form.size}
              onChange={(size) => onChange({ size })}
              isUsed={by !== 'count'}
            />
          </ShapeRow>
          <ShapeRow>
            <Option value="count">A fixed number of groups</Option>
            <Figure
              label="Number of groups"
              value={form.count}
              onChange={(count) => onChange({ count })}
              isUsed={by === 'count'}
            />
          </ShapeRow>
        </Shapes>
        <Figure
          label="Places in each group (optional)"
          value={form.capacity}
          onChange={(capacity) => onChange({ capacity: capacity.replace(/\D/g, '') })}
          isUsed
        />
      </SetPart>
      <SetPart title="Names" says="Change them any time">
        <Field
          label="Pattern"
          value={form.pattern}
          onChange={(pattern) => onChange({ pattern })}
          hint="{n} becomes the number, {A} the letter"
        />
        <Field
          label="Or paste names, one per line"
          lines={4}
          value={form.pasted}
          onChange={(pasted) => onChange({ pasted })}
          placeholder={'Crock\nCarboy\nAmphora'}
        />
      </SetPart>
    </>
  );
}
