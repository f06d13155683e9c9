'use client';

import { Button } from './button';

export function PrintButton({ main = true }: { main?: boolean }) {
  return (
    <Button main={main} onClick={() => window.print()}>
      Print
    </Button>
  );
}
