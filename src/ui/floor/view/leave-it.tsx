import { Box } from '@chakra-ui/react';
import { SAID_REASONS } from '@/core/components/history';
import type { FloorPlace } from '@/core/work/job-record';
import { isNewAt } from '@/core/work/order-model';
import { REMOVAL_WORDS } from '@/text/removal-words';
import type { Floor } from '../sync/use-floor';
import { text } from './hand';
import { NumberRead } from './number-read';
import { FieldHead, Press } from './parts';

/** What is seldom needed at a place: another reason why the old part came out, or that it stays as it was. Shut unless wanted. */
export function LeaveIt({ floor, place }: { floor: Floor; place: FloorPlace }) {
  const { job, record, set, edit } = floor;
  const fields = record[place.target] ?? {};
  const why = text(fields, 'leftWhy');
  const reason = SAID_REASONS.find((known) => known === fields.removalReason) ?? null;
  const told = [reason && REMOVAL_WORDS[reason], why && `left as it was: ${why}`].filter(Boolean).join('; ');
  if (fields.done === true && !told) return null;
  return (
    <Box as="details" mt="3">
      <summary>Why it came out, or left as it was{told ? `: ${told}` : ''}</summary>
      {isNewAt(job, record, place) && (
        <>
          <FieldHead name="Why the old one came out" known="where it is not as the task says" />
          <div className="press-row">
            {SAID_REASONS.map((known) => (
              <Press
                key={known}
                chosen={known === reason}
                onPress={() => set(place.target, 'removalReason', known === reason ? null : known)}
              >
                {REMOVAL_WORDS[known]}
              </Press>
            ))}
          </div>
        </>
      )}
      <NumberRead
        field="leftWhy"
        label="Left as it was, because"
        value={why}
        known="it counts as not done, and the order can be closed"
        offer={null}
        verdict={null}
        onChange={(value) => {
          edit(place.target, 'leftWhy');
          set(place.target, 'leftWhy', value);
        }}
      />
    </Box>
  );
}
