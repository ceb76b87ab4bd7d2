import { describe, expect, it } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useState } from 'react';
import type { AdjustmentShape, MarkView } from '@jigsaw/contract/marks';
import { sure } from '@jigsaw/core/lists';
import { personMark } from '@jigsaw/core/marks';
import { MemberTable } from './MemberTable.js';

const noor = {
  enrolmentId: '01920000-0000-7000-8000-000000000001' as never,
  name: 'Noor',
  reading: null,
  isYou: false,
};
const members: MarkView['members'] = [
  {
    member: noor,
    isStillInGroup: true,
    evidence: [{ label: 'words', value: '57' }],
    adjustment: null,
    mark: null,
    steps: [],
  },
];

function Desk({ heard }: { readonly heard: (adjustment: AdjustmentShape | null) => void }) {
  const [adjustment, setAdjustment] = useState<AdjustmentShape | null>(null);
  const results = new Map([
    [noor.enrolmentId, personMark({ groupMark: '30', lateDeduction: '2', max: '40', adjustment })],
  ]);
  return (
    <MemberTable
      members={members}
      adjustments={new Map(adjustment ? [[noor.enrolmentId, adjustment]] : [])}
      results={results}
      ownLate={new Map()}
      max="40"
      isDisabled={false}
      isGroup
      onAdjust={(_, next) => {
        setAdjustment(next);
        heard(next);
      }}
    />
  );
}

describe('what differs for a member', () => {
  it('shows the sum while a figure and its reason are typed, comma or point', async () => {
    const heard: (AdjustmentShape | null)[] = [];
    render(<Desk heard={(next) => heard.push(next)} />);
    expect(screen.getByText('28')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: /Adjustment for Noor/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Adjust points' }));
    await userEvent.type(screen.getByLabelText('Points more or less for Noor'), '+1,5');
    expect(screen.getByText('29.5')).toBeInTheDocument();
    expect(screen.getByLabelText('Reason for Noor')).toHaveAttribute('aria-invalid', 'true');
    await userEvent.type(screen.getByLabelText('Reason for Noor'), 'Ill');
    expect(heard.at(-1)).toEqual({ kind: 'adjusted', by: '1.5', reason: 'Ill' });
  });

  it('takes nothing for a mark that cannot be meant, and says so beside the field', async () => {
    const heard: (AdjustmentShape | null)[] = [];
    render(<Desk heard={(next) => heard.push(next)} />);
    await userEvent.click(screen.getByRole('button', { name: /Adjustment for Noor/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Separate mark' }));
    expect(heard.at(-1)).toEqual({ kind: 'separate', mark: null, reason: '' }); // empty is no mark, and not 0
    expect(screen.getByText('none yet')).toBeInTheDocument();
    const field = screen.getByLabelText('Noor’s own mark');
    for (const [text, says] of [
      ['350', 'From 0 to 40.'],
      ['two', 'Write a number, like 31.5.'],
      ['1.555', 'At most 2 decimals.'],
    ] as const) {
      await userEvent.clear(field);
      await userEvent.type(field, text);
      expect(field).toHaveValue(text);
      expect(field).toHaveAccessibleDescription(says);
      expect(heard.at(-1)).toEqual({ kind: 'separate', mark: null, reason: '' });
    }
    await userEvent.clear(field);
    await userEvent.type(field, '1,5');
    expect(heard.at(-1)).toEqual({ kind: 'separate', mark: '1.5', reason: '' });
    expect(field).toHaveAccessibleDescription('');
  });

  it('says beside a member with time of their own how late it is for them', () => {
    const shared = { members, adjustments: new Map(), results: new Map(), max: '40', isDisabled: false };
    const shown = (minutes: number, deduction: string) => (
      <MemberTable
        {...shared}
        ownLate={new Map([[noor.enrolmentId, { minutes, deduction }]])}
        isGroup
        onAdjust={() => undefined}
      />
    );
    const { rerender } = render(shown(0, '0'));
    expect(screen.getByText('On time by their own date')).toBeInTheDocument();
    rerender(shown(125, '4'));
    expect(screen.getByText('Late 2 h 5 min by their own date: −4')).toBeInTheDocument();
  });

  it('has a column for every figure that any member has, also when the first did nothing', () => {
    render(
      <MemberTable
        members={[
          { ...sure(members[0]), evidence: [] },
          { ...sure(members[0]), member: { ...noor, enrolmentId: 'b' as never, name: 'Jorge' } },
        ]}
        adjustments={new Map()}
        results={new Map()}
        ownLate={new Map()}
        max="40"
        isDisabled={false}
        isGroup
        onAdjust={() => undefined}
      />,
    );
    expect(screen.getByRole('columnheader', { name: 'words' })).toBeInTheDocument();
    expect(screen.getByRole('cell', { name: '57' })).toBeInTheDocument();
  });

  it('gives an excused member no mark', async () => {
    render(<Desk heard={() => undefined} />);
    await userEvent.click(screen.getByRole('button', { name: /Adjustment for Noor/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Excused' }));
    expect(screen.getByText('excused')).toBeInTheDocument();
  });
});
