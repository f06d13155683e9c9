import { Box, Flex } from '@chakra-ui/react';
import { siteName } from '@/core/engine/layout';
import { sayPlaces } from '@/core/work/say-places';
import { type Actor, may } from '@/server/access';
import { stopsOf } from '@/server/findings/findings-of';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { CAUSE_WORDS } from '@/text/cause-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { releaseSiteAction, takeOverSheetAction } from '../actions';

/** What the removed parts say that stops the work: loud, until a supervisor has decided. */
export function Stops({ view: { findings, layout, order } }: { view: WorkOrderView }) {
  return stopsOf(findings).map(({ key, cause, sites, next }) => (
    <Box key={key} role="alert" mt="3" bg="wrong.bg" color="wrong.ink" px="4" py="3" rounded="sm">
      <strong>
        Stop at {sites.map((site) => siteName(layout, site)).join(', ')}: {CAUSE_WORDS[cause]}.
      </strong>{' '}
      {next[1]}{' '}
      <Box asChild textDecoration="underline">
        <a href={`/work-orders/${order.id}/findings`}>A supervisor has to decide</a>
      </Box>{' '}
      before the work goes on.
    </Box>
  ));
}

/** Another sheet is in force, and what was done under the one before. */
export function SheetChanged({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { sheetChanged, tasks, order } = view;
  const redo = tasks.flatMap(({ row, places }) =>
    places.filter((place) => place.redo).map(({ name, target }) => ({ name, target, component: row.component })),
  );
  if (!sheetChanged && redo.length === 0) return null;
  return (
    <Box mt="3" bg="caution.bg" color="caution.ink" px="4" py="3" rounded="sm" role="alert">
      {sheetChanged && (
        <>
          <strong>{sheetChanged}</strong> Places that are done stay done under the old one and come on the list to redo.
          {may(actor, 'record work') && (
            <PressForm action={takeOverSheetAction}>
              <input type="hidden" name="workOrderId" value={order.id} />
              <SubmitButton>Work by it from here on</SubmitButton>
            </PressForm>
          )}
        </>
      )}
      {redo.map((place) => (
        <Flex key={place.target} gap="4" wrap="wrap" align="flex-end" mt="2">
          <Box>
            To redo: <strong>{sayPlaces([place])}</strong>, done under another sheet
          </Box>
          {may(actor, 'release sites') && (
            <Form action={releaseSiteAction} quiet input="releaseSiteForm">
              <input type="hidden" name="workOrderId" value={order.id} />
              <input type="hidden" name="target" value={place.target} />
              <Flex gap="2" align="flex-end">
                <TextField name="reason" label="Why it may stay" />
                <SubmitButton>Release</SubmitButton>
              </Flex>
            </Form>
          )}
        </Flex>
      ))}
    </Box>
  );
}
