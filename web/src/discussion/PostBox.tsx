import { Suspense, useState } from 'react';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import type { PostView } from '@jigsaw/contract/discussion';
import { PostId } from '@jigsaw/contract/common';
import { StoredRichText } from '@jigsaw/contract/text';
import { emptyText, plainText } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { useKeptDraft, useWords } from '../page/index.js';
import { Button, Small, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useAddPostMutation } from './discussionApi.js';
import { WordRule } from './WordRule.js';

const Foot = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px 14px;
  margin-top: 8px;
  > .grow {
    flex: 1;
  }
`;

interface PostBoxProps {
  readonly copyId: string;
  /** null: a new thread. */
  readonly parent: PostView | null;
  readonly wanted: number;
  readonly label: string;
  readonly send: string;
  readonly minHeight: number;
  readonly onSent: (post: PostView) => void;
  readonly onLeave?: () => void;
}

const newPostId = () => PostId.parse(uuid());

/** Writing a post. What is not sent yet stays through a reload; a press that is sent twice writes one post. */
export function PostBox({ copyId, parent, wanted, label, send, minHeight, onSent, onLeave }: PostBoxProps) {
  const [text, setText, clear] = useKeptDraft(
    `post ${copyId} ${parent?.id ?? ''}`,
    StoredRichText,
    emptyText,
  );
  const [id, setId] = useState(newPostId);
  const [round, setRound] = useState(0);
  const [add, { error, isLoading }] = useAddPostMutation();
  const plain = plainText(text);
  const words = useWords(plain);
  const submit = async () => {
    const answer = await add({ copyId, body: { id, parentId: parent?.id ?? null, text } });
    if (!('data' in answer) || !answer.data) return;
    clear();
    setId(newPostId());
    setRound(round + 1); // an editor that was written in begins anew
    onSent(answer.data);
  };
  return (
    <>
      {error && <ProblemStrip of={error} />}
      <Suspense fallback={<Waiting what="the editor" rows={2} />}>
        <RichTextEditor
          key={round}
          label={label}
          value={text}
          onChange={setText}
          minHeight={minHeight}
          takesFocus={parent !== null}
        />
      </Suspense>
      <Foot>
        <span role="status">
          <WordRule words={words} wanted={wanted} />
        </span>
        {wanted > 0 && words > 0 && words < wanted && (
          <Small>{wanted - words} words to go. You can still post it.</Small>
        )}
        <span className="grow" />
        {onLeave && (
          <Button kind="quiet" onPress={onLeave}>
            Cancel
          </Button>
        )}
        <Button kind="main" isDisabled={plain === '' || isLoading} onPress={() => void submit()}>
          {isLoading ? 'Posting…' : send}
        </Button>
      </Foot>
    </>
  );
}
