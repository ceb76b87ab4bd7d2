import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import { useMemo } from 'react';
import type { ReactNode } from 'react';
import { ComboBox, Input, ListBox, ListBoxItem, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Outcome } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import { Button, Choice, Popup, Small, Tag } from '../look/index.js';
import { sayRule } from './dealProblem.js';

const List = styled.ol`
  overflow: auto;
  min-height: 0;
  > li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr) auto;
    gap: 4px 8px;
    align-items: start;
    padding: 9px 10px 9px 0;
    border-bottom: var(--hair);
  }
  > li > b {
    text-align: right;
    color: var(--ink-2);
    font: 650 12px/26px var(--font-text);
  }
  .sentence [data-rac] > button {
    height: 26px;
    padding: 0 7px;
  }
  .sentence {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
  }
  .tools {
    display: flex;
  }
  .outcome {
    grid-column: 2 / -1;
    display: grid;
    grid-template-columns: 76px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    font: var(--t-12);
    color: var(--ink-2);
  }
  .outcome em {
    display: block;
    font-style: normal;
    color: var(--ink-3);
  }
`;
const Reach = styled.span`
  position: relative;
  display: block;
  height: 8px;
  border-radius: 2px;
  background: var(--sunk);
  i {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink-2);
    border-radius: 2px;
  }
  &[data-short] i {
    background: var(--attn);
    border: 1px solid var(--attn-line);
  }
  /* What the other deal reached. */
  s {
    position: absolute;
    top: 9px;
    left: 0;
    height: 3px;
    border-radius: 2px;
    background: var(--ink-3);
  }
`;
const Who = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 2px;
  height: 24px;
  padding: 0 2px 0 7px;
  border: 1px solid var(--edge);
  border-radius: var(--r-1);
  background: var(--surface);
  font-weight: 600;
`;
const Picker = styled(ComboBox)`
  input {
    width: 132px;
    height: 24px;
    padding: 0 7px;
    border: 1px dashed var(--edge);
    border-radius: var(--r-1);
    background: none;
    color: var(--ink);
    font: var(--t-13);
  }
