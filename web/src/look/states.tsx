import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { problemOf } from '../api/problem.js';
import { Button } from './controls.js';

const Strip = styled.div`
  display: flex;
  gap: 8px;
  align-items: flex-start;
  padding: 8px 12px;
  background: var(--attn-tint);
  border-left: 3px solid var(--attn);
  border-radius: 0 var(--r-1) var(--r-1) 0;
  color: var(--ink);
  svg {
    color: var(--attn-ink);
    flex: none;
    margin-top: 1px;
  }
  > div {
    flex: 1;
    min-width: 0;
  }
`;

/** A refusal or a fault, in the server's own sentence, where it happened. */
export function ProblemStrip({ of, children, onRetry }: { readonly of?: unknown; readonly children?: ReactNode; readonly onRetry?: () => void }) {
  return (
    <Strip role="alert">
      <TriangleAlert size={16} aria-hidden="true" />
      <div>{children ?? problemOf(of).detail}</div>
      {onRetry && (
        <Button isSmall onPress={onRetry}>
          Try again
        </Button>
      )}
    </Strip>
  );
}

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

export function Empty({ title, children, action }: { readonly title: string; readonly children?: ReactNode; readonly action?: ReactNode }) {
  return (
    <EmptyBox>
      <h2>{title}</h2>
      {children && <p>{children}</p>}
      {action}
    </EmptyBox>
  );
}

const Bone = styled.div`
  height: 28px;
  background: var(--sunk);
  border-radius: var(--r-1);
  margin: 8px var(--s-4);
`;

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
