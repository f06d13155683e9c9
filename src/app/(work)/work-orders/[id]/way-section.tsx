import { Box } from '@chakra-ui/react';
import { type Actor, may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import type { WayChoice, WayView } from '@/server/work-orders/way-of';
import { SubmitButton } from '@/ui/primitives/button';
import { Chips } from '@/ui/primitives/choice-fields';

import { Form } from '@/ui/primitives/form';
import { Code, Section } from '@/ui/primitives/page';
import { chooseWayAction } from '../actions';

/** The way to the plugs: which method is taken, what it wants on the kit, and what was broken before anybody came. */
export function WaySection({ view, actor, live }: { view: WorkOrderView; actor: Actor; live: boolean }) {
  const { parts, choices, defects } = view.way;
  if (parts.length === 0 && choices.length === 0 && defects.length === 0) return null;
  return (
    <Section id="way" title="Access" aside="for the kit, before the day">
      <WayParts parts={parts} />
      {choices.map((choice) => (
        <Ways key={choice.usual.key} orderId={view.order.id} choice={choice} may={live && may(actor, 'record work')} />
      ))}
      {defects.map(({ step, title, says, part, photos }) => (
        <Box key={step} mt="2" color="caution.ink">
          <strong>Missing or broken on arrival:</strong> {says} ({title.split(':')[0]}).
          {part && (
            <>
              {' '}
              To order: {part.what} {part.number && <Code>{part.number}</Code>}.
            </>
          )}{' '}
          {photos.length > 0 && `${photos.length} ${photos.length === 1 ? 'picture' : 'pictures'}. `}
          Not charged to who found it.
        </Box>
      ))}
    </Section>
  );
}

const percent = (chance: number): string => `${Math.round(chance * 100)} %`;

function WayParts({ parts }: Pick<WayView, 'parts'>) {
  return (
    <ul>
      {parts.map(({ what, number, why, chance, item }) => (
        <li key={`${item} ${what}`}>
          {what} {number && <Code>{number}</Code>}{' '}
          <span className="soft">
            {why === 'seal_new' && `new with the ${item}`}
            {why === 'seal_if_sound' && `at hand: used again while pliable, proud of its groove and not cut (${item})`}
            {why === 'breaks' && `breaks in ${percent(chance)} of visits (${item})`}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Two ways to the same place, with what speaks for and against each. */
function Ways({ orderId, choice, may: mayChoose }: { orderId: string; choice: WayChoice; may: boolean }) {
  const ways = [choice.usual, ...choice.others];
  return (
    <Box mt="3">
      {ways.map(({ key, what, minutesOff, minutesOn, speaks }) => (
        <div key={key}>
          <strong>
            {key === choice.taken ? '✓ ' : ''}
            {what}
          </strong>
          , {minutesOff + minutesOn} min. <span className="soft">{speaks}</span>
        </div>
      ))}
      {mayChoose && (
        <Form action={chooseWayAction} quiet>
          <input type="hidden" name="workOrderId" value={orderId} />
          <input type="hidden" name="usual" value={choice.usual.key} />
          <Chips
            name="taken"
            legend="Access in use"
            choices={ways.map(({ key, what }) => ({ value: key, label: what }))}
            chosen={[choice.taken]}
          />
          <SubmitButton>Use this access</SubmitButton>
        </Form>
      )}
    </Box>
  );
}
