import { Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { PAPER_SIZES } from '@/server/paper/pdf';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { ButtonLink } from '@/ui/primitives/links';
import { PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

type Props = { params: Promise<{ id: string }> };

const SHEETS = [
  ['job-card', 'Job card', 'Large type with room to write, for where no screen goes.'],
  ['pick-list', 'Pick list', 'Parts, what is used up, and tools with their sizes.'],
  ['tray-label', 'Tray label', 'Order of the removed plugs, with a code that leads back to their record.'],
  ['record', 'Service record', 'What was found, fitted and said, by cylinder; for the file or the next keeper.'],
] as const;

const SIZE_WORDS = { A4: 'A4', LETTER: 'Letter' } as const;

export default page(async function PaperPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, vehicle } = view.value;
  return (
    <>
      <PageHead
        title={`On paper: unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={<ButtonLink href={`/work-orders/${id}`}>Work order {order.number}</ButtonLink>}
      >
        As PDF, to print or to keep.
      </PageHead>
      <PlainTable heads={['Sheet', 'What it is', '']}>
        {SHEETS.map(([sheet, name, what]) => (
          <tr key={sheet}>
            <td>
              <strong>{name}</strong>
            </td>
            <td>{what}</td>
            <td>
              <Flex gap="2">
                {PAPER_SIZES.map((size) => (
                  <ButtonLink key={size} download href={`/work-orders/${id}/paper/${sheet}?size=${size}`}>
                    {name}, {SIZE_WORDS[size]}
                  </ButtonLink>
                ))}
              </Flex>
            </td>
          </tr>
        ))}
      </PlainTable>
    </>
  );
});
