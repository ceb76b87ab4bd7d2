import { ArrowDown, ArrowUp } from 'lucide-react';
import { Button } from './controls.js';

interface ShiftsProps {
  /** Its place in the list, from 0, and how many there are. */
  readonly at: number;
  readonly count: number;
  /** What each press does, to those who hear it. */
  readonly up: string;
  readonly down: string;
  readonly isDisabled?: boolean;
  readonly onShift: (by: 1 | -1) => void;
}

/** Two presses that move one line of a list. */
export function Shifts({ at, count, up, down, isDisabled = false, onShift }: ShiftsProps) {
  return (
    <>
      <Button
        kind="quiet"
        isSmall
        isIconOnly
        isDisabled={isDisabled || at === 0}
        aria-label={up}
        onPress={() => onShift(-1)}
      >
        <ArrowUp size={14} aria-hidden="true" />
      </Button>
      <Button
        kind="quiet"
        isSmall
        isIconOnly
        isDisabled={isDisabled || at === count - 1}
        aria-label={down}
        onPress={() => onShift(1)}
      >
        <ArrowDown size={14} aria-hidden="true" />
      </Button>
    </>
  );
}