`;

interface RuleListProps {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly rules: readonly DealRule[];
  /** What the deal in view made of each; null: none is in view. */
  readonly outcomes: readonly Outcome[] | null;
  /** What another made of each, to be held against it. */
  readonly against: { readonly label: string; readonly outcomes: readonly Outcome[] } | null;
  /** Asks what stands in the way of a rule that is left short; null: cannot be asked now. */
  readonly onWhy: ((rule: number) => void) | null;
  /** The answer, below the rule that it is about. */
  readonly renderWhy: (rule: number) => ReactNode;
  readonly onChange: (rules: readonly DealRule[]) => void;
  readonly onShow: (who: readonly EnrolmentId[]) => void;
}

/** Rules as sentences, each to be filled in where it stands; their order is their weight. */
export function RuleList({
  board,
  roster,
  rules,
  outcomes,
  against,
  onWhy,
  renderWhy,
  onChange,
  onShow,
}: RuleListProps) {
  const put = (at: number, rule: DealRule | null) =>
    onChange(rules.flatMap((each, index) => (index === at ? (rule === null ? [] : [rule]) : [each])));
  const shift = (at: number, by: 1 | -1) => {
    const next = [...rules];
    next.splice(at + by, 0, ...next.splice(at, 1));
    onChange(next);
  };
  return (
    <List aria-label="Rules">
      {rules.map((rule, at) => {
        const says = sayRule(rule, board, roster);
        const outcome = outcomes?.[at];
        const other = against?.outcomes[at];
        return (
          <li key={at} aria-label={says}>
            <b>{at + 1}</b>
            <div className="sentence">
              <Sentence rule={rule} board={board} roster={roster} onChange={(next) => put(at, next)} />
            </div>
            <div className="tools">
              <Button
                kind="quiet"
                isSmall
                isIconOnly
                isDisabled={at === 0}
                aria-label={`Rule ${at + 1} weighs more`}
                onPress={() => shift(at, -1)}
              >
                <ArrowUp size={14} aria-hidden="true" />
              </Button>
              <Button
                kind="quiet"
                isSmall
                isIconOnly
                isDisabled={at === rules.length - 1}
                aria-label={`Rule ${at + 1} weighs less`}
                onPress={() => shift(at, 1)}
              >
                <ArrowDown size={14} aria-hidden="true" />
              </Button>
              <Button
                kind="quiet"
                isSmall
                isIconOnly
                aria-label={`Take rule ${at + 1} away`}
                onPress={() => put(at, null)}
              >
                <X size={14} aria-hidden="true" />
              </Button>
            </div>
            {outcome && (
              <div className="outcome">
                <Reach data-short={outcome.part < 1 || undefined}>
                  <i style={{ width: `${Math.round(outcome.part * 100)}%` }} />
                  {other && <s style={{ width: `${Math.round(other.part * 100)}%` }} />}
                </Reach>
                <span>
                  {outcome.says}{' '}
                  {outcome.part < 1 && outcome.isBest && !other && <Tag>No deal does better</Tag>}
                  {!other && !outcome.isBest && <em>{sayLimit(outcome)}</em>}
                  {other && (
                    <>
                      {' · '}
                      {other.met === outcome.met ? 'the same' : <b>{other.met}</b>} in {against.label}
                    </>
                  )}
                </span>
                <span className="tools">
                  {outcome.concerned.length > 0 && (
                    <Button
                      isSmall
                      kind="quiet"
                      onPress={() => onShow(outcome.concerned)}
                      aria-label={`Show whom rule ${at + 1} leaves short`}
                    >
                      Whom
                    </Button>
                  )}
                  {onWhy && !outcome.isBest && (
                    <Button
                      isSmall
                      kind="quiet"
                      onPress={() => onWhy(at)}
                      aria-label={`Why rule ${at + 1} is left short`}
                    >
                      Why
                    </Button>
                  )}
                </span>
              </div>
            )}
            {renderWhy(at)}
          </li>
        );
      })}
    </List>
  );
}

/** How near it came to what is proven that no deal can pass. */
function sayLimit({ gap, most }: Outcome): string {
  if (most !== null) return `at best ${most}`;
  if (gap === null) return '';
  return `${Math.round(Math.max(0, 1 - gap) * 100)} % of the way to the limit`;
}

interface SentenceProps {
  readonly rule: DealRule;
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onChange: (rule: DealRule) => void;
}

function Sentence({ rule, board, roster, onChange }: SentenceProps) {
  switch (rule.kind) {
    case 'together':
    case 'apart':
      return (
        <>
          Keep
          <People
            board={board}
            students={rule.students}
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
          Nobody alone by{' '}
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
            <Who key={id}>
              {roster.sets.find((set) => set.id === id)?.name ?? 'a set that is gone'}
              <Without
                what={roster.sets.find((set) => set.id === id)?.name ?? 'the set'}
                isLast={rule.setIds.length === 1}
                onPress={() => onChange({ ...rule, setIds: rule.setIds.filter((each) => each !== id) })}
              />
            </Who>
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

function Without({
  what,
  isLast,
  onPress,
}: {
  readonly what: string;
  readonly isLast: boolean;
  readonly onPress: () => void;
}) {
  return (
    <Button
      kind="quiet"
      isSmall
      isIconOnly
      isDisabled={isLast}
      aria-label={`Without ${what}`}
      onPress={onPress}
    >
      <X size={12} aria-hidden="true" />
    </Button>
  );
}

function People({
  board,
  students,
  onChange,
}: {
  readonly board: BoardView;
  readonly students: readonly EnrolmentId[];
  readonly onChange: (students: EnrolmentId[]) => void;
}) {
  const others = board.students.filter((student) => !students.includes(student.enrolmentId));
  // Two of one name are told apart by their numbers.
  const twins = useMemo(() => {
    const seen = new Set<string>();
    return new Set(board.students.flatMap(({ name }) => (seen.has(name) || !seen.add(name) ? [name] : [])));
  }, [board.students]);
  return (
    <>
      {students.map((id) => {
        const name =
          board.students.find((student) => student.enrolmentId === id)?.name ?? 'somebody who left';
        return (
          <Who key={id}>
            <bdi>{name}</bdi>
            <Without
              what={name}
              isLast={false}
              onPress={() => onChange(students.filter((each) => each !== id))}
            />
          </Who>
        );
      })}
      <Picker
        key={students.length} // begun anew with everybody who is named
        aria-label="Somebody more"
        selectedKey={null}
        defaultItems={others}
        onSelectionChange={(key) => key !== null && onChange([...students, key as EnrolmentId])}
      >
        <Input
          placeholder={students.length === 0 ? 'Name somebody…' : 'and…'}
          autoFocus={students.length < 2}
        />
        <Popup>
          <ListBox>
            {(student: (typeof others)[number]) => (
              <ListBoxItem id={student.enrolmentId} textValue={`${student.name} ${student.reading ?? ''}`}>
                {student.name}{' '}
                <Small>
                  {[student.reading, twins.has(student.name) && student.number].filter(Boolean).join(' ')}
                </Small>
              </ListBoxItem>
            )}
          </ListBox>
        </Popup>
      </Picker>
    </>
  );
}

type Kind = BoardView['attributes'][number]['kind'];

interface AttributeProps {
  readonly board: BoardView;
  readonly kinds: readonly Kind[];
  readonly value: string;
  readonly onChange: (attribute: string, as: 'category' | 'number') => void;
}

function Attribute({ board, kinds, value, onChange }: AttributeProps) {
  const fitting = board.attributes.filter((attribute) => kinds.includes(attribute.kind));
  const choices = [...new Set([value, ...fitting.map((attribute) => attribute.name)])].map((name) => ({
    id: name,
    label: name,
  }));
  return (
    <Choice
      label="Attribute"
      isLabelHidden
      value={value}
      choices={choices}
      onChange={(name) =>
        onChange(
          name,
          fitting.find((attribute) => attribute.name === name)?.kind === 'number' ? 'number' : 'category',
        )
      }
    />
  );
}

/** Rules that this class allows: an attribute of the kind, two people, an earlier set. */
export function AddRule({
  board,
  roster,
  onAdd,
}: {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly onAdd: (rule: DealRule) => void;
}) {
  const first = (...kinds: Kind[]) => board.attributes.find((attribute) => kinds.includes(attribute.kind));
  const measured = first('category', 'number');
  const category = first('category');
  const time = first('half-days');
  // The set of most groups says most about who knows whom.
  const [earlier] = roster.sets
    .filter((set) => set.id !== board.set.id && set.groups.length > 0)
    .sort((a, b) => b.groups.length - a.groups.length);
  const hasPair = board.students.length > 1;
  const as = measured?.kind === 'number' ? 'number' : 'category';
  const rules: readonly { readonly id: string; readonly says: string; readonly rule: DealRule | null }[] = [
    {
      id: 'spread',
      says: 'Spread an attribute evenly',
      rule: measured ? { kind: 'spread', attribute: measured.name, as } : null,
    },
    {
      id: 'nobody-alone',
      says: 'Nobody alone of their kind',
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
  return (
    <MenuTrigger>
      <Button>
        <Plus size={15} aria-hidden="true" />
        Add a rule
      </Button>
      <Popup placement="bottom end">
        <Menu
          aria-label="Rules"
          disabledKeys={rules.flatMap((each) => (each.rule ? [] : [each.id]))}
          onAction={(key) => {
            const rule = rules.find((each) => each.id === key)?.rule;
            if (rule) onAdd(rule);
          }}
        >
          {rules.map((each) => (
            <MenuItem key={each.id} id={each.id}>
              {each.says}
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
