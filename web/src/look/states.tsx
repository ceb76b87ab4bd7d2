import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button } from './controls.js';

const EmptyBox = styled.div`
  border: 1px dashed var(--edge);
  border-radius: var(--r-2);
  padding: var(--s-5);
  text-align: center;
  display: grid;
  justify-items: center;
  gap: 6px;
  max-width: 560px;
  margin: var(--s-6) auto;
  p {
    color: var(--ink-2);
    max-width: 48ch;
  }
`;

export function Empty({
  title,
  children,
  action,
}: {
  readonly title: string;
  readonly children?: ReactNode;
  readonly action?: ReactNode;
}) {
  return (
    <EmptyBox>
      <h2>{title}</h2>
      {children && <p>{children}</p>}
      {action}
    </EmptyBox>
  );
}

/** The page itself broke, or a part of it could not be fetched after an update. What was saved is on the server. */
export function Broken() {
  return (
    <Empty
      title="This page broke"
      action={<Button onPress={() => window.location.reload()}>Load it again</Button>}
    >
      What you saved is safe on the server. If it happens again, tell whoever runs this Jigsaw Room what you
      were doing.
    </Empty>
  );
}

const Bone = styled.div`
  height: 28px;
  background: var(--sunk);
  border-radius: var(--r-1);
  margin: 8px var(--s-4);
`;

const WorkingLine = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 0;
  progress {
    flex: 1;
    min-width: 80px;
    max-width: 240px;
    accent-color: var(--ink);
  }
`;

/** Something that may take long is worked on, and can be stopped.
 * @param stop what stops it: a verb and its object. */
export function Working({
  what,
  stop,
  onStop,
}: {
  readonly what: string;
  readonly stop: string;
  readonly onStop: () => void;
}) {
  return (
    <WorkingLine role="status" aria-busy="true">
      <span>{what}…</span>
      <progress aria-label={what} />
      <Button onPress={onStop}>{stop}</Button>
    </WorkingLine>
  );
}

/** Something is on its way. */
export function Waiting({ rows = 6, what }: { readonly rows?: number; readonly what: string }) {
  return (
    <div role="status" aria-label={`Loading ${what}`} aria-busy="true">
      {Array.from({ length: rows }, (_, at) => (
        <Bone key={at} style={{ width: `${90 - ((at * 17) % 40)}%` }} />
      ))}
    </div>
  );
}
