import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { page } from '@/app/shown-page';
import { ComplaintForm } from '@/ui/misfire/complaint-form';
import { PageHead } from '@/ui/primitives/page';
import { reportMisfireAction } from '../actions';

type Props = { searchParams: Promise<{ unit?: string; codes?: string }> };

export default page(async function ReportPage({ searchParams }: Props) {
  await requireActor();
  const { unit = '', codes = '' } = await searchParams;
  return (
    <Box maxW="560px">
      <PageHead title="Report a misfire">What the driver says, in a minute. The workshop narrows it down.</PageHead>
      <ComplaintForm action={reportMisfireAction} unit={unit} codes={codes} asksCodes />
    </Box>
  );
});
