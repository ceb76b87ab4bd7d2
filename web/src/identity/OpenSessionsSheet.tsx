import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Button, datesIn, Muted, Sheet, Small, Waiting } from '../look/index.js';
import { useAct } from '../page/index.js';
import {
  useEndOtherSessionsMutation,
  useEndSessionMutation,
  useReadOpenSessionsQuery,
} from './identityApi.js';

const List = styled.ul`
  margin-top: 6px;
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    min-height: 52px;
    padding: 8px 0;
    border-top: var(--hair);
  }
  b {
    display: block;
  }
`;
const dates = datesIn(Intl.DateTimeFormat().resolvedOptions().timeZone);

/** Where someone is signed in, with the way to sign out anywhere else. */
export function OpenSessionsSheet({ onClose }: { readonly onClose: () => void }) {
  const open = useReadOpenSessionsQuery(undefined, { refetchOnMountOrArgChange: true });
  const end = useAct(useEndSessionMutation(), { says: () => 'Signed out there' });
  const endOthers = useAct(useEndOtherSessionsMutation(), { says: () => 'Signed out everywhere else' });
  const others = open.data?.sessions.filter((session) => !session.isThis) ?? [];
  return (
    <Sheet title="Where you are signed in" onClose={onClose}>
      {open.error && <ProblemStrip of={open.error} onRetry={() => void open.refetch()} />}
      {!open.data && !open.error && <Waiting what="where you are signed in" rows={2} />}
      <List>
        {open.data?.sessions.map(({ id, cameFrom, since, seenAt, isThis }) => (
          <li key={id}>
            <span>
              <b>{cameFrom}</b>
              <Small>
                Since {dates.dateTime(since)}
                {!isThis && `, last used ${dates.dateTime(seenAt)}`}
              </Small>
            </span>
            {isThis ? (
              <Muted>this browser</Muted>
            ) : (
              <Button
                aria-label={`Sign out ${cameFrom}, signed in since ${dates.dateTime(since)}`}
                onPress={() => void end(id)}
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </List>
      {open.data && others.length === 0 && <Muted>You are signed in nowhere else.</Muted>}
      {others.length > 1 && (
        <footer>
          <Button onPress={() => void endOthers()} isDisabled={endOthers.isBusy}>
            Sign out everywhere else
          </Button>
        </footer>
      )}
    </Sheet>
  );
}
