import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { styled } from 'styled-components';
import { Button } from './controls.js';

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: var(--z-panel);
  background: oklch(0.245 0.048 335 / 0.35);
  display: grid;
  place-items: center;
`;
const Box = styled(Modal)`
  width: min(560px, calc(100vw - 32px));
  max-height: calc(100vh - 48px);
  overflow: auto;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  padding: 16px 20px;
  [role='dialog'] {
    outline: 0;
  }
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 8px;
  }
  h2 {
    font: var(--h-22);
  }
  footer {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
    /* What is pressed stays in view, however long the sheet is. */
    position: sticky;
    bottom: -16px;
    z-index: var(--z-sticky);
    margin: 4px 0 -16px;
    padding: 12px 0 16px;
    background: var(--surface);
  }
`;

/** Something small that is done and then left. Escape or a press outside leaves it. */
export function Sheet({
  title,
  onClose,
  children,
}: {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Overlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Box>
        <Dialog>
          <header>
            <Heading slot="title" level={2}>
              {title}
            </Heading>
            <Button kind="quiet" isIconOnly aria-label="Close" onPress={onClose}>
              <X size={16} aria-hidden="true" />
            </Button>
          </header>
          {children}
        </Dialog>
      </Box>
    </Overlay>
  );
}
