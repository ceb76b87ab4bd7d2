import { styled } from 'styled-components';
import type { EventSettings } from '@jigsaw/contract/calendar';
import { useCourse } from '../course/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { DateTimeField, Field, Small } from '../look/index.js';
import { endAfter } from './endAfter.js';
import { OwnTimes } from './OwnTimes.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(200px, 260px));
  gap: 10px 14px;
  > .wide {
    grid-column: 1 / -1;
  }
  label > input[type='checkbox'] {
    margin-right: 8px;
  }
  @media (max-width: 560px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** When and where, for all and for each group that has it otherwise. */
export default function SettingsForm({ settings, onChange, groups }: SettingsFormProps<EventSettings>) {
  const { course } = useCourse();
  const { starts, ends } = settings;
  const begin = (next: string | null) =>
    onChange({ ...settings, starts: next, ends: endAfter(next, settings) });
  return (
    <Fields>
      <DateTimeField label="Starts" value={starts} timeZone={course.timeZone} onChange={begin} />
      <DateTimeField
        label="Ends"
        value={ends}
        timeZone={course.timeZone}
        onChange={(next) => onChange({ ...settings, ends: next })}
      />
      <div className="wide">
        <Field
          label="Place"
          value={settings.place}
          onChange={(place) => onChange({ ...settings, place })}
          hint="A room, or the address of a meeting"
          maxLength={300}
        />
      </div>
      <div className="wide">
        <label>
          <input
            type="checkbox"
            checked={settings.isCancelled}
            onChange={(event) => onChange({ ...settings, isCancelled: event.target.checked })}
          />
          It is cancelled
        </label>
        <br />
        <Small>It stays in rooms and calendars, marked as cancelled, so that no one comes.</Small>
      </div>
      {groups && (
        <div className="wide">
          <OwnTimes settings={settings} groups={groups} onChange={(own) => onChange({ ...settings, own })} />
        </div>
      )}
    </Fields>
  );
}
