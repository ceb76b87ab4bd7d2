import { kinds } from '../kinds/index.js';
import { Button, Choice, Muted } from '../look/index.js';
import { stateWords } from './states.js';

type State = keyof typeof stateWords;
/** Which activities are wanted; null: any. */
interface Narrowed {
  readonly kind: string | null;
  readonly state: State | null;
  /** The name of a set or a saved audience that it goes to. */
  readonly to: string | null;
}
const any = 'any';

interface NarrowByProps {
  /** What there is of each; nothing else can be chosen. */
  readonly used: {
    readonly kinds: Iterable<string>;
    readonly states: readonly State[];
    readonly to: Iterable<string>;
  };
  readonly wanted: Narrowed;
  readonly onChange: (part: Partial<Narrowed>) => void;
}

/** Activities narrowed by their kind, their state and who they were released to. */
export function NarrowBy({ used, wanted, onChange }: NarrowByProps) {
  const usedKinds = new Set(used.kinds);
  const names = [...new Set(used.to)].toSorted((a, b) => a.localeCompare(b));
  return (
    <>
      <Choice
        label="Kind"
        isLabelHidden
        value={wanted.kind ?? any}
        choices={[
          { id: any, label: 'Every kind' },
          ...kinds
            .filter(({ name }) => usedKinds.has(name))
            .map(({ name, word }) => ({ id: name, label: word })),
        ]}
        onChange={(kind) => onChange({ kind: kind === any ? null : kind })}
      />
      <Choice
        label="State"
        isLabelHidden
        value={wanted.state ?? any}
        choices={[
          { id: any, label: 'Every state' },
          ...used.states.map((state) => ({ id: state, label: stateWords[state] })),
        ]}
        onChange={(state) => onChange({ state: state === any ? null : state })}
      />
      {names.length > 1 && (
        <Choice
          label="Released to"
          isLabelHidden
          value={wanted.to ?? any}
          choices={[{ id: any, label: 'To anyone' }, ...names.map((name) => ({ id: name, label: name }))]}
          onChange={(to) => onChange({ to: to === any ? null : to })}
        />
      )}
    </>
  );
}

interface HowManyProps {
  readonly shown: number;
  readonly of: number;
  readonly onAll: () => void;
}
/** How many of a narrowed list are shown, with the way back to all. */
export function HowMany({ shown, of, onAll }: HowManyProps) {
  return (
    <>
      <Muted role="status">
        {shown} of {of}
      </Muted>
      <Button kind="quiet" isSmall onPress={onAll}>
        Show all
      </Button>
    </>
  );
}
