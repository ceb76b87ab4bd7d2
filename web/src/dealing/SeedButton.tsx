import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import { Button, Field, Popup, Small } from '../look/index.js';

/** The way back to a deal that someone wrote down, or that was discarded. */
export function SeedButton({
  isDisabled,
  onDeal,
}: {
  readonly isDisabled: boolean;
  readonly onDeal: (seed: number) => void;
}) {
  const [seed, setSeed] = useState('');
  return (
    <DialogTrigger>
      <Button kind="quiet" isDisabled={isDisabled}>
        Seed…
      </Button>
      <Popup placement="top">
        <Dialog aria-label="Deal with a seed" style={{ padding: 8, width: 250, outline: 'none' }}>
          {({ close }) => (
            <form
              style={{ display: 'grid', gap: 8 }}
              onSubmit={(event) => {
                event.preventDefault();
                close();
                onDeal(Number(seed));
                setSeed('');
              }}
            >
              <Field
                label="Seed"
                inputMode="numeric"
                value={seed}
                onChange={(text) => setSeed(text.replace(/\D/g, '').slice(0, 9))}
              />
              <Small>The same seed gives the same deal for the same class, rules and pins.</Small>
              <Button type="submit" kind="main" isDisabled={seed === ''}>
                Deal with this seed
              </Button>
            </form>
          )}
        </Dialog>
      </Popup>
    </DialogTrigger>
  );
}
