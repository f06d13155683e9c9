'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { ActionForm, type FormAction, SubmitButton, useFormState } from '../primitives/action-form';
import { SelectField } from '../primitives/fields';
import type { Choice } from '../primitives/options';

/** One or several CSV files at once; what each is, is told from its header. */
export function FileDrop({ action, kinds }: { action: FormAction; kinds: readonly Choice[] }) {
  return (
    <Box bg="sheet" border="1px dashed" borderColor="isobar" rounded="sm" p="4" mb="6">
      <ActionForm action={action}>
        <Flex gap="5" wrap="wrap" align="end">
          <FilePicker />
          <Box w="220px" mb="-12px">
            <SelectField
              name="kind"
              label="What they are"
              choices={[{ value: '', label: 'Recognise it by its header' }, ...kinds]}
            />
          </Box>
          <SubmitButton main>Check</SubmitButton>
        </Flex>
      </ActionForm>
    </Box>
  );
}

function FilePicker() {
  const fault = useFormState().fields.files;
  return (
    <chakra.label color="soft" fontSize="sm">
      CSV files (comma, semicolon or tab; km or mi)
      <chakra.input
        type="file"
        name="files"
        multiple
        accept=".csv,.txt,.tsv,text/csv"
        display="block"
        mt="1"
        color="ink"
        maxW="100%"
        aria-invalid={fault ? true : undefined}
      />
    </chakra.label>
  );
}
