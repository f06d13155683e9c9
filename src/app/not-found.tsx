import { Box } from '@chakra-ui/react';
import { TextLink } from '@/ui/primitives/links';
import { TabTitle } from '@/ui/primitives/page';

export default function NotFound() {
  return (
    <Box p="8">
      <TabTitle name="No such page" />
      There is no such page. <TextLink href="/due">To the due list</TextLink>
    </Box>
  );
}
