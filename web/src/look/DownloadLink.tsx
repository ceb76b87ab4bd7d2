import { Download } from 'lucide-react';
import { styled } from 'styled-components';

const Frame = styled.a`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl);
  padding: 0 11px;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  font: 550 13px/1 var(--font-text);
  text-decoration: none;
  white-space: nowrap;
  &:hover {
    background: var(--sunk);
  }
`;

/** Takes what a page shows along as a file. */
export function DownloadLink({
  href,
  name,
  children,
}: {
  readonly href: string;
  /** Of the file. */
  readonly name: string;
  readonly children: string;
}) {
  return (
    <Frame href={href} download={name}>
      <Download size={16} aria-hidden="true" />
      {children}
    </Frame>
  );
}
