import { useRef } from 'react';
import type { ReactNode } from 'react';
import { Menu, MenuItem, SubmenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { Key } from './controls.js';
import { Popup } from './Popup.js';

/** Where a menu was asked for, in the window. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

export interface MenuAct {
  readonly label: ReactNode;
  /** For finding it by typing. */
  readonly text: string;
  /** The key that does the same without the menu. */
  readonly keys?: string;
  readonly does?: () => void;
  readonly isDisabled?: boolean;
  /** Instead of `does`: what opens beside it. */
  readonly choices?: readonly MenuAct[];
}

const List = styled(Menu<object>)`
  min-width: 200px;
  [role='menuitem'] {
    grid-template-columns: 1fr auto;
    align-items: center;
    gap: 16px;
  }
  [role='menuitem'] > span {
    display: flex;
    align-items: center;
    gap: 8px;
  }
`;

/** Readers hear it as the menu's name. */
const Title = styled.p`
  padding: 4px 10px 6px;
  font: 600 12px/16px var(--font-text);
  color: var(--ink-2);
`;

interface ContextMenuProps {
  readonly title: string;
  readonly at: Spot;
  readonly acts: readonly MenuAct[];
  readonly onClose: () => void;
}

/** What can be done with something, where it was pressed with the second button or the menu key. */
export function ContextMenu({ title, at, acts, onClose }: ContextMenuProps) {
  const anchor = useRef<HTMLSpanElement>(null);
  return (
    <>
      <span
        ref={anchor}
        style={{ position: 'fixed', left: at.x, top: at.y, width: 1, height: 1, pointerEvents: 'none' }}
      />
      <Popup
        triggerRef={anchor}
        isOpen
        onOpenChange={(isOpen) => !isOpen && onClose()}
        placement="bottom start"
        aria-label={title}
      >
        <Title aria-hidden="true">{title}</Title>
        <Acts title={title} acts={acts} onClose={onClose} />
      </Popup>
    </>
  );
}

function Acts({
  title,
  acts,
  onClose,
}: {
  readonly title: string;
  readonly acts: readonly MenuAct[];
  readonly onClose: () => void;
}) {
  return (
    <List aria-label={title} autoFocus="first" onClose={onClose}>
      {acts.map((act, at) => {
        const id = `${at} ${act.text}`; // two groups may have one name
        const item = (
          <MenuItem
            key={id}
            id={id}
            textValue={act.text}
            isDisabled={act.isDisabled ?? false}
            {...(act.does && { onAction: act.does })}
          >
            <span>{act.label}</span>
            {act.keys ? <Key>{act.keys}</Key> : act.choices ? <span aria-hidden="true">›</span> : null}
          </MenuItem>
        );
        return act.choices ? (
          <SubmenuTrigger key={id}>
            {item}
            <Popup>
              <Acts title={act.text} acts={act.choices} onClose={onClose} />
            </Popup>
          </SubmenuTrigger>
        ) : (
          item
        );
      })}
    </List>
  );
}
