import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type ReceivingReason, SUSPICION_POINTS, SUSPICIOUS_FROM } from '@/core/stock/receiving';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listBans } from '@/server/stock/ban-seller';
import { listDeliveries } from '@/server/stock/resolve-delivery';
import { dateText, gapText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { CheckField, Chips } from '@/ui/primitives/choice-fields';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { banAction, liftAction, quarantineAction, receiveAction, resolveAction } from './actions';

type Delivery = Extract<Awaited<ReturnType<typeof listDeliveries>>, { ok: true }>['value'][number];

export default page(async function ReceivingPage() {
  const actor = await requireActor();
  const [list, bans] = await Promise.all([listDeliveries(deps(), actor), listBans(deps(), actor)]);
  mustShow(bans);
  mustShow(list);
  const quarantined = list.value.filter(({ delivery }) => delivery.verdict !== 'accepted' && !delivery.resolved);
  const rest = list.value.filter((row) => !quarantined.includes(row));
  return (
    <>
      <PageHead title="Receiving">
        <strong>{quarantined.length}</strong> in quarantine · only what is accepted goes on the shelf
      </PageHead>
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) 400px' }} columnGap="8">
        <Box minW="0">
          <Section title="In quarantine">
            {quarantined.length === 0 && <Empty>Nothing is quarantined.</Empty>}
            {quarantined.map((row) => (
              <Row key={row.delivery.id} row={row} system={actor.unitSystem}>
                {may(actor, 'resolve quarantined parts') && <Resolve row={row} />}
              </Row>
            ))}
          </Section>
          <Section title="Before">
            {rest.length === 0 && <Empty>Checked deliveries are listed here.</Empty>}
            {rest.map((row) => (
              <Row key={row.delivery.id} row={row} system={actor.unitSystem}>
                {row.delivery.verdict === 'accepted' && may(actor, 'resolve quarantined parts') && (
                  <Quarantine row={row} />
                )}
              </Row>
            ))}
          </Section>
          <Sellers bans={bans.value} manage={may(actor, 'ban sellers')} />
        </Box>
        {may(actor, 'receive parts') && <Receive />}
      </Grid>
    </>
  );
});

const VERDICTS = {
  accepted: 'Accepted',
  quarantined: 'Quarantined',
  back_to_supplier: 'Back to the supplier',
} as const;

function Row({
  row: { delivery, number, partId, who },
  system,
  children,
}: {
  row: Delivery;
  system: UnitSystem;
  children?: React.ReactNode;
}) {
  return (
    <Box borderBottom="1px solid" borderColor="hair" py="2">
      <Box>
        <strong>{VERDICTS[delivery.verdict]}</strong>
        {delivery.resolved && `, then ${delivery.resolved}: ${delivery.resolvedReason}`} · {delivery.quantity} ×{' '}
        <Code>{delivery.deliveredNumber}</Code>
        {delivery.setAside > 0 && `, ${delivery.setAside} of them set aside,`} for{' '}
        <TextLink href={`/parts/${partId}`}>
          <Code>{number}</Code>
        </TextLink>{' '}
        from {delivery.source}
      </Box>
      {delivery.suspicion > 0 && (
        <Box fontWeight={delivery.suspicion >= SUSPICIOUS_FROM ? '650' : '400'}>
          Signs of a counterfeit:{pointsText(delivery.suspicion)}, set aside from {SUSPICIOUS_FROM}
        </Box>
      )}
      {delivery.reasons.map((reason) => (
        <Box key={reason.code} color={delivery.verdict === 'accepted' ? 'ink' : 'wrong.ink'}>
          {reason.message}
          <Box as="span" color="soft">
            {pointsText(SUSPICION_POINTS[reason.code as ReceivingReason] ?? 0)}
          </Box>
        </Box>
      ))}
      <Box color="soft" fontSize="sm">
        {dateText(delivery.receivedOn)}
        {delivery.orderReference && `, order ${delivery.orderReference}`}
        {delivery.lot ? `, lot ${delivery.lot}` : ', no lot'}, checked by {who}
        {delivery.gapsMm.length > 0 && `, gaps ${delivery.gapsMm.map((gap) => gapText(gap, system)).join('; ')}`}
        {delivery.gapsMm.length > 0 && system === 'us' && ` (first ${gapText(delivery.gapsMm[0] ?? null, system)})`}
      </Box>
      {children}
    </Box>
  );
}

