import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import '../../generated/isobar.css';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { Provider } from '@/ui/theme/provider';

export const metadata: Metadata = {
  description: 'Spark plug and ignition coil service for a mixed fleet',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Provider>{children}</Provider>
      </body>
    </html>
  );
}
