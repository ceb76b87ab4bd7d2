import type { NoticeSettings } from '@jigsaw/contract/notice';
import { OptionCard, OptionCards } from '../form/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { Small } from '../look/index.js';

export default function SettingsForm({ settings, onChange }: SettingsFormProps<NoticeSettings>) {
  return (
    <OptionCards
      aria-label="Replies"
      value={settings.hasReplies ? 'on' : 'off'}
      onChange={(value) => onChange({ ...settings, hasReplies: value === 'on' })}
    >
      <OptionCard value="on">
        <b>With replies</b>
        <Small>Everyone who reads it can reply under it</Small>
      </OptionCard>
      <OptionCard value="off">
        <b>Without replies</b>
        <Small>It is read, and that is all</Small>
      </OptionCard>
    </OptionCards>
  );
}
