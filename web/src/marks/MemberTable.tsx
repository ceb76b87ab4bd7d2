import { useId, useState } from 'react';
import { styled } from 'styled-components';
import type { AdjustmentShape, MarkView } from '@jigsaw/contract/marks';
import { sayMinutes } from '@jigsaw/core/handin';
import { sure } from '@jigsaw/core/lists';
import type { OwnLateness, PersonMark } from '@jigsaw/core/marks';
import { readPoints } from '@jigsaw/core/marks';
import { Choice, PersonName, Small, Tag } from '../look/index.js';
import { shownIn } from './sheet.js';

const Table = styled.div`
  max-height: 236px;
  overflow: auto;
  border-top: var(--hair);
  th {
    height: 22px;
    padding: 0 8px;
    background: var(--paper);
    position: sticky;
    top: 0;
  }
  td {
    height: 40px;
    padding: 0 8px;
    border-top: var(--hair);
  }
  th:first-child,
  td:first-child {
    padding-left: var(--s-4);
  }
  .num {
    text-align: right;
  }
  th:last-child,
  td:last-child {
    text-align: right;
    padding-right: var(--s-4);
  }
  td:last-child {
    font: 680 18px/1 var(--font-head);
  }
  input {
    height: 30px;
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--surface);
    padding: 0 8px;
  }
  td:has(small.fault) {
    padding-block: 6px 4px;
  }
  small.fault {
    display: block;
    margin-top: 4px;
    font: var(--t-12);
    color: var(--attn-ink);
    white-space: normal;
  }
  input.figure {
    width: 64px;
    text-align: right;
  }
  input[aria-invalid='true'] {
    border-color: var(--attn-line);
    background: var(--attn-tint);
  }
`;

const kindsFor = (isGroup: boolean) =>
  isGroup
    ? groupKinds
    : groupKinds
        .filter((kind) => kind.id !== 'separate')
        .map((kind) => (kind.id === 'same' ? { ...kind, label: 'As marked' } : kind));
const groupKinds = [
  { id: 'same', label: 'Same as the group' },
  { id: 'adjusted', label: 'Adjust points' },
  { id: 'separate', label: 'Separate mark' },
  { id: 'excused', label: 'Excused' },
] as const;
type Kind = (typeof groupKinds)[number]['id'];

interface MemberTableProps {
  readonly members: MarkView['members'];
  readonly adjustments: ReadonlyMap<string, AdjustmentShape>;
  readonly results: ReadonlyMap<string, PersonMark>;
  /** Of those with time of their own. */
  readonly ownLate: ReadonlyMap<string, OwnLateness>;
  readonly max: string;
  readonly onAdjust: (enrolmentId: string, adjustment: AdjustmentShape | null) => void;
  readonly isDisabled: boolean;
  /** One mark for several, from which some may differ; else one student's. */
  readonly isGroup: boolean;
}

