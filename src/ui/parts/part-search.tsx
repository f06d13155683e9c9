'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState, useTransition } from 'react';
import { Button } from '../primitives/button';
import { LiveText } from '../primitives/live-fields';
import { Scan } from './scan';

/** Type or scan any number: old, new, another maker's. */
export function PartSearch({ initial, initialUnit }: { initial: string; initialUnit: string }) {
  const router = useRouter();
  const [text, setText] = useState(initial);
  const [unit, setUnit] = useState(initialUnit);
  const [pending, startTransition] = useTransition();
  const look = (number: string) => {
    const query = new URLSearchParams({ number: number.trim(), ...(unit.trim() === '' ? {} : { unit: unit.trim() }) });
    startTransition(() => router.push(`/parts?${query}`));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() !== '') look(text);
  };
  return (
    <Box maxW="640px" mb="4">
      <form method="post" onSubmit={submit}>
        <Flex gap="3" align="end">
          <Box flex="1" mb="-12px">
            <LiveText
              label="Number on the part or its box"
              value={text}
              onChange={setText}
              mono
              placeholder="EM-7310"
            />
          </Box>
          <Box w="110px" mb="-12px">
            <LiveText label="For unit" hint="any" value={unit} onChange={setUnit} />
          </Box>
          <Button type="submit" main disabled={pending}>
            {pending ? 'Looking…' : 'What is it?'}
          </Button>
        </Flex>
      </form>
      <Box mt="3">
        <Scan
          onRead={(read) => {
            setText(read);
            look(read);
          }}
        />
      </Box>
    </Box>
  );
}
