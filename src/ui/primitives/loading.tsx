import { Box, Skeleton } from '@chakra-ui/react';
import { TabTitle } from './page';

const LINES = [1, 2, 3, 4, 5, 6];

/** Holds the place of the head and some lines, so that nothing jumps when the page comes. */
export function Loading() {
  return (
    <Box role="status" aria-label="Loading">
      <TabTitle name="Loading" />
      <Skeleton h="26px" mb="4" w="220px" />
      {LINES.map((line) => (
        <Skeleton key={line} h="16px" mb="4" w="900px" maxW="100%" />
      ))}
    </Box>
  );
}
