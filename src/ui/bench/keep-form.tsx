'use client';

import { Box } from '@chakra-ui/react';
import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import type { Kept } from './bench-data';

/** Keeps the result on screen with a work order, or by itself. */
export function KeepForm({ tool, kept, action }: { tool: string; kept: Kept; action: FormAction }) {
  if (kept.summary === null) return null;
  return (
    <Box mt="5" pt="3" borderTop="1px solid" borderColor="line" maxW="520px" data-no-print>
      <Form action={action} input="keepResultForm">
        <input type="hidden" name="tool" value={tool} />
        <input type="hidden" name="input" value={JSON.stringify(kept.input)} />
        <input type="hidden" name="summary" value={kept.summary} />
        <Box color="soft" fontSize="sm" mb="2">
          {kept.summary}
        </Box>
        <TextField
          name="workOrderNumber"
          label="Save it with work order"
          hint="empty: without one"
          inputMode="numeric"
        />
        <SubmitButton>Save this result</SubmitButton>
      </Form>
    </Box>
  );
}