/** What each credited member gets, and what makes it differ from the group's mark. */
export function MemberTable({
  members,
  adjustments,
  results,
  ownLate,
  max,
  onAdjust,
  isDisabled,
  isGroup,
}: MemberTableProps) {
  const figures = [...new Set(members.flatMap(({ evidence }) => evidence.map((figure) => figure.label)))];
  return (
    <Table tabIndex={0} role="region" aria-label="Members and their marks">
      <table>
        <thead>
          <tr>
            <th>Member</th>
            {figures.map((label) => (
              <th key={label} className="num">
                {label}
              </th>
            ))}
            <th style={{ width: 180 }}>Adjustment</th>
            <th style={{ width: 104 }}>Points</th>
            <th style={{ width: '34%' }}>Reason, shown to the student</th>
            <th>Mark of {max}</th>
          </tr>
        </thead>
        <tbody>
          {members.map(({ member, isStillInGroup, evidence }) => (
            <tr key={member.enrolmentId}>
              <td>
                <b>
                  <PersonName name={member.name} reading={member.reading} />
                </b>{' '}
                {!isStillInGroup && <Tag $look="warn">has left the group</Tag>}
                {ownLate.has(member.enrolmentId) && (
                  <Small as="div">{sayOwnLate(sure(ownLate.get(member.enrolmentId)))}</Small>
                )}
              </td>
              {figures.map((label) => (
                <td key={label} className="num">
                  {evidence.find((figure) => figure.label === label)?.value ?? '0'}
                </td>
              ))}
              <AdjustmentCells
                name={member.name}
                adjustment={adjustments.get(member.enrolmentId) ?? null}
                onChange={(next) => onAdjust(member.enrolmentId, next)}
                max={max}
                isDisabled={isDisabled}
                isGroup={isGroup}
              />
              <td>
                {results.get(member.enrolmentId)?.mark ?? (
                  <Small>
                    {adjustments.get(member.enrolmentId)?.kind === 'excused' ? 'excused' : 'none yet'}
                  </Small>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Table>
  );
}

const sayOwnLate = ({ minutes, deduction }: OwnLateness): string =>
  minutes === 0
    ? 'On time by their own date'
    : `Late ${sayMinutes(minutes)} by their own date: ${deduction === '0' ? 'costs nothing' : `−${deduction}`}`;

interface CellsProps {
  readonly name: string;
  readonly adjustment: AdjustmentShape | null;
  readonly onChange: (adjustment: AdjustmentShape | null) => void;
  readonly max: string;
  readonly isDisabled: boolean;
  readonly isGroup: boolean;
}

/** A figure counts as soon as it can be meant; until then it is none, and nothing is released. */
function AdjustmentCells({ name, adjustment, onChange, max, isDisabled, isGroup }: CellsProps) {
  const kind: Kind = adjustment?.kind ?? 'same';
  const figure =
    adjustment?.kind === 'adjusted'
      ? adjustment.by
      : adjustment?.kind === 'separate'
        ? adjustment.mark
        : null;
  const [typed, setTyped] = useState(figure ?? '');
  const faultId = useId();
  const least = kind === 'adjusted' ? `-${max}` : '0';
  const shown = shownIn(typed, figure, max, least);
  const isElsewhere = shown.fault !== undefined && figure !== null; // given by someone else since
  const { text, fault } = isElsewhere ? { text: figure, fault: undefined } : shown;
  const reason = adjustment?.reason ?? '';
  const make = (nextKind: Kind, given: string, why: string): AdjustmentShape | null => {
    if (nextKind === 'same') return null;
    if (nextKind === 'excused') return { kind: 'excused', reason: why };
    const read = readPoints(given, max, nextKind === 'adjusted' ? `-${max}` : '0');
    const points = read.ok ? read.points : null;
    return nextKind === 'adjusted'
      ? { kind: 'adjusted', by: points, reason: why }
      : { kind: 'separate', mark: points, reason: why };
  };
  return (
    <>
      <td>
        {isDisabled ? (
          kindsFor(isGroup).find((each) => each.id === kind)?.label
        ) : (
          <Choice
            label={`Adjustment for ${name}`}
            isLabelHidden
            value={kind}
            choices={kindsFor(isGroup)}
            onChange={(next) => onChange(make(next, text, reason))}
          />
        )}
      </td>
      <td>
        {(kind === 'adjusted' || kind === 'separate') && (
          <input
            className="figure"
            aria-label={kind === 'adjusted' ? `Points more or less for ${name}` : `${name}’s own mark`}
            aria-invalid={figure === null}
            aria-describedby={fault === undefined ? undefined : faultId}
            inputMode="decimal"
            placeholder={kind === 'adjusted' ? '±' : '–'}
            value={text}
            disabled={isDisabled}
            onChange={(event) => {
              setTyped(event.target.value);
              onChange(make(kind, event.target.value, reason));
            }}
          />
        )}
        {fault !== undefined && (
          <small id={faultId} className="fault">
            {fault}
          </small>
        )}
      </td>
      <td>
        {kind !== 'same' && (
          <input
            aria-label={`Reason for ${name}`}
            placeholder="Needed before release"
            aria-invalid={reason.trim() === ''}
            value={reason}
            disabled={isDisabled}
            onChange={(event) => onChange(make(kind, text, event.target.value))}
          />
        )}
      </td>
    </>
  );
}
