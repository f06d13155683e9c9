import type { NextConfig } from 'next';

const headers = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['pg', 'better-auth', 'pdfmake'],
  experimental: { optimizePackageImports: ['@chakra-ui/react'], serverActions: { bodySizeLimit: '33mb' } },
  headers: async () => [{ source: '/:path*', headers }],
  // npm test checks the types.
  typescript: { ignoreBuildErrors: true },
  // A browser asks for this one by itself where a page is left before its head has come.
  rewrites: async () => [{ source: '/favicon.ico', destination: '/icon.svg' }],
};

export default config;
