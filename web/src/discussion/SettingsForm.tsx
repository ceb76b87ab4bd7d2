import type { DiscussionSettings } from '@jigsaw/contract/discussion';
import { NumberInLine, OptionCard, OptionCards, Sentence } from '../form/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { Small } from '../look/index.js';

export default function SettingsForm({ settings, onChange }: SettingsFormProps<DiscussionSettings>) {
  const number = (key: 'posts' | 'postWords' | 'replies' | 'replyWords', label: string, most: number) => (
    <NumberInLine
      label={label}
      value={settings[key]}
      onChange={(value) => onChange({ ...settings, [key]: Math.min(most, value) })}
    />
  );
  return (
    <>
      <Sentence>
        Each student writes at least {number('posts', 'Posts required', 50)}{' '}
        {settings.posts === 1 ? 'post' : 'posts'} of {number('postWords', 'Words of a post', 10_000)} words
        and {number('replies', 'Replies required', 50)} {settings.replies === 1 ? 'reply' : 'replies'} of{' '}
        {number('replyWords', 'Words of a reply', 10_000)} words
      </Sentence>
      {settings.posts + settings.replies === 0 && (
        <Small>No requirement. Students write as much as they like.</Small>
      )}
      <OptionCards
        aria-label="Who starts threads"
        value={settings.studentsOpenThreads ? 'all' : 'staff'}
        onChange={(value) => onChange({ ...settings, studentsOpenThreads: value === 'all' })}
      >
        <OptionCard value="all">
          <b>Everyone starts threads</b>
          <Small>And replies in them</Small>
        </OptionCard>
        <OptionCard value="staff">
          <b>Staff start threads</b>
          <Small>Students reply in them</Small>
        </OptionCard>
      </OptionCards>
      <OptionCards
        aria-label="Marked"
        value={settings.markFor}
        onChange={(value) => onChange({ ...settings, markFor: value as DiscussionSettings['markFor'] })}
      >
        <OptionCard value="student">
          <b>A mark for each student</b>
          <Small>For what they wrote themselves</Small>
        </OptionCard>
        <OptionCard value="group">
          <b>One mark for the group</b>
          <Small>With individual adjustments and reasons</Small>
        </OptionCard>
      </OptionCards>
    </>
  );
}
