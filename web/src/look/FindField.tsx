import { Search } from 'lucide-react';
import type { ReactNode, Ref } from 'react';
import { Input, Label, SearchField } from 'react-aria-components';
import { styled } from 'styled-components';
import { Spoken } from './layout.js';

const Frame = styled(SearchField)`
  display: flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl);
  padding: 0 9px;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  &:has(input:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  input {
    border: 0;
    background: none;
    outline: 0;
    width: 100%;
    min-width: 0;
  }
  svg {
    color: var(--ink-3);
    flex: none;
  }
`;

interface FindFieldProps {
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly inputRef?: Ref<HTMLInputElement>;
  readonly width?: number;
  /** Goes to the first that is found. */
  readonly onEnter?: () => void;
  readonly children?: ReactNode;
}

/** Where people are looked for. */
export function FindField({
  label,
  placeholder,
  value,
  onChange,
  inputRef,
  width,
  onEnter,
  children,
}: FindFieldProps) {
  return (
    <Frame value={value} onChange={onChange} style={width === undefined ? undefined : { width }}>
      <Label>
        <Spoken>{label}</Spoken>
      </Label>
      <Search size={16} aria-hidden="true" />
      <Input
        ref={inputRef}
        placeholder={placeholder}
        onKeyDown={(event) => event.key === 'Enter' && !event.nativeEvent.isComposing && onEnter?.()}
      />
      {children}
    </Frame>
  );
}
