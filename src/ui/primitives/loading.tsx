import { Box } from '@chakra-ui/react';

const LINES = [1, 2, 3, 4, 5, 6];

/** Holds the place of the head and some lines, so that nothing jumps when the page comes. */
export function Loading() {
  return (
    <Box role="status" aria-label="Loading">
      <Box h="26px" mb="4" w="220px" bg="hair" rounded="sm" />
      {LINES.map((line) => (
        <Box key={line} h="16px" mb="4" w="900px" maxW="100%" bg="hair" rounded="sm" />
      ))}
    </Box>
  );
}
