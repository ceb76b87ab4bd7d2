import type { ReactNode } from 'react';
import { styled } from 'styled-components';

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
