import { Dialog, DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { Deal, Outcome } from '@jigsaw/core/dealing';
import { Button, Popup } from '../look/index.js';
import { sayLimit, sayProof } from './sayDeal.js';

const Inside = styled(Dialog)`
  width: 340px;
  padding: 10px 12px;
  outline: none;
  ol {
    margin: 8px 0;
    padding-left: 20px;
    list-style: decimal;
  }
`;

interface ProofProps {
  readonly worth: Deal;
  readonly outcomes: readonly Outcome[];
}

/** How near the deal and each rule came to what is proven to be the limit. */
export function Proof({ worth, outcomes }: ProofProps) {
  return (
    <DialogTrigger>
      <Button kind="quiet" isSmall>
        Proof…
      </Button>
      <Popup placement="top start">
        <Inside aria-label="Proof">
          <p>{sayProof(worth)}</p>
          <ol>
            {outcomes.map((outcome, at) => (
              <li key={at}>
                {outcome.says}: {sayLimit(outcome)}
              </li>
            ))}
          </ol>
        </Inside>
      </Popup>
    </DialogTrigger>
  );
}
