import { Suspense } from 'react';
import type { WikiSettings } from '@jigsaw/contract/wiki';
import { OptionCard, OptionCards } from '../form/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { Field, Small, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';

/** The first page, of which every group gets a copy to write on from. */
export default function SettingsForm({ settings, onChange }: SettingsFormProps<WikiSettings>) {
  const change = (part: Partial<WikiSettings>) => onChange({ ...settings, ...part });
  return (
    <>
      <Field
        label="Title of the first page"
        value={settings.promptTitle}
        onChange={(promptTitle) => change({ promptTitle })}
        fault={
          settings.promptTitle.trim() === ''
            ? 'Give the first page a title; until then it is not saved.'
            : undefined
        }
      />
      <Suspense fallback={<Waiting what="the editor" rows={2} />}>
        <RichTextEditor
          label="First page"
          value={settings.promptText}
          onChange={(promptText) => change({ promptText })}
          hasPlaceholders
          minHeight={110}
        />
      </Suspense>
      <Small>Each copy starts with this page. Later changes reach only new copies.</Small>
      <OptionCards
        aria-label="Marked"
        value={settings.markFor}
        onChange={(value) => change({ markFor: value as WikiSettings['markFor'] })}
      >
        <OptionCard value="group">
          <b>One mark for the group</b>
          <Small>With individual adjustments and reasons</Small>
        </OptionCard>
        <OptionCard value="student">
          <b>A mark for each student</b>
          <Small>What each saved stands beside it</Small>
        </OptionCard>
      </OptionCards>
    </>
  );
}
