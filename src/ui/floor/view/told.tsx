import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Floor } from '../sync/use-floor';
import { fieldWords, placeOf } from './differences';
import { Press } from './parts';

/** What the server would not take, with the reason, and what it remarked on: nothing of it is lost until it has been seen. */
export function Told({ floor: { job, aside, told, forget, tryAgain } }: { floor: Floor }) {
  return (
    <>
      {aside.map(({ id, target, field, value, refusedWhy }) => (
        <Alert key={id}>
          <Box flex="1">
            <strong>
              {placeOf(job, target)}, {fieldWords(field)}
              {typeof value === 'string' && value !== '' && ` “${value}”`}: not taken.
            </strong>{' '}
            {refusedWhy}
          </Box>
          <Press onPress={() => tryAgain(id)}>Try again</Press>
          <Press onPress={() => forget(id)}>Drop it</Press>
        </Alert>
      ))}
      {told.map(({ id, message }) => (
        <Alert key={id}>
          <Box flex="1">{message}</Box>
          <Press onPress={() => forget(id)}>Seen</Press>
        </Alert>
      ))}
    </>
  );
}

const Alert = ({ children }: { children: ReactNode }) => (
  <Flex
    role="alert"
    bg="wrong.bg"
    color="wrong.ink"
    px="4"
    py="2"
    rounded="sm"
    mb="2"
    gap="3"
    align="center"
    wrap="wrap"
  >
    {children}
  </Flex>
);
