import { styled } from 'styled-components';
import { ResourceSettings } from '@jigsaw/contract/resource';
import type { SettingsFormProps } from '../kinds/index.js';
import { Field } from '../look/index.js';

const Fields = styled.div`
  display: grid;
  gap: 10px;
  max-width: 560px;
`;

export default function SettingsForm({ settings, onChange }: SettingsFormProps<ResourceSettings>) {
  const fault = ResourceSettings.safeParse(settings).error?.issues.find(({ path }) => path[0] === 'link');
  return (
    <Fields>
      <Field
        label="Link"
        value={settings.link}
        onChange={(link) => onChange({ ...settings, link })}
        placeholder="https://"
        fault={fault?.message}
      />
      <Field
        label="What the link is called"
        value={settings.linkName}
        onChange={(linkName) => onChange({ ...settings, linkName })}
        hint="Left empty, its address is shown"
        maxLength={200}
      />
    </Fields>
  );
}
