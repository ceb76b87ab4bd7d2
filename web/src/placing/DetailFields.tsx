import type { GroupDetails } from '@jigsaw/contract/sets';
import { halfDays } from '@jigsaw/core/course';
import { styled } from 'styled-components';
import { Choice, Field } from '../look/index.js';

const Frame = styled.fieldset`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
  padding: 10px 12px 12px;
  border: var(--hair);
  border-radius: var(--r-2);
  min-width: 0;
  legend {
    padding: 0 4px;
    font: 600 13px/18px var(--font-text);
  }
  > :nth-child(4) {
    grid-column: 1 / -1;
  }
`;

const unsaid = 'not-said';

interface DetailFieldsProps {
  readonly details: GroupDetails;
  readonly onChange: (part: Partial<GroupDetails>) => void;
}

/** What students read about a group before they choose it. */
export function DetailFields({ details, onChange }: DetailFieldsProps) {
  return (
    <Frame>
      <legend>For students who choose a place</legend>
      <Field
        label="Time"
        value={details.time}
        placeholder="Wed 14:00"
        onChange={(time) => onChange({ time: time.slice(0, 80) })}
      />
      <Field
        label="Place"
        value={details.place}
        placeholder="Room 2.14"
        onChange={(place) => onChange({ place: place.slice(0, 80) })}
      />
      <Field
        label="About"
        value={details.about}
        placeholder="Koji, miso, aged cheese rinds"
        onChange={(about) => onChange({ about: about.slice(0, 200) })}
      />
      <Choice
        label="Half-day, to compare with when each student is free"
        value={details.halfDay ?? unsaid}
        choices={[
          { id: unsaid, label: 'Not said' },
          ...halfDays.map((halfDay) => ({ id: halfDay, label: halfDay })),
        ]}
        onChange={(halfDay) => onChange({ halfDay: halfDay === unsaid ? null : halfDay })}
      />
    </Frame>
  );
}
