import { useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip } from '../api/index.js';
import { Button, Emblem, Sheet, useNotice } from '../look/index.js';
import { useLeadGroupsMutation } from './placingApi.js';
import { counted } from '@jigsaw/core/text';

const Table = styled.div`
  max-height: min(52vh, 460px);
  overflow: auto;
  border-block: var(--hair);
  table {
    border-collapse: collapse;
    min-width: 100%;
  }
  thead th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--surface);
    border-bottom: var(--hair);
    padding: 8px;
    font: 600 12px/15px var(--font-text);
    vertical-align: bottom;
    max-width: 120px;
  }
  thead th button {
    margin-top: 4px;
  }
  tbody th {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 4px 8px;
    font: var(--t-13);
    font-weight: 600;
    text-align: left;
  }
  td {
    text-align: center;
    border-left: var(--hair);
  }
  td label {
    display: block;
    padding: 6px;
    cursor: pointer;
  }
  tbody tr:hover {
    background: var(--wash);
  }
`;
const See = styled.p`
  margin-bottom: 14px;
  font: var(--t-13);
  color: var(--ink-2);
`;

type Leads = ReadonlyMap<GroupId, ReadonlySet<EnrolmentId>>;

interface LeadsSheetProps {
  readonly board: BoardView;
  readonly onClose: () => void;
}

/** Which of the staff leads which group, and what that means for what assistants see. */
export function LeadsSheet({ board, onClose }: LeadsSheetProps) {
  const notice = useNotice();
  const [leads, setLeads] = useState<Leads>(
    () =>
      new Map(board.groups.map((group) => [group.id, new Set(group.leads.map((each) => each.enrolmentId))])),
  );
  const [lead, { error, isLoading }] = useLeadGroupsMutation();
  const changed = board.groups.filter(
    (group) => !isSame(sure(leads.get(group.id)), new Set(group.leads.map((each) => each.enrolmentId))),
  );
  const put = (groupIds: readonly GroupId[], who: EnrolmentId, isLead: boolean) =>
    setLeads(
      new Map(
        [...leads].map(([groupId, own]) => {
          if (!groupIds.includes(groupId)) return [groupId, own];
          const next = new Set(own);
          if (isLead) next.add(who);
          else next.delete(who);
          return [groupId, next];
        }),
      ),
    );
  const save = async () => {
    const answer = await lead({
      setId: board.set.id,
      body: {
        leads: changed.map((group) => ({ groupId: group.id, enrolmentIds: [...sure(leads.get(group.id))] })),
      },
    });
    if (!('data' in answer) || !answer.data) return;
    notice(`${counted(changed.length, 'group is', 'groups are')} led as you chose`);
    onClose();
  };
  const all = board.groups.map((group) => group.id);
  return (
    <Sheet title="Who leads which group" onClose={onClose}>
      <See>
        {board.assistantsSee === 'all'
          ? 'Every assistant sees the work of every group. Leading a group only shows whose it is.'
          : 'Assistants see only the work of the groups they lead.'}{' '}
        <Link to="../course">Course settings</Link>
      </See>
      {error !== undefined && <ProblemStrip of={error} />}
      <Table>
        <table>
          <thead>
            <tr>
              <th aria-label="Group" />
              {board.staff.map(({ enrolmentId, name }) => {
                const hasAll = all.every((groupId) => sure(leads.get(groupId)).has(enrolmentId));
                return (
                  <th key={enrolmentId}>
                    {name}
                    <br />
                    <Button
                      isSmall
                      kind="quiet"
                      onPress={() => put(all, enrolmentId, !hasAll)}
                      aria-label={hasAll ? `${name}: none` : `${name}: all groups`}
                    >
                      {hasAll ? 'None' : 'All'}
                    </Button>
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {board.groups.map((group) => (
              <tr key={group.id}>
                <th scope="row">
                  <Emblem number={group.number} size={24} />
                  {group.name}
                </th>
                {board.staff.map(({ enrolmentId, name }) => (
                  <td key={enrolmentId}>
                    <label>
                      <input
                        type="checkbox"
                        aria-label={`${name} leads ${group.name}`}
                        checked={sure(leads.get(group.id)).has(enrolmentId)}
                        onChange={(event) => put([group.id], enrolmentId, event.target.checked)}
                      />
                    </label>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Table>
      <footer>
        <Button onPress={onClose}>Cancel</Button>
        <Button kind="main" isDisabled={changed.length === 0 || isLoading} onPress={() => void save()}>
          {isLoading ? 'Saving…' : 'Save'}
        </Button>
      </footer>
    </Sheet>
  );
}

const isSame = (one: ReadonlySet<EnrolmentId>, other: ReadonlySet<EnrolmentId>) =>
  one.size === other.size && [...one].every((id) => other.has(id));
