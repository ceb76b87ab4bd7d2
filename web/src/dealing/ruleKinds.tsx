import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import { Choice, Chosen, PeoplePicker, Without } from '../look/index.js';
import { Attribute } from './rulePickers.js';
import type { Kind } from './rulePickers.js';

/** Everything that the page knows of the kinds of rules: how one begins, how it is filled in, and how it reads. */

export interface RuleOffer {
  readonly id: string;
  readonly says: string;
  /** How it begins; null: nothing in this class can be put into it. */
  readonly rule: DealRule | null;
}

/** Rules that this class allows: an attribute of the kind, two people, an earlier set. */
export function rulesOffered(board: BoardView, roster: RosterView): readonly RuleOffer[] {
  const first = (...kinds: Kind[]) => board.attributes.find((attribute) => kinds.includes(attribute.kind));
  const measured = first('category', 'number');
  const category = first('category');
  const time = first('half-days');
  // The set of most groups says most about who knows each other.
  const [earlier] = roster.sets
    .filter((set) => set.id !== board.set.id && set.groups.length > 0)
    .sort((a, b) => b.groups.length - a.groups.length);
  const hasPair = board.students.length > 1;
  const as = measured?.kind === 'number' ? 'number' : 'category';
  return [
    {
      id: 'spread',
      says: 'Spread an attribute evenly',
      rule: measured ? { kind: 'spread', attribute: measured.name, as } : null,
    },
    {
      id: 'nobody-alone',
      says: 'No one alone of their kind',
      rule: category ? { kind: 'nobody-alone', attribute: category.name } : null,
    },
    {
      id: 'common-time',
      says: 'Free time in common',
      rule: time ? { kind: 'common-time', attribute: time.name, wanted: 1 } : null,
    },
    {
      id: 'fresh',
      says: 'Not with earlier teammates',
      rule: earlier ? { kind: 'fresh', setIds: [earlier.id] } : null,
    },
    {
      id: 'alike',
      says: 'Alike together',
      rule: measured ? { kind: 'alike', attribute: measured.name, as } : null,
    },
    { id: 'apart', says: 'Keep people apart', rule: hasPair ? { kind: 'apart', students: [] } : null },
    {
      id: 'together',
      says: 'Keep people together',
      rule: hasPair ? { kind: 'together', students: [] } : null,
    },
  ];
}

interface SentenceProps {
  readonly rule: DealRule;
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onChange: (rule: DealRule) => void;
}

export function Sentence({ rule, board, roster, onChange }: SentenceProps) {
  switch (rule.kind) {
    case 'together':
    case 'apart':
      return (
        <>
          Keep
          <PeoplePicker
            people={board.students}
            chosen={rule.students}
            isFocused={rule.students.length < 2}
            onChange={(students) => onChange({ ...rule, students })}
          />
          {rule.kind}
        </>
      );
    case 'spread':
      return (
        <>
          Spread{' '}
          <Attribute
            board={board}
            kinds={['category', 'number']}
            value={rule.attribute}
            onChange={(attribute, as) => onChange({ ...rule, attribute, as })}
          />{' '}
          evenly
        </>
      );
    case 'alike':
      return (
        <>
          Alike in{' '}
          <Attribute
            board={board}
            kinds={['category', 'number']}
            value={rule.attribute}
            onChange={(attribute, as) => onChange({ ...rule, attribute, as })}
          />
        </>
      );
    case 'nobody-alone':
      return (
        <>
          No one alone by{' '}
          <Attribute
            board={board}
            kinds={['category']}
            value={rule.attribute}
            onChange={(attribute) => onChange({ ...rule, attribute })}
          />
        </>
      );
    case 'common-time':
      return (
        <>
          At least
          <Choice
            label="How many half-days"
            isLabelHidden
            value={String(rule.wanted)}
            choices={[1, 2, 3, 4, 5, 6].map((count) => ({ id: String(count), label: String(count) }))}
            onChange={(wanted) => onChange({ ...rule, wanted: Number(wanted) })}
          />
          half-days of{' '}
          <Attribute
            board={board}
            kinds={['half-days']}
            value={rule.attribute}
            onChange={(attribute) => onChange({ ...rule, attribute })}
          />{' '}
          in common
        </>
      );
    case 'fresh':
      return (
        <>
          Not with teammates of
          {rule.setIds.map((id) => (
            <Chosen key={id}>
              {roster.sets.find((set) => set.id === id)?.name ?? 'a set that is gone'}
              <Without
                what={roster.sets.find((set) => set.id === id)?.name ?? 'the set'}
                isLast={rule.setIds.length === 1}
                onPress={() => onChange({ ...rule, setIds: rule.setIds.filter((each) => each !== id) })}
              />
            </Chosen>
          ))}
          {roster.sets.some((set) => set.id !== board.set.id && !rule.setIds.includes(set.id)) && (
            <Choice
              label="Another earlier set"
              isLabelHidden
              placeholder="or of…"
              value={null}
              choices={roster.sets
                .filter((set) => set.id !== board.set.id && !rule.setIds.includes(set.id))
                .map((set) => ({ id: set.id, label: set.name }))}
              onChange={(id: GroupSetId) => onChange({ ...rule, setIds: [...rule.setIds, id] })}
            />
          )}
        </>
      );
  }
}

/** The rule in one plain sentence, for readers and the list of what was reached. */
export function sayRule(rule: DealRule, board: BoardView, roster: RosterView): string {
  const names = (ids: readonly EnrolmentId[]) =>
    ids
      .map((id) => board.students.find((student) => student.enrolmentId === id)?.name ?? 'someone who left')
      .join(', ');
  switch (rule.kind) {
    case 'together':
      return `Keep ${names(rule.students)} together`;
    case 'apart':
      return `Keep ${names(rule.students)} apart`;
    case 'spread':
      return `Spread ${rule.attribute} evenly`;
    case 'alike':
      return `Alike in ${rule.attribute}`;
    case 'nobody-alone':
      return `No one alone by ${rule.attribute}`;
    case 'common-time':
      return `At least ${rule.wanted} half-days of ${rule.attribute} in common`;
    case 'fresh':
      return `Not with teammates of ${rule.setIds.map((id) => roster.sets.find((set) => set.id === id)?.name ?? 'a set that is gone').join(', ')}`;
  }
}
