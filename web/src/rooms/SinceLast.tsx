import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { LastWritten } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { PersonName, Small, Tag, Waiting } from '../look/index.js';
import { useNow } from '../page/index.js';
import { useReadLastWrittenQuery } from './roomsApi.js';

const Beside = styled.aside`
  overflow: auto;
  padding: 20px 20px 32px;
  background: var(--surface);
  border-left: var(--hair);
  h2 {
    margin-bottom: 4px;
  }
  h2:not(:first-child) {
    margin-top: 24px;
  }
  li {
    border-bottom: var(--hair);
  }
  a {
    display: block;
    padding: 10px 0;
    text-decoration: none;
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
  a:hover {
    background: var(--wash);
  }
  q,
  small {
    display: block;
    color: var(--ink-2);
    margin-top: 2px;
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: var(--hair);
    padding: 16px;
    a {
      min-height: 44px;
      font: var(--t-15);
    }
  }
`;

/** What changed in a room since its reader was last there, and below it what was there before. */
export function SinceLast({ groupId }: { readonly groupId: string }) {
  const latest = useReadLastWrittenQuery(groupId);
  if (unshown(latest) !== undefined)
    return <ProblemStrip of={latest.error} onRetry={() => void latest.refetch()} />;
  if (!latest.currentData) return <Waiting what="what is new" rows={4} />;
  const { items } = latest.currentData;
  const fresh = items.filter(({ isNew }) => isNew);
  const before = items.filter(({ isNew }) => !isNew);
  return (
    <Beside aria-label="Since you were last here">
      <h2>Since you were last here</h2>
      {fresh.length === 0 && <Small>Nothing new. You have seen it all.</Small>}
      <Items label="New" items={fresh} />
      {before.length > 0 && <h2>Before</h2>}
      <Items label="Before" items={before} />
    </Beside>
  );
}

function Items({ label, items }: { readonly label: string; readonly items: LastWritten['items'] }) {
  const { dates } = useCourse();
  const now = useNow(null);
  return (
    <ul aria-label={label}>
      {items.map(({ copyId, title, at, by, byYou, excerpt, isNew }, index) => (
        <li key={index}>
          <Link to={`../copies/${copyId}`}>
            <b>{byYou ? 'You' : <PersonName name={by} />}</b> in {title}{' '}
            {isNew && <Tag $look="solid">new</Tag>}
            {excerpt !== '' && <q dir="auto">{excerpt}</q>}
            <small>{dates.fromNow(at, now)}</small>
          </Link>
        </li>
      ))}
    </ul>
  );
}
