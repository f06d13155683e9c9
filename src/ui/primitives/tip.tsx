'use client';

import { Portal, Tooltip } from '@chakra-ui/react';
import type { ReactElement, ReactNode } from 'react';

/** Says what a control does that shows no words, where the pointer or the keyboard is. */
export const Tip = ({ words, children }: { words: ReactNode; children: ReactElement }) => (
  <Tooltip.Root openDelay={300} closeDelay={0} positioning={{ placement: 'top' }}>
    <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
    <Portal>
      <Tooltip.Positioner>
        <Tooltip.Content>{words}</Tooltip.Content>
      </Tooltip.Positioner>
    </Portal>
  </Tooltip.Root>
);
