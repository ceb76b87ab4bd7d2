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
    fill: 'hand',
    says: 'By hand on the Board: drag students, or select them and type the number of a group',
  },
  {
    fill: 'deal',
    says: 'Dealt out: at random, in roster order or alphabetically; you see the groups before they stand',
  },
  {
    fill: 'sign-up',
    says: 'By the students: each chooses a place, first come, never more than there are',
  },
  {
    fill: 'file',
    says: 'From a file with a column for the person and one for the group; you see what it does first',
  },
  {
    fill: 'copy',
    says: 'As in another set: the same groups with the same people, then on its own',
    needsSet: true,
  },
  {
    fill: 'experts',
    says: 'Expert tables: one for each topic, with somebody from every group of another set',
    needsSet: true,
  },
  {
    fill: 'hand-in',
    says: 'When they hand in: students name their partners then, up to as many as you say',
  },
];

interface FillPartProps {
  readonly form: SetForm;
  readonly onChange: ChangeSetForm;
  readonly sets: readonly GroupSetView[];
  readonly original: GroupSetView | undefined;
}

/** Who sits where: how the set is filled, and what that way asks for. */
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
    <SetPart title="Filling" says="Who sits where">
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
        <Small>No limit is set below: everybody could choose the same group.</Small>
      )}
      {fill === 'experts' && original && (
        <>
          {setChoice('Home groups')}
          <Field
            label="Topics, one a line"
            lines={4}
            value={form.topics}
            onChange={(topics) => onChange({ topics })}
            placeholder={'Salt\nTemperature\nPackaging'}
          />
          <Figure
            label="People at a table at most; more make parallel ones"
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
            A student may be in several of its groups <Small>Else everybody has one place.</Small>
          </span>
        </Tickbox>
      )}
    </SetPart>
  );
}
