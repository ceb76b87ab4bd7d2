import { ExternalLink } from 'lucide-react';
import { styled } from 'styled-components';
import { ResourceSettings } from '@jigsaw/contract/resource';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { Small } from '../look/index.js';
import { Brief, CopyFrame, useSeenHere } from '../rooms/index.js';

const Room = styled.div`
  overflow: auto;
  padding: 20px 32px 32px;
  > article {
    max-width: 860px;
    padding: 18px 22px 20px;
    background: var(--surface);
    border: var(--hair);
    border-radius: var(--r-2);
    font: var(--t-15);
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    padding: 16px;
    > article {
      padding: 14px 16px 16px;
    }
  }
`;
const Door = styled.a`
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr);
  gap: 0 12px;
  align-items: center;
  min-height: 56px;
  margin-bottom: 14px;
  padding: 10px 14px;
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  text-decoration: none;
  &:hover {
    background: var(--wash);
  }
  b {
    display: block;
    font: var(--h-17);
  }
`;

/** A page to use: its link first, then its text and files. */
export default function ResourcePage({ head }: { readonly head: CopyHead }) {
  const { link, linkName } = ResourceSettings.parse(head.settings);
  const seen = useSeenHere(head);
  return (
    <CopyFrame head={head}>
      <Room>
        <article aria-label="Resource" ref={seen}>
          {link !== '' && (
            <Door href={link} target="_blank" rel="noopener noreferrer">
              <ExternalLink size={20} aria-hidden="true" />
              <span>
                <b>{linkName || link}</b>
                {linkName !== '' && <Small>{link}</Small>}
              </span>
            </Door>
          )}
          <Brief head={head} />
        </article>
      </Room>
    </CopyFrame>
  );
}
