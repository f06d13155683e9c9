import { Box } from '@chakra-ui/react';
import { cylinderText } from '@/core/engine/layout';
import { capital } from '@/core/shared/capital';
import { GATE_TABLE, PLACE_GATES, STAGE_WORDS } from '@/core/work/gate-table';
import { type Actor, may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { instantText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { liftGateAction } from '../actions';

const STATE_WORDS = { open: '✓ passed', shut: '○ shut', lifted: '! lifted' } as const;

/** The gates of the visit: what each waits for, and who lifted it why. */
export function GatesSection({ view, actor, live }: { view: WorkOrderView; actor: Actor; live: boolean }) {
  const { gates, lifts } = view;
  const ofPlaces = lifts.filter(({ target }) => target !== null);
  return (
    <Section id="gates" title="Gates" aside="nothing after a gate is taken before it is passed">
      <PlainTable heads={['Before', 'Gate', 'State', 'Waits for']}>
        {gates.map(({ gate, state, waits, lift }) => (
          <tr key={gate}>
            <td style={{ whiteSpace: 'nowrap' }}>{STAGE_WORDS[GATE_TABLE[gate].before]}</td>
            <td>
              <strong>{GATE_TABLE[gate].says}</strong>
            </td>
            <td style={{ whiteSpace: 'nowrap' }}>{STATE_WORDS[state]}</td>
            <td>{lift ? <LiftedBy lift={lift} /> : waits.join(' ')}</td>
          </tr>
        ))}
        {ofPlaces.map((lift) => (
          <tr key={`${lift.gate} ${lift.target}`}>
            <td>{STAGE_WORDS[GATE_TABLE[lift.gate].before]}</td>
            <td>
              <strong>{GATE_TABLE[lift.gate].says}</strong>, {lift.target}
            </td>
            <td style={{ whiteSpace: 'nowrap' }}>{STATE_WORDS.lifted}</td>
            <td>
              <LiftedBy lift={lift} />
            </td>
          </tr>
        ))}
      </PlainTable>
      {live && may(actor, 'lift gates') && <Lift view={view} />}
    </Section>
  );
}

const LiftedBy = ({ lift }: { lift: WorkOrderView['lifts'][number] }) => (
  <Box as="span" color="caution.ink">
    {lift.by}, {instantText(new Date(lift.at))}: {lift.reason}
  </Box>
);

/** For one visit, with a reason: for the whole of it, or for one place. */
function Lift({ view: { order, gates, tasks } }: { view: WorkOrderView }) {
  const shut = gates.filter(({ state }) => state === 'shut');
  const plugs = tasks.flatMap(({ row, places }) => (row.component === 'plug' ? places : []));
  const open = plugs.filter(({ state }) => state === 'open');
  if (shut.length === 0 && open.length === 0) return null;
  return (
    <Box as="details" mt="3" data-no-print>
      <summary>Lift a gate for this visit</summary>
      <Box maxW="480px" mt="2">
        {shut.length > 0 && (
          <Form input="liftGateForm" action={liftGateAction}>
            <input type="hidden" name="workOrderId" value={order.id} />
            <SelectField
              name="gate"
              label="Gate"
              choices={shut.map(({ gate }) => ({ value: gate, label: GATE_TABLE[gate].says }))}
            />
            <TextField name="reason" label="Why the work may go on without it" />
            <SubmitButton>Lift it</SubmitButton>
          </Form>
        )}
        {open.length > 0 && (
          <Form input="liftGateForm" action={liftGateAction}>
            <input type="hidden" name="workOrderId" value={order.id} />
            <SelectField
              name="gate"
              label="Gate of one place"
              choices={PLACE_GATES.map((gate) => ({ value: gate, label: GATE_TABLE[gate].says }))}
            />
            <SelectField
              name="target"
              label="Place"
              choices={open.map(({ target, name }) => ({ value: target, label: capital(cylinderText(name)) }))}
            />
            <TextField name="reason" label="What was decided for this place" />
            <SubmitButton>Lift it here</SubmitButton>
          </Form>
        )}
      </Box>
    </Box>
  );
}
