import { RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { Choice, Field, Option, Small } from '../look/index.js';
import { SignUpFields, Tickbox } from '../sets/index.js';
import { Figure, SetPart } from './SetPart.js';
import { makesGroups } from './setForm.js';
import type { ChangeSetForm, Fill, SetForm } from './setForm.js';

export const Shapes = styled(RadioGroup)`
  display: grid;
  gap: 8px;
`;

const ways: readonly {
  readonly fill: Fill;
  readonly says: string;
  readonly needsSet?: true;
}[] = [
  {
    fill: 'deal',
    says: 'Deal by rules: mix experience, keep pairs apart, find common free time; you see the groups first',
  },
  {
    fill: 'hand',
    says: 'By hand on the Board: drag students, or select them and type the number of a group',
  },
  {
    fill: 'sign-up',
    says: 'Sign-up: students choose a place, first come, first served',
  },
  {
    fill: 'file',
    says: 'From a file with a column for people and one for groups; you see the result first',
  },
  {
    fill: 'copy',
    says: 'Copy of another set: the same groups with the same people',
    needsSet: true,
  },
  {
    fill: 'experts',
    says: 'Expert tables: one for each topic, with someone from every group of another set',
    needsSet: true,
  },
  {
    fill: 'hand-in',
    says: 'Formed at hand-in: students name their partners, up to a size you set',
  },
];

interface FillPartProps {
  readonly form: SetForm;
  readonly onChange: ChangeSetForm;
  readonly sets: readonly GroupSetView[];
  readonly original: GroupSetView | undefined;
}

/** How students get their group: how the set is filled, and what that way asks for. */
export function FillPart({ form, onChange, sets, original }: FillPartProps) {
  const { fill, capacity } = form;
  const put = (capacity: string) => onChange({ capacity: capacity.replace(/\D/g, '') });
  const setChoice = (label: string) =>
    original && (
      <Choice
        label={label}
        value={original.id}
        choices={sets.map((set) => ({ id: set.id, label: set.name }))}
        onChange={(original) => onChange({ original })}
      />
    );
  return (
    <SetPart title="Filling" says="How students get their group">
      <Shapes
        aria-label="How it is filled"
        value={fill}
        onChange={(value) => onChange({ fill: value as Fill })}
      >
        {ways.map((way) => (
          <Option key={way.fill} value={way.fill} isDisabled={way.needsSet && !original}>
            {way.says}
          </Option>
        ))}
      </Shapes>
      {fill === 'sign-up' && (
        <SignUpFields
          value={form.signUp}
          onChange={(signUp) => onChange(signUp ? { signUp } : { fill: 'hand' })}
        />
      )}
      {fill === 'sign-up' && capacity === '' && (
        <Small>No limit is set below, so everyone could choose the same group.</Small>
      )}
      {fill === 'experts' && original && (
        <>
          {setChoice('Home groups')}
          <Field
            label="Topics, one per line"
            lines={4}
            value={form.topics}
            onChange={(topics) => onChange({ topics })}
            placeholder={'Salt\nTemperature\nPackaging'}
          />
          <Figure
            label="Most people at one table; more people make parallel tables"
            value={capacity}
            onChange={put}
            isUsed
          />
        </>
      )}
      {fill === 'copy' && setChoice('Which set')}
      {fill === 'hand-in' && (
        <Figure label="People in a group at most" value={capacity} onChange={put} isUsed />
      )}
      {makesGroups(form) && fill !== 'sign-up' && (
        <Tickbox>
          <input
            type="checkbox"
            checked={form.isSeveral}
            onChange={(event) => onChange({ isSeveral: event.target.checked })}
          />
          <span>
            A student may be in several of its groups <Small>Otherwise everyone has one place.</Small>
          </span>
        </Tickbox>
      )}
    </SetPart>
  );
}
