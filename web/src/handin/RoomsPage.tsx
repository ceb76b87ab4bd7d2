import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Bar, ButtonLink, Emblem, Empty, hueOfGroup, Muted, Page, PersonName, Scroll, Small, Tag, Waiting } from '../look/index.js';
import { useCourse } from '../track/index.js';
import { useListRoomsQuery } from './handinApi.js';
import { sayState } from './words.js';

const Cards = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 8px;
  padding: 8px var(--s-4) 20px;
`;
const Card = styled.li`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 10px 12px;
  > header {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-bottom: 6px;
  }
  > header h3 {
    font: var(--h-17);
    font-size: 16px;
    flex: 1;
  }
  p {
    color: var(--ink-2);
    margin-bottom: 8px;
  }
  ul {
    border-top: var(--hair);
  }
  ul li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    padding: 6px 0 0;
  }
  ul li b {
    font-weight: 620;
  }
  ul li small {
    grid-column: 1 / -1;
    font: var(--t-12);
    color: var(--ink-2);
  }
`;
const SetHead = styled.h2`
  padding: 14px var(--s-4) 0;
`;

const mostMembersShown = 8;

/** All rooms at a glance for staff: who is in them and how far their work is. */
export function RoomsPage() {
  const { course, dates } = useCourse();
  const rooms = useListRoomsQuery(course.id);
  if (rooms.error) return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="the rooms" rows={10} />;
  const list = rooms.data.rooms;
  // Sets with work in them come first.
  const setNames = [...new Set(list.toSorted((a, b) => Math.sign(b.items.length) - Math.sign(a.items.length)).map((room) => room.group.setName))];
  return (
    <Page>
      <Bar>
        <h1>Rooms</h1>
        <Muted>One behind each door; discussions, wikis and what is new in them come here</Muted>
      </Bar>
      <Scroll>
        {list.length === 0 && (
          <Empty
            title="No rooms yet"
            action={
              <ButtonLink kind="main" to="../groups">
                To the groups
              </ButtonLink>
            }
          >
            Every group has a room as soon as there is a group set.
          </Empty>
        )}
        {setNames.map((name) => (
          <section key={name} aria-label={name}>
            <SetHead>{name}</SetHead>
            <Cards>
              {list
                .filter((room) => room.group.setName === name)
                .map((room) => (
                  <Card key={room.group.id} style={hueOfGroup(room.group.number)}>
                    <header>
                      <Emblem number={room.group.number} size={32} />
                      <h3>{room.group.name}</h3>
                      <Small>{room.members.length === 1 ? '1 member' : `${room.members.length} members`}</Small>
                    </header>
                    <p>
                      {room.members.length === 0 && 'Nobody yet'}
                      {room.members.slice(0, mostMembersShown).map((member, at) => (
                        <span key={member.enrolmentId}>
                          {at > 0 && ', '}
                          <PersonName name={member.name} />
                        </span>
                      ))}
                      {room.members.length > mostMembersShown && ` and ${room.members.length - mostMembersShown} more`}
                    </p>
                    <ul hidden={room.items.length === 0}>
                      {room.items.map((item) => {
                        const isMissing = item.handedInAt === null && item.due !== null && Date.parse(item.due) < Date.now();
                        return (
                          <li key={item.copyId}>
                            <b>{item.title}</b>
                            {isMissing && <Tag $look="warn">Missing</Tag>}
                            <small>{sayState(item, dates)}</small>
                          </li>
                        );
                      })}
                    </ul>
                  </Card>
                ))}
            </Cards>
          </section>
        ))}
      </Scroll>
    </Page>
  );
}
