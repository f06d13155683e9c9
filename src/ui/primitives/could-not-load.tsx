'use client';

import { Box } from '@chakra-ui/react';
import { useReloadSoon } from './reload-soon';

/** What went wrong stays on the server; the person gets a way on. */
export function CouldNotLoad({ reset }: { reset: () => void }) {
  useReloadSoon();
  return (
    <Box role="alert" py="8" px="6" maxW="60ch">
      <Box fontSize="22px" fontWeight="650">
        This page could not be loaded
      </Box>
      <Box my="3">
        Nothing was changed. The database may be restarting: this page is tried again by itself in a moment. If it stays
        so, the terminal that runs Isobar says why.
      </Box>
      <button type="button" className="button" data-main onClick={reset}>
        Try again
      </button>
    </Box>
  );
}
