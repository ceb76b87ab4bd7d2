import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button } from './controls.js';
import { Small } from './layout.js';

const EmptyBox = styled.div`
  border: 1px dashed var(--edge);
  border-radius: var(--r-2);
  padding: var(--s-5);
  text-align: center;
  display: grid;
  justify-items: center;
  align-content: start;
  align-self: start;
  gap: 6px;
  max-width: min(560px, calc(100% - 32px));
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
      What you saved is safe on the server. If it happens again, tell the person who runs this server what you
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
 * @param share how much of it is done, 0 to 1; omit it where no one can know.
 * @param note how far it is, in words.
 * @param stop what stops it: a verb and its object. */
export function Working({
  what,
  share,
  note,
  stop,
  onStop,
}: {
  readonly what: string;
  readonly share?: number;
  readonly note?: string;
  readonly stop: string;
  readonly onStop: () => void;
}) {
  return (
    <WorkingLine aria-busy="true">
      <span role="status">{what}…</span>
      <progress aria-label={what} value={share} aria-valuetext={note} />
      {/* It changes every second; the bar says it to anyone who asks. */}
      {note !== undefined && (
        <Small className="num" aria-hidden="true">
          {note}
        </Small>
      )}
      <Button onPress={onStop}>{stop}</Button>
    </WorkingLine>
  );
}

/** As Working, for what ends by itself after a time: the bar runs towards it.
 * @param beyond what is waited for after that. */
export function WorkingUntil({
  seconds,
  beyond,
  ...working
}: {
  readonly what: string;
  readonly seconds: number;
  readonly beyond: string;
  readonly stop: string;
  readonly onStop: () => void;
}) {
  const [passed, setPassed] = useState(0);
  useEffect(() => {
    const began = Date.now();
    const tick = setInterval(() => setPassed(Math.round((Date.now() - began) / 1000)), 1000);
    return () => clearInterval(tick);
  }, []);
  return passed > seconds ? (
    <Working {...working} note={beyond} />
  ) : (
    <Working {...working} share={passed / seconds} note={`${passed} of at most ${seconds} s`} />
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
