import { Checkbox, CheckboxGroup, Radio, RadioGroup } from 'react-aria-components';
import { css, styled } from 'styled-components';

/** A rule said as a sentence, with its numbers in the line. */
export const Sentence = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 6px;
  line-height: 28px;
`;

const Figure = styled.input`
  width: 58px;
  height: 26px;
  padding: 0 8px;
  text-align: center;
  border: 1px solid var(--edge);
  border-radius: 5px;
  background: var(--surface);
  font-weight: 650;
`;

export function NumberInLine({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}) {
  return (
    <Figure
      aria-label={label}
      inputMode="numeric"
      value={value}
      onFocus={(event) => event.target.select()}
      onChange={(event) => onChange(Number(event.target.value.replace(/\D/g, '').slice(0, 5)))}
    />
  );
}

/** A decimal as it is typed; what counts is the caller's to say. */
export function DecimalInLine({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  return (
    <Figure
      aria-label={label}
      inputMode="decimal"
      value={value}
      onChange={(event) => onChange(event.target.value.replace(',', '.'))}
    />
  );
}

const cards = css`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 8px;
`;
const card = css`
  border: 1px solid var(--line);
  border-radius: var(--r-2);
  padding: 7px 12px 8px;
  cursor: pointer;
  &[data-selected] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  &[data-disabled] {
    color: var(--ink-3);
    cursor: not-allowed;
  }
  b {
    display: block;
    font-weight: 620;
  }
`;

/** One of a few ways, each with what it means. */
export const OptionCards = styled(RadioGroup)`
  ${cards}
`;
export const OptionCard = styled(Radio)`
  ${card}
`;

/** Some of a few, together. */
export const ToggleCards = styled(CheckboxGroup)`
  ${cards}
`;
export const ToggleCard = styled(Checkbox)`
  ${card}
  position: relative;
  /* A box to tick, since several can be chosen. */
  &::after {
    content: '';
    position: absolute;
    right: 10px;
    top: 10px;
    width: 13px;
    height: 13px;
    border: 1px solid var(--edge);
    border-radius: 3px;
  }
  &[data-selected]::after {
    border-color: var(--ink);
    background: var(--ink);
    box-shadow: inset 0 0 0 2px var(--surface);
  }
`;
