import { Suspense, useRef, useState } from 'react';
import { WorkView } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { RichTextNode } from '@jigsaw/core/text';
import { emptyText } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { saySaved, useAutosave } from '../page/index.js';
import { Button, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useSavePartMutation } from './handinApi.js';
import { PartView } from './HandedIn.js';

/** One's own part of the text. Nobody else can change it, and it can change nobody else's. */
export function OwnPart({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const own = work.parts.find((part) => part.author.isYou);
  const [text, setText] = useState<RichTextNode>(own?.text ?? emptyText);
  const version = useRef(own?.version ?? 0);
  const [save] = useSavePartMutation();
  const autosave = useAutosave<RichTextNode>(async (value) => {
    const saved = await save({ copyId: head.id, body: { text: value, version: version.current } }).unwrap();
    version.current = saved.parts.find((part) => part.author.isYou)?.version ?? version.current;
  });
  const change = (next: RichTextNode) => {
    setText(next);
    autosave.change(next);
  };
  const { state } = autosave;
  const theirs =
    state.kind === 'conflict'
      ? WorkView.safeParse(state.current).data?.parts.find((part) => part.author.isYou)
      : undefined;
  return (
    <section aria-label="Your part">
      <h2>
        Your part<small role="status">{saySaved(state, dates.time)}</small>
      </h2>
      {state.kind === 'failed' && (
        <ProblemStrip onRetry={() => void autosave.flush()}>{state.sentence}</ProblemStrip>
      )}
      {state.kind === 'conflict' && theirs && (
        <ProblemStrip>
          {state.sentence}
          <PartView part={theirs} />
          <Button
            isSmall
            onPress={() => {
              version.current = theirs.version;
              autosave.settle();
              autosave.change(text);
            }}
          >
            Keep what is in this window
          </Button>{' '}
          <Button
            isSmall
            onPress={() => {
              version.current = theirs.version;
              setText(theirs.text);
              autosave.settle();
            }}
          >
            Take the other text
          </Button>
        </ProblemStrip>
      )}
      <Suspense fallback={<Waiting what="the editor" rows={3} />}>
        <RichTextEditor label="Your part of the text" value={text} onChange={change} minHeight={150} />
      </Suspense>
    </section>
  );
}
