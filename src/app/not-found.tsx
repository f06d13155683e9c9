import { Box } from '@chakra-ui/react';
import { TextLink } from '@/ui/primitives/links';

export default function NotFound() {
  return (
    <Box p="8">
      There is no such page. <TextLink href="/due">To the due list</TextLink>
    </Box>
  );
}
