import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { styled } from 'styled-components';

const Row = styled(ToggleButtonGroup)`
  display: flex;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  overflow: hidden;
  background: var(--surface);
  button {
    border: 0;
    border-left: var(--hair);
    background: none;
    color: var(--ink);
    height: 30px;
    padding: 0 11px;
    font: 600 13px/1 var(--font-text);
    cursor: pointer;
    outline-offset: -3px;
  }
  button:first-child {
    border-left: 0;
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--on-ink);
  }
`;

interface SegmentsProps<Id extends string> {
  readonly label: string;
  readonly value: Id;
  readonly choices: readonly { readonly id: Id; readonly label: string }[];
  readonly onChange: (value: Id) => void;
}

/** A few views of the same thing side by side; one of them is always chosen. */
export function Segments<Id extends string>({ label, value, choices, onChange }: SegmentsProps<Id>) {
  return (
    <Row
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={(keys) => onChange([...keys][0] as Id)}
    >
      {choices.map((choice) => (
        <ToggleButton key={choice.id} id={choice.id}>
          {choice.label}
        </ToggleButton>
      ))}
    </Row>
  );
}
