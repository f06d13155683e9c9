'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';

/** Asks for the page anew every now and then, while something is worked on elsewhere. */
export function LookAgain({ everyMs = 1500 }: { everyMs?: number }) {
  const router = useRouter();
  useEffect(() => {
    const timer = setInterval(() => router.refresh(), everyMs);
    return () => clearInterval(timer);
  }, [router, everyMs]);
  return null;
}
