'use client';

import { Box } from '@chakra-ui/react';
import { Button } from './button';
import { TabTitle } from './page';
import { useReloadSoon } from './reload-soon';

/** What went wrong stays on the server; the person gets a way on. */
export function CouldNotLoad({ reset }: { reset: () => void }) {
  useReloadSoon();
  return (
    <Box role="alert" py="8" px="6" maxW="60ch">
      <TabTitle name="Not loaded" />
      <Box fontSize="22px" fontWeight="650">
        This page could not be loaded
      </Box>
      <Box my="3">
        Nothing was changed. The database may be restarting: this page is tried again by itself in a moment. If it stays
        so, the terminal that runs Isobar says why.
      </Box>
      <Button main onClick={reset}>
        Try again
      </Button>
    </Box>
  );
}
