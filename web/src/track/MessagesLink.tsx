import { Mail } from 'lucide-react';
import { NavLink } from 'react-router';
import { styled } from 'styled-components';
import { useCountMessagesQuery } from '../course/index.js';

const Place = styled(NavLink)`
  align-self: center;
  position: relative;
  display: grid;
  place-items: center;
  flex: none;
  width: 44px;
  height: 44px;
  margin-left: 6px;
  border-radius: var(--r-2);
  text-decoration: none;
  &:hover,
  &[aria-current] {
    background: var(--wash-2);
  }
  span {
    position: absolute;
    top: 4px;
    right: 2px;
    min-width: 17px;
    padding: 0 4px;
    border-radius: var(--r-1);
    background: var(--attn);
    color: var(--on-attn);
    font: 650 11px/17px var(--font-text);
    text-align: center;
  }
`;

/** The way to the messages, from every page of a course, with how many threads have something new. */
export function MessagesLink({ courseId }: { readonly courseId: string }) {
  const { data } = useCountMessagesQuery(courseId);
  const unread = data?.unread ?? 0;
  const name = unread > 0 ? `Messages, ${unread} new` : 'Messages';
  return (
    <Place to={`/c/${courseId}/messages`} aria-label={name} title={name}>
      <Mail size={19} aria-hidden="true" />
      {unread > 0 && <span aria-hidden="true">{unread > 99 ? '99+' : unread}</span>}
    </Place>
  );
}
