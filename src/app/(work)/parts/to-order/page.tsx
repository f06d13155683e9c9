import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import type { NeedWhy } from '@/core/stock/to-order';
import { deps } from '@/server/deps';
import { type LineToOrder, listToOrder, ORDER_WEEKS, USUAL_ORDER_WEEKS } from '@/server/stock/list-to-order';
import { dateText, moneyText, NONE } from '@/text/format';
import { LinkChoices } from '@/ui/primitives/link-choices';
import { TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { PrintButton } from '@/ui/primitives/print-button';

type Props = { searchParams: Promise<{ weeks?: string }> };

const WHY_WORDS: Readonly<Record<NeedWhy, string>> = {
  waits: 'a job waits for it',
  found_broken: 'found broken on arrival',
  new_seal: 'always new',
  likely_to_break: 'likely to break',
  falls_due: 'falls due',
};

export default page(async function ToOrderPage({ searchParams }: Props) {
  const asked = Number((await searchParams).weeks);
  const weeks = ORDER_WEEKS.find((choice) => choice === asked) ?? USUAL_ORDER_WEEKS;
  const list = await listToOrder(deps(), await requireActor(), { weeks });
  mustShow(list);
  const { currency } = list.value;
  const lines = list.value.lines.filter(({ quantity }) => quantity > 0);
  const enough = list.value.lines.filter(({ quantity }) => quantity === 0);
  const cost = lines.reduce((sum, { quantity, price }) => sum + quantity * (price ?? 0), 0);
  const unpriced = lines.filter(({ price }) => price === null).length;
  return (
    <>
      <PageHead title="To order" actions={lines.length > 0 && <PrintButton />}>
        <strong>{lines.length}</strong> parts, {moneyText(cost, currency)}
        {unpriced > 0 && ` without ${unpriced} that ${unpriced === 1 ? 'has' : 'have'} no price`} · for stopped jobs,
        open orders and work that falls due within {weeks} weeks
      </PageHead>
      <LinkChoices
        label="How far ahead"
        all={`${USUAL_ORDER_WEEKS} weeks ahead`}
        chosen={weeks === USUAL_ORDER_WEEKS ? undefined : String(weeks)}
        choices={ORDER_WEEKS.filter((choice) => choice !== USUAL_ORDER_WEEKS).map((choice) => [
          String(choice),
          `${choice} weeks`,
        ])}
        to={(choice) => `/parts/to-order${choice ? `?weeks=${choice}` : ''}`}
      />
      {lines.length === 0 && (
        <Empty>Nothing to order: no job waits for a part, and the shelf has enough for what falls due.</Empty>
      )}
      <ListTable
        items={lines}
        idOf={({ number }) => number}
        columns={columnsIn(currency, deps().today())}
        noun="parts to order"
      />
      {enough.length > 0 && (
        <Section title="Enough on the shelf" aside="wanted within the same weeks">
          <Box color="soft">
            {enough.map(({ number, needed, onHand }, i) => (
              <span key={number}>
                {i > 0 && ' · '}
                <PartLink number={number} /> {needed} of {onHand}
              </span>
            ))}
          </Box>
        </Section>
      )}
    </>
  );
});

const PartLink = ({ number }: { number: string }) => (
  <TextLink href={`/parts?number=${encodeURIComponent(number)}`}>
    <Code>{number}</Code>
  </TextLink>
);

const columnsIn = (currency: string, today: string): readonly Column<LineToOrder>[] => [
  {
    head: 'Order by',
    value: ({ orderBy }) => orderBy,
    cell: ({ orderBy }) => (
      <span className="nowrap">{orderBy === today ? <strong>today</strong> : dateText(orderBy ?? today)}</span>
    ),
  },
  { head: 'Part', value: ({ number }) => number, cell: ({ number }) => <PartLink number={number} /> },
  { head: 'What', value: ({ what }) => what },
  {
    head: 'Order',
    value: ({ quantity }) => quantity,
    cell: ({ quantity }) => <strong>{quantity}</strong>,
    numeric: true,
  },
  { head: 'Pack', value: ({ packSize }) => packSize, numeric: true },
  { head: 'Needed', value: ({ needed }) => needed, numeric: true },
  { head: 'On hand', value: ({ onHand }) => onHand, numeric: true },
  {
    head: 'Each',
    value: ({ price }) => price,
    cell: ({ price }) => (price === null ? NONE : `${price.toFixed(2)} ${currency}`),
    numeric: true,
  },
  {
    head: 'Cost',
    value: ({ price, quantity }) => (price === null ? null : price * quantity),
    cell: ({ price, quantity }) => (price === null ? NONE : moneyText(price * quantity, currency)),
    numeric: true,
  },
  {
    head: 'Lead',
    value: ({ leadDays }) => leadDays,
    cell: ({ leadDays }) => (leadDays === null ? NONE : `${leadDays} days`),
    numeric: true,
  },
  { head: 'From', value: ({ maker, sources }) => (sources.length > 0 ? sources.join(', ') : maker) },
  {
    head: 'Why',
    value: ({ whys, orders }) => [...whys.map((why) => WHY_WORDS[why]), ...orders].join(', '),
    cell: ({ whys, orders }) =>
      `${whys.map((why) => WHY_WORDS[why]).join(', ')}${orders.length > 0 ? `: order ${orders.join(', ')}` : ''}`,
  },
];
