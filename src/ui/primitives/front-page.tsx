import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { TabTitle } from './page';

const LINES = Array.from({ length: 17 }, (_, i) => i);

/** A page before anyone is signed in: pressure lines at the side, one form. */
export function FrontPage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box minH="100vh" display="grid" gridTemplateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 420px' }}>
      <Box display={{ base: 'none', md: 'block' }} overflow="hidden" color="isobar" position="relative">
        <svg width="100%" height="100%" viewBox="0 0 800 800" preserveAspectRatio="xMidYMid slice" aria-hidden="true">
          <g fill="none" stroke="currentColor">
            {LINES.map((i) => (
              <path
                key={i}
                strokeWidth={i % 4 === 0 ? 2 : 1}
                opacity={0.9 - i * 0.03}
                d={`M${-60 + i * 46} -20 C ${40 + i * 50} 260, ${140 + i * 58} 420, ${430 + i * 52} 560 S ${760 + i * 46} 760, ${860 + i * 46} 820`}
              />
            ))}
          </g>
        </svg>
      </Box>
      <Box as="main" bg="sheet" borderLeft="1px solid" borderColor="line" px={{ base: '5', md: '10' }} py="12">
        <Box fontWeight="700" fontSize="20px" mb="8">
          isobar
        </Box>
        <TabTitle name={title} />
        <Box as="h1" fontSize="22px" fontWeight="600" mb="4">
          {title}
        </Box>
        {children}
      </Box>
    </Box>
  );
}
