'use client';

import { useTheme } from 'next-themes';

const MODES = { system: 'As the device', light: 'Light', dark: 'Dark' } as const;

/** Light, dark, or as the device says. */
export function ModeSwitch() {
  const { theme = 'system', setTheme } = useTheme();
  return (
    <fieldset className="modes" aria-label="Light or dark">
      {Object.entries(MODES).map(([mode, words]) => (
        <button
          key={mode}
          type="button"
          aria-pressed={mode === theme}
          onClick={() => setTheme(mode)}
          suppressHydrationWarning
        >
          {words}
        </button>
      ))}
    </fieldset>
  );
}
