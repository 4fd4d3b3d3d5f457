import { Modal, type ModalProps } from '@mantine/core';
import { useEffect, useState, type ReactNode } from 'react';

export interface DialogProps {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly size?: ModalProps['size'];
  /** Only what is in it ends it: no way past by Escape or a click beside it. */
  readonly mustBeAnswered?: boolean;
}

/** Lies over the page as long as it is drawn; gives the focus back to where it was opened from. */
export function Dialog({ title, onClose, children, size = 'md', mustBeAnswered = false }: DialogProps) {
  const [openedFrom] = useState(() => document.activeElement);
  useEffect(
    () => () => {
      if (openedFrom instanceof HTMLElement && openedFrom.isConnected && openedFrom !== document.body)
        openedFrom.focus({ preventScroll: true });
    },
    [openedFrom],
  );
  return (
    <Modal
      opened
      onClose={onClose}
      title={title}
      centered
      size={size}
      returnFocus={false}
      withCloseButton={!mustBeAnswered}
      closeOnEscape={!mustBeAnswered}
      closeOnClickOutside={!mustBeAnswered}
      // A head of its own is no banner of the page.
      attributes={{ header: { role: 'none' } }}
      closeButtonProps={{ 'aria-label': `Close: ${title}` }}
    >
      {children}
    </Modal>
  );
}
