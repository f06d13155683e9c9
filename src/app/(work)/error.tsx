'use client';

import { Box, Button } from '@chakra-ui/react';

/** What went wrong stays on the server; the person gets a way on. */
export default function WorkError({ reset }: { error: Error; reset: () => void }) {
  return (
    <Box role="alert" py="8" maxW="60ch">
      <Box fontSize="22px" fontWeight="650">
        This page could not be loaded
      </Box>
      <Box my="3">
        Nothing was changed. The database may be restarting; try again in a moment. If it stays so, the terminal that
        runs Isobar says why.
      </Box>
      <Button onClick={reset} size="sm" bg="action" color="onAction" rounded="sm">
        Try again
      </Button>
    </Box>
  );
}
