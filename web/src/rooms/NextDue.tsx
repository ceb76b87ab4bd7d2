import { styled } from 'styled-components';
import type { RoomItem } from '@jigsaw/contract/rooms';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { ButtonLink, Small, Tag } from '../look/index.js';
import { useNow } from '../page/index.js';

const Card = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 20px;
  align-items: center;
  max-width: 1280px;
  margin-bottom: 22px;
  padding: 16px 18px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-left: 6px solid var(--hue);
  border-radius: var(--r-2);
  h2 {
    margin: 2px 0;
    font: var(--h-22);
    overflow-wrap: anywhere;
  }
  p {
    font: var(--t-13);
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    > a {
      min-height: 44px;
    }
  }
`;

/** What the reader's group owes next, with how long there is; nothing where nothing is owed by a day. */
export function NextDue({ items }: { readonly items: readonly RoomItem[] }) {
  const { dates } = useCourse();
  const now = useNow(...items.map(({ due }) => due));
  const [next] = items
    .filter(({ due, progress }) => due !== null && progress.owes)
    .toSorted((a, b) => (a.due ?? '').localeCompare(b.due ?? ''));
  if (!next?.due) return null;
  const { copyId, kind, title, due, progress, isExtended } = next;
  const words = kindOf(kind);
  const isOver = Date.parse(due) < now;
  return (
    <Card aria-label="Next">
      <div>
        <p>
          <Tag $look="needs">{isOver ? 'Late' : (words?.owed ?? 'Due')}</Tag>{' '}
          <b>
            {isOver ? 'Was due' : 'Due'} {dates.dateTime(due)}, {dates.fromNow(due, now)}
          </b>
          {isExtended && ', extended'}
        </p>
        <h2>{title}</h2>
        <Small>{[words?.word, words?.sayProgress?.(progress, dates)].filter(Boolean).join(' · ')}</Small>
      </div>
      <ButtonLink kind="main" to={`../copies/${copyId}`}>
        Open
      </ButtonLink>
    </Card>
  );
}
