import { useMemo } from 'react';
import { styled } from 'styled-components';
import { NoticeSettings } from '@jigsaw/contract/notice';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { noticeTalk } from '@jigsaw/core/notice';
import { Talk } from '../discussion/index.js';
import { Brief, CopyFrame, useSeenHere } from '../rooms/index.js';

const Sheet = styled.article`
  padding: 18px 22px 20px;
  background: var(--surface);
  border: var(--hair);
  border-left: 4px solid var(--hue, var(--ink));
  border-radius: var(--r-2);
  font: var(--t-15);
  overflow-wrap: anywhere;
  @media (max-width: 700px) {
    padding: 14px 16px 16px;
  }
`;
const Under = styled.h2`
  margin-top: 10px;
`;

/** A notice with its replies under it. */
export default function NoticePage({ head }: { readonly head: CopyHead }) {
  const rule = useMemo(() => noticeTalk(NoticeSettings.parse(head.settings)), [head.settings]);
  const seen = useSeenHere(head);
  const text = (
    <Sheet aria-label="Notice" ref={seen}>
      <Brief head={head} />
    </Sheet>
  );
  return (
    <CopyFrame head={head}>
      <Talk
        head={head}
        settings={rule}
        says={says}
        over={
          <>
            {text}
            <Under>Replies</Under>
          </>
        }
      >
        {(_view, _posts, threads) => threads}
      </Talk>
    </CopyFrame>
  );
}

const says = {
  begin: 'Your reply',
  label: 'New reply',
  send: 'Reply',
  empty: 'No replies yet.',
  none: 'No replies yet.',
  waits: 'the notice',
  off: 'Replies are off here.',
};
