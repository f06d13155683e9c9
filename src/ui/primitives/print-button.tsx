'use client';

import { Button } from '@chakra-ui/react';

export function PrintButton() {
  return (
    <Button size="sm" rounded="sm" bg="action" color="onAction" onClick={() => window.print()}>
      Print
    </Button>
  );
}
