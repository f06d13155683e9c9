'use client';

import { CouldNotLoad } from '@/ui/primitives/could-not-load';

export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return <CouldNotLoad reset={reset} />;
}
