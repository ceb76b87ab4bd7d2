import type { ReactNode } from 'react';
import {
  Button as AriaButton,
  FieldError,
  Input as AriaInput,
  Label as AriaLabel,
  Text,
  TextArea as AriaTextArea,
  TextField as AriaTextField,
} from 'react-aria-components';
import type {
  ButtonProps as AriaButtonProps,
  TextFieldProps as AriaTextFieldProps,
} from 'react-aria-components';
import { Link as RouterLink } from 'react-router';
import { css, styled } from 'styled-components';

export type ButtonKind = 'main' | 'plain' | 'quiet';

const buttonLook = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  height: var(--ctl);
  padding: 0 11px;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  color: var(--ink);
  font: 550 13px/1 var(--font-text);
  white-space: nowrap;
  cursor: pointer;
  text-decoration: none;
  transition: background var(--m-fast) var(--ease);
  &:hover {
    background: var(--sunk);
  }
  &[data-kind='main'] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
    font-weight: 620;
    &:hover {
      background: var(--ink-hover);
    }
  }
  &[data-kind='quiet'] {
    border-color: transparent;
    background: transparent;
    &:hover {
      background: var(--wash);
    }
  }
  &[data-small] {
    height: 24px;
    padding: 0 8px;
    font-size: 12px;
    border-radius: 5px;
  }
  &[data-icon-only] {
    width: var(--ctl);
    padding: 0;
  }
  &[data-icon-only][data-small] {
    width: 24px;
  }
  &[data-disabled],
  &[data-disabled]:hover {
    color: var(--ink-3);
    border-color: var(--line);
    background: var(--paper);
    cursor: not-allowed;
  }
  svg {
    flex: none;
  }
`;

const StyledButton = styled(AriaButton)`
  ${buttonLook}
`;

interface ButtonProps extends Omit<AriaButtonProps, 'children' | 'className' | 'style'> {
  readonly kind?: ButtonKind;
  readonly isSmall?: boolean;
  /** The icon stands alone: give it an aria-label. */
  readonly isIconOnly?: boolean;
  readonly children: ReactNode;
}

export function Button({ kind = 'plain', isSmall, isIconOnly, ...rest }: ButtonProps) {
  return (
    <StyledButton
      data-kind={kind}
      data-small={isSmall || undefined}
      data-icon-only={isIconOnly || undefined}
      {...rest}
    />
  );
}

const StyledLink = styled(RouterLink)`
  ${buttonLook}
`;

export function ButtonLink({
  kind = 'plain',
  isSmall,
  to,
  children,
}: {
  readonly kind?: ButtonKind;
  readonly isSmall?: boolean;
  readonly to: string;
  readonly children: ReactNode;
}) {
  return (
    <StyledLink to={to} data-kind={kind} data-small={isSmall || undefined}>
      {children}
    </StyledLink>
  );
}

export const Label = styled(AriaLabel)`
  font: 600 12px/16px var(--font-text);
  color: var(--ink-2);
`;

const boxLook = css`
  width: 100%;
  min-width: 0;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  color: var(--ink);
  padding: 0 9px;
  &::placeholder {
    color: var(--ink-3);
    opacity: 1;
  }
  &[data-invalid] {
    border-color: var(--attn-line);
    background: var(--attn-tint);
  }
  &[data-disabled] {
    background: var(--paper);
    color: var(--ink-3);
  }
`;

export const Input = styled(AriaInput)`
  ${boxLook}
  height: var(--ctl);
`;

export const TextArea = styled(AriaTextArea)`
  ${boxLook}
  padding: 7px 9px;
  resize: vertical;
`;

const FieldFrame = styled(AriaTextField)`
  display: grid;
  gap: 4px;
  min-width: 0;
  align-content: start;
  [slot='description'] {
    font: var(--t-12);
    color: var(--ink-2);
  }
`;

export const FieldFault = styled(FieldError)`
  font: var(--t-12);
  color: var(--attn-ink);
  background: var(--attn-tint);
  border-left: 3px solid var(--attn);
  padding: 3px 7px;
`;

interface FieldProps extends Omit<AriaTextFieldProps, 'children' | 'className' | 'style'> {
  readonly label: string;
  readonly hint?: string | undefined;
  /** What is wrong, in a sentence; the text stays. */
  readonly fault?: string | undefined;
  readonly placeholder?: string;
  /** Lines of a longer text; left out: one line. */
  readonly lines?: number;
}

export function Field({ label, hint, fault, placeholder, lines, ...rest }: FieldProps) {
  return (
    <FieldFrame isInvalid={fault !== undefined} {...rest}>
      <Label>{label}</Label>
      {lines === undefined ? (
        <Input placeholder={placeholder} />
      ) : (
        <TextArea rows={lines} placeholder={placeholder} />
      )}
      {hint && <Text slot="description">{hint}</Text>}
      <FieldFault>{fault}</FieldFault>
    </FieldFrame>
  );
}

/** A state in one or two words. Only `needs` is bright. */
export const Tag = styled.span<{ $look?: 'plain' | 'needs' | 'warn' | 'solid' | 'dash' }>`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  height: 18px;
  padding: 0 6px;
  border-radius: var(--r-1);
  border: 1px solid var(--line);
  font: 550 11px/16px var(--font-text);
  color: var(--ink-2);
  white-space: nowrap;
  background: var(--surface);
  ${({ $look }) => $look === 'needs' && 'background: var(--attn); border-color: var(--attn); color: var(--on-attn); font-weight: 650;'}
  ${({ $look }) => $look === 'warn' && 'background: var(--attn-tint); border-color: var(--attn-line); color: var(--attn-ink);'}
  ${({ $look }) => $look === 'solid' && 'background: var(--ink); border-color: var(--ink); color: var(--on-ink);'}
  ${({ $look }) => $look === 'dash' && 'border-style: dashed; border-color: var(--edge); background: none;'}
  ${({ $look }) => $look === 'plain' && 'border-color: transparent; background: var(--sunk);'}
`;

export const Key = styled.kbd`
  display: inline-block;
  min-width: 18px;
  height: 18px;
  padding: 0 4px;
  border: 1px solid currentColor;
  border-radius: var(--r-1);
  font: 600 11px/16px var(--font-mono);
  text-align: center;
`;
