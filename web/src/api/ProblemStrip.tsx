import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button } from '../look/index.js';
import { problemOf } from './problem.js';

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
export function ProblemStrip({
  of,
  children,
  onRetry,
}: {
  readonly of?: unknown;
  readonly children?: ReactNode;
  readonly onRetry?: () => void;
}) {
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
