import { Box, Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { sayCode } from '@/core/engine/fault-code';
import { isLive } from '@/core/work/order-state';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { instantText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { ButtonLink } from '@/ui/primitives/links';
import { Caution, Code, PageHead, Section } from '@/ui/primitives/page';
import { clearCodesAction, keepCodesAction } from '../../actions';

type Props = { params: Promise<{ id: string }> };

const MOMENTS = [
  ['before', 'Before the work'],
  ['after', 'After the work'],
] as const;

export default page(async function CodesPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, vehicle, codes, hasCodeReader, layout } = view.value;
  // One of the two is what comes next, and looks it.
  const awaited = MOMENTS.find(([moment]) => !codes.some((row) => row.moment === moment))?.[0];
  const misfireCodes = [...new Set(codes.flatMap((row) => row.codes.map(({ code }) => code)))].filter((code) =>
    code.startsWith('P03'),
  );
  const live = isLive(order) && may(actor, 'record work');
  return (
    <>
      <PageHead
        title={`Codes, unit ${vehicle.unitNumber} ${vehicle.name}`}
        trail={[
          ['Work orders', '/work-orders'],
          [`Work order ${order.number}`, `/work-orders/${id}`],
        ]}
        actions={
          <>
            {misfireCodes.length > 0 && (
              <ButtonLink
                href={`/misfires/report?${new URLSearchParams({ unit: vehicle.unitNumber, codes: misfireCodes.join(' ') })}`}
              >
                Narrow the misfire down
              </ButtonLink>
            )}
            <ButtonLink href={`/work-orders/${id}/floor#steps`}>At the vehicle</ButtonLink>
            <ButtonLink href={`/work-orders/${id}`}>Work order {order.number}</ButtonLink>
          </>
        }
      >
        Read and kept first, cleared after: what was there before is the only proof of what the work changed.
      </PageHead>
      <Caution>
        {hasCodeReader && 'A stand-in plays the code reader here: its codes are demo data. '}A flashing engine lamp: do
        not drive, a misfire ruins the catalyst.
      </Caution>
      {MOMENTS.map(([moment, title]) => {
        const read = codes.filter((row) => row.moment === moment);
        return (
          <Box key={moment} mt="5">
            <Section title={title}>
              {read.map((row) => (
                <Box key={row.id} mb="3">
                  <Box color="soft" fontSize="sm">
                    {instantText(row.readAt)}, {row.source}
                    {row.clearedAt && `; cleared ${instantText(row.clearedAt)}`}
                  </Box>
                  {row.codes.length === 0 && <strong>None stored</strong>}
                  {row.codes.map(({ code, freeze }) => (
                    <Box key={code}>
                      <strong>
                        <Code>{code}</Code>
                      </strong>{' '}
                      {sayCode(layout, code) && <span>{sayCode(layout, code)} </span>}
                      {Object.entries(freeze)
                        .map(([name, value]) => `${name} ${value}`)
                        .join(' · ')}
                    </Box>
                  ))}
                </Box>
              ))}
              {live && (
                <Flex gap="4" wrap="wrap" align="flex-end">
                  {hasCodeReader && (
                    <PressForm action={keepCodesAction} quiet>
                      <input type="hidden" name="workOrderId" value={id} />
                      <input type="hidden" name="moment" value={moment} />
                      <SubmitButton main={moment === awaited} large>
                        Read with the code reader and save
                      </SubmitButton>
                    </PressForm>
                  )}
                  <details open={!hasCodeReader}>
                    <summary>{hasCodeReader ? 'Type them instead' : 'Type the codes'}</summary>
                    <Form action={keepCodesAction} quiet>
                      <input type="hidden" name="workOrderId" value={id} />
                      <input type="hidden" name="moment" value={moment} />
                      <TextField name="typed" label="Codes, or none" hint="as P0301 P0171" mono />
                      <SubmitButton>Save</SubmitButton>
                    </Form>
                  </details>
                </Flex>
              )}
            </Section>
          </Box>
        );
      })}
      {live && codes.some((row) => row.clearedAt === null && row.codes.length > 0) && (
        <PressForm action={clearCodesAction} quiet>
          <input type="hidden" name="workOrderId" value={id} />
          <SubmitButton>Clear what was read last: it stays on record here</SubmitButton>
        </PressForm>
      )}
    </>
  );
});
