import { History } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Button, Popup, Small } from '../look/index.js';
import type { KeptDeal } from './keptDeals.js';

interface EarlierDealsProps {
  readonly deals: readonly KeptDeal[];
  readonly when: (at: string) => string;
  readonly onLook: (number: number) => void;
}

/** Deals that are kept and no longer at hand. */
export function EarlierDeals({ deals, when, onLook }: EarlierDealsProps) {
  return (
    <MenuTrigger>
      <Button kind="quiet" isSmall>
        <History size={14} aria-hidden="true" />
        Earlier {deals.length}
      </Button>
      <Popup>
        <Menu aria-label="Earlier deals" onAction={(number) => onLook(Number(number))}>
          {[...deals].reverse().map((deal) => (
            <MenuItem key={deal.number} id={deal.number}>
              Deal {deal.number} <Small>{`${when(deal.madeAt)}, seed ${deal.seed}`}</Small>
            </MenuItem>
          ))}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
