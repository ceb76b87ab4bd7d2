import { Suspense } from 'react';
import { WorkView } from '@jigsaw/contract/handin';
import { StoredRichText } from '@jigsaw/contract/text';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { RichTextNode } from '@jigsaw/core/text';
import { emptyText } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { saySaved, useVersionedDraft } from '../page/index.js';
import { Button, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useSavePartMutation } from './handinApi.js';
import { PartView } from './HandedIn.js';

interface OwnPartProps {
  readonly head: CopyHead;
  readonly work: WorkView;
  readonly reload: () => Promise<WorkView>;
}

const ownIn = (work: WorkView | undefined) => work?.parts.find((part) => part.author.isYou);
const textIn = (work: WorkView): { value: RichTextNode; version: number } => {
  const own = ownIn(work);
  return { value: own?.text ?? emptyText, version: own?.version ?? 0 };
};

/** One's own part of the text. No one else can change it, and it can change no one else's; oneself can, in another window. */
export function OwnPart({ head, work, reload }: OwnPartProps) {
  const { dates } = useCourse();
  const [save] = useSavePartMutation();
  const { value, state, change, flush, keepMine, takeTheirs } = useVersionedDraft<RichTextNode>({
    begin: () => textIn(work),
    save: async (text, version) => textIn(await save({ copyId: head.id, body: { text, version } }).unwrap()),
    read: async () => textIn(await reload()),
    inTab: {
      name: `part ${head.id}`,
      pack: (text) => text,
      unpack: (packed) => StoredRichText.safeParse(packed).data ?? null,
    },
  });
  const other = state.kind === 'conflict' ? ownIn(WorkView.safeParse(state.current).data) : undefined;
  return (
    <section aria-label="Your part">
      <h2>
        Your part<small role="status">{saySaved(state, dates.time)}</small>
      </h2>
      {state.kind === 'failed' && <ProblemStrip onRetry={() => void flush()}>{state.sentence}</ProblemStrip>}
      {state.kind === 'conflict' && (
        <ProblemStrip>
          {state.sentence}
          {other && <PartView part={other} />}
          <Button isSmall onPress={() => void keepMine()}>
            Keep my text
          </Button>{' '}
          <Button isSmall onPress={() => void takeTheirs()}>
            Use the other text
          </Button>
        </ProblemStrip>
      )}
      <Suspense fallback={<Waiting what="the editor" rows={3} />}>
        <RichTextEditor label="Your part of the text" value={value} onChange={change} minHeight={150} />
      </Suspense>
    </section>
  );
}