const pointsText = (points: number): string => (points === 0 ? '' : ` ${points} ${points === 1 ? 'point' : 'points'}`);

function Resolve({ row: { delivery } }: { row: Delivery }) {
  return (
    <Box mt="2" maxW="460px">
      <Form action={resolveAction} input="resolveDeliveryForm">
        <input type="hidden" name="deliveryId" value={delivery.id} />
        <input type="hidden" name="version" value={delivery.version} />
        <TextField
          name="reason"
          label={`What became of ${delivery.orderReference ?? delivery.deliveredNumber}, and why`}
        />
        <Box display="flex" gap="2">
          <SubmitButton name="resolved" value="returned">
            Returned to the supplier
          </SubmitButton>
          <SubmitButton name="resolved" value="accepted">
            Accept all the same
          </SubmitButton>
        </Box>
      </Form>
    </Box>
  );
}

function Quarantine({ row: { delivery } }: { row: Delivery }) {
  return (
    <details>
      <summary>Take this batch off the shelf</summary>
      <Box mt="2" maxW="460px">
        <Form action={quarantineAction} input="quarantineForm">
          <input type="hidden" name="deliveryId" value={delivery.id} />
          <input type="hidden" name="version" value={delivery.version} />
          <TextField name="reason" label="Why it is doubted now" />
          <SubmitButton>Quarantine what is still on the shelf</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}

type Ban = Extract<Awaited<ReturnType<typeof listBans>>, { ok: true }>['value'][number];

function Sellers({ bans, manage }: { bans: readonly Ban[]; manage: boolean }) {
  return (
    <Section title="Banned sellers" aside="what comes from them always goes into quarantine">
      {bans.length === 0 && <Box color="soft">None.</Box>}
      {bans.map(({ ban, who }) => (
        <Box key={ban.id} borderBottom="1px solid" borderColor="hair" py="2">
          <strong>{ban.name}</strong>: {ban.reason}{' '}
          <Box as="span" color="soft" fontSize="sm">
            since {dateText(ban.bannedOn)}, {who}
          </Box>
          {manage && (
            <PressForm action={liftAction}>
              <input type="hidden" name="banId" value={ban.id} />
              <SubmitButton>Lift the ban on {ban.name}</SubmitButton>
            </PressForm>
          )}
        </Box>
      ))}
      {manage && (
        <details>
          <summary>Ban a seller</summary>
          <Box mt="2" maxW="460px">
            <Form action={banAction} input="banForm">
              <TextField name="name" label="Seller, as on its delivery note" />
              <TextField name="reason" label="Why" />
              <SubmitButton>Ban</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
    </Section>
  );
}

function Receive() {
  return (
    <Section title="Check a delivery">
      <Form action={receiveAction} clears input="deliveryForm">
        <TextField name="orderedNumber" label="Number that was ordered" mono />
        <Grid templateColumns="1fr 1fr" columnGap="4">
          <TextField name="orderedQuantity" label="How many" inputMode="numeric" />
          <TextField name="orderReference" label="Order" placeholder="PO-317" />
        </Grid>
        <TextField name="deliveredNumber" label="Number on the box" mono />
        <Grid templateColumns="1fr 1fr" columnGap="4">
          <TextField name="quantity" label="Counted" inputMode="numeric" />
          <TextField name="lot" label="Lot" mono />
          <TextField name="source" label="Who sent it" />
          <TextField name="price" label="Price of one" inputMode="decimal" />
        </Grid>
        <TextField name="gaps" label="Gaps measured" hint="1.04 1.05 1.06" />
        <Chips
          name="differsFromSample"
          legend="What differs from the sample"
          many
          chosen={[]}
          choices={[
            { value: 'boot', label: 'Boot' },
            { value: 'core', label: 'Core' },
            { value: 'length', label: 'Length' },
            { value: 'marking', label: 'Marking' },
            { value: 'texture', label: 'Texture' },
          ]}
        />
        <CheckField name="again" label="Another box of an order and lot that were received before" />
        <SubmitButton main>Check the delivery</SubmitButton>
      </Form>
    </Section>
  );
}
