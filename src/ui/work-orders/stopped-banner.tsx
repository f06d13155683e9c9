import { Box, Flex } from '@chakra-ui/react';
import { type Stop, stopText } from '@/core/work/stop';
import { instantText } from '@/text/format';
import { type FormAction, PressForm } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';

interface Props {
  readonly stops: readonly Stop[];
  readonly workOrderId: string;
  /** Null: who looks may not go on. */
  readonly goOn: FormAction | null;
}

/** A job that stands still says so: who stopped it, why, what whoever goes on should know, and how to go on. */
export const StoppedBanner = ({ stops, workOrderId, goOn }: Props) =>
  stops.map((stop) => (
    <Flex
      key={stop.id}
      role="status"
      my="3"
      px="4"
      py="3"
      gap="4"
      rounded="sm"
      bg="caution.bg"
      color="caution.ink"
      align="center"
      justify="space-between"
      wrap="wrap"
    >
      <Box>
        <strong>{stopText(stop)}</strong> {instantText(new Date(stop.at))}
        {stop.next && `. ${stop.next} goes on`}
        {stop.note && <Box>{stop.note}</Box>}
      </Box>
      {goOn && (
        <PressForm action={goOn} quiet>
          <input type="hidden" name="workOrderId" value={workOrderId} />
          <input type="hidden" name="waitId" value={stop.id} />
          <SubmitButton large>Go on</SubmitButton>
        </PressForm>
      )}
    </Flex>
  ));
