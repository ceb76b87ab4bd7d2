import { Suspense } from 'react';
import { useParams } from 'react-router';
import { isProblem, ProblemStrip, unshown } from '../api/index.js';
import { useReadCopyQuery } from './copyApi.js';
import { kindOf } from '../kinds/index.js';
import { Button, Empty, Waiting } from '../look/index.js';

/** One copy of whatever kind, at one address: the kind brings its own page. */
export function CopyPage() {
  const { copyId = '' } = useParams();
  const copy = useReadCopyQuery(copyId);
  if (isProblem(copy.error, 'not-found'))
    return <Empty title="Nothing here">There is nothing at this address, or you cannot see it.</Empty>;
  if (unshown(copy) !== undefined)
    return <ProblemStrip of={copy.error} onRetry={() => void copy.refetch()} />;
  if (!copy.data || copy.data.id !== copyId) return <Waiting what="the page" />;
  const kind = kindOf(copy.data.kind);
  if (!kind) {
    return (
      <Empty
        title="Something new"
        action={<Button onPress={() => window.location.reload()}>Reload page</Button>}
      >
        This kind of activity came with an update while your page was open.
      </Empty>
    );
  }
  return (
    <Suspense fallback={<Waiting what={kind.word} rows={8} />}>
      <kind.Page key={copyId} head={copy.data} />
    </Suspense>
  );
}
