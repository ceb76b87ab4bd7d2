import { styled } from 'styled-components';
import type { EventSettings } from '@jigsaw/contract/calendar';
import { useCourse } from '../course/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { DateTimeField, Field, Small } from '../look/index.js';

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
const hourMs = 3_600_000;

/** When and where. An end follows its start, as long as it was. */
export default function SettingsForm({ settings, onChange }: SettingsFormProps<EventSettings>) {
  const { course } = useCourse();
  const { starts, ends } = settings;
  const begin = (next: string | null) => {
    const lasts = starts !== null && ends !== null ? Date.parse(ends) - Date.parse(starts) : hourMs;
    const end = next === null ? ends : new Date(Date.parse(next) + Math.max(lasts, 60_000)).toISOString();
    onChange({ ...settings, starts: next, ends: end });
  };
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
    </Fields>
  );
}
