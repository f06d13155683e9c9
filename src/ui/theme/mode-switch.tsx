'use client';

import { Button } from '@chakra-ui/react';
import { useTheme } from 'next-themes';

const NEXT = { system: 'light', light: 'dark', dark: 'system' } as const;

const MODE_WORDS = { system: 'Auto', light: 'Light', dark: 'Dark' } as const;

/** Light, dark, or as the device says. */
export function ModeSwitch() {
  const { theme = 'system', setTheme } = useTheme();
  const now = theme === 'light' || theme === 'dark' ? theme : 'system';
  return (
    <Button
      type="button"
      variant="plain"
      size="sm"
      px="1"
      color="soft"
      onClick={() => setTheme(NEXT[now])}
      title="Light, dark, or as the device says"
    >
      <span suppressHydrationWarning>{MODE_WORDS[now]}</span>
    </Button>
  );
}
