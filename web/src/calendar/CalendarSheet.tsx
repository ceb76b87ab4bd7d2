import { Copy } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Button, datesIn, Field, Muted, Sheet, Small, Waiting } from '../look/index.js';
import { useAct, useCopy } from '../page/index.js';
import {
  useAddCalendarAddressMutation,
  useListCalendarAddressesQuery,
  useRemoveCalendarAddressMutation,
} from './calendarApi.js';

const Body = styled.div`
  display: grid;
  gap: 14px;
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: end;
  }
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    min-height: 48px;
    border-top: var(--hair);
  }
  b {
    display: block;
    overflow-wrap: anywhere;
  }
`;
const Made = styled.section`
  display: grid;
  gap: 8px;
  padding: 12px 14px;
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  code {
    font: 13px/18px var(--font-mono);
    overflow-wrap: anywhere;
    user-select: all;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;
const dates = datesIn(Intl.DateTimeFormat().resolvedOptions().timeZone);

/** The addresses from which someone's own calendars read: made, copied, ended. */
export function CalendarSheet({ onClose }: { readonly onClose: () => void }) {
  const list = useListCalendarAddressesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [label, setLabel] = useState('');
  const [made, setMade] = useState<{ readonly label: string; readonly url: string } | null>(null);
  const copy = useCopy();
  const add = useAct(useAddCalendarAddressMutation(), { isRefusalShown: true });
  const remove = useAct(useRemoveCalendarAddressMutation(), {
    says: () => 'The address no longer works.',
  });
  const make = async () => {
    const answer = await add(label.trim());
    if (!answer) return;
    setMade({ label: label.trim(), url: answer.url });
    setLabel('');
  };
  const addresses = list.data?.addresses ?? [];
  return (
    <Sheet title="Your calendar" onClose={onClose}>
      <Body>
        <p>
          Events and due times of all your courses, in the calendar that you use anyway. It reads them from an
          address of your own and follows every change.
        </p>
        {made ? (
          <Made aria-label={`The address for ${made.label}`}>
            <b>The address for {made.label}</b>
            <code>{made.url}</code>
            <div>
              <Button
                kind="main"
                onPress={() => void copy(made.url, 'Address copied', 'Select the address and copy it.')}
              >
                <Copy size={15} aria-hidden="true" />
                Copy address
              </Button>
              <Button onPress={() => setMade(null)}>Done</Button>
            </div>
            <Small>
              In your calendar, choose to subscribe by address, and paste it. It is shown only now. Anyone who
              has it can read your calendar, so keep it to yourself.
            </Small>
          </Made>
        ) : (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void make();
            }}
          >
            <Field
              label="Which calendar is it for?"
              placeholder="Phone"
              value={label}
              onChange={setLabel}
              maxLength={60}
            />
            <Button kind="main" type="submit" isDisabled={label.trim() === '' || add.isBusy}>
              Make an address
            </Button>
          </form>
        )}
        {add.error !== undefined && <ProblemStrip of={add.error} />}
        {list.error && <ProblemStrip of={list.error} onRetry={() => void list.refetch()} />}
        {!list.data && !list.error && <Waiting what="your addresses" rows={1} />}
        {list.data && addresses.length === 0 && <Muted>You have no address yet.</Muted>}
        <ul>
          {addresses.map((each) => (
            <li key={each.id}>
              <span>
                <b>{each.label}</b>
                <Small>Since {dates.day(each.createdAt)}</Small>
              </span>
              <Button
                aria-label={`Remove the address for ${each.label}`}
                onPress={() => void remove(each.id)}
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      </Body>
    </Sheet>
  );
}
