import type { AssignmentSettings, FolderSettings } from '@jigsaw/contract/handin';
import { NumberInLine, OptionCard, OptionCards, Sentence } from '../form/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { Choice, Field, Small } from '../look/index.js';

const attempts = [
  { id: 'one', label: 'one hand-in' },
  { id: 'latest', label: 'as often as they like; the latest counts' },
  { id: 'all', label: 'as often as they like; all are kept and marked' },
] as const;

export function AssignmentForm({ settings, onChange }: SettingsFormProps<AssignmentSettings>) {
  return (
    <Sentence>
      Taken is
      <Choice
        label="Attempts"
        isLabelHidden
        value={settings.attempts}
        choices={attempts}
        onChange={(value) => onChange({ ...settings, attempts: value })}
      />
    </Sentence>
  );
}

export function FolderForm({ settings, onChange }: SettingsFormProps<FolderSettings>) {
  const change = (part: Partial<FolderSettings>) => onChange({ ...settings, ...part });
  return (
    <>
      <OptionCards
        aria-label="Handed in by"
        value={settings.by}
        onChange={(by) => change({ by: by as FolderSettings['by'] })}
      >
        <OptionCard value="group">
          <b>One hand-in per group</b>
          <Small>All members add to it; it counts for all</Small>
        </OptionCard>
        <OptionCard value="student">
          <b>One hand-in per student</b>
          <Small>Teammates do not see it; sorted by group for marking</Small>
        </OptionCard>
      </OptionCards>
      <Sentence>
        At most
        <NumberInLine
          label="Most files"
          value={settings.mostFiles}
          onChange={(mostFiles) => change({ mostFiles: Math.min(50, Math.max(1, mostFiles)) })}
        />
        {settings.mostFiles === 1 ? 'file' : 'files'} of up to
        <NumberInLine
          label="Largest file in MB"
          value={settings.largestMb}
          onChange={(largestMb) => change({ largestMb: Math.min(250, Math.max(1, largestMb)) })}
        />
        MB each, taken
        <Choice
          label="Attempts"
          isLabelHidden
          value={settings.attempts}
          choices={attempts}
          onChange={(value) => change({ attempts: value })}
        />
      </Sentence>
      <Field
        label="Types of file"
        defaultValue={settings.types.join(', ')}
        placeholder="pdf, docx, csv"
        hint="File endings, separated by commas. Leave empty to allow any type."
        onChange={(text) => change({ types: typesFrom(text) })}
      />
    </>
  );
}

/** ".PDF, docx;csv" as endings; what cannot be one is left out while it is typed. */
export const typesFrom = (text: string): string[] => [
  ...new Set(
    text
      .toLowerCase()
      .split(/[\s,;.]+/)
      .filter((type) => /^[a-z0-9]{1,10}$/.test(type)),
  ),
];
