import { Flex } from '@chakra-ui/react';
import { TextLink } from './links';

/** One of several, or all, each its own address: the one chosen stands in bold. */
export function LinkChoices({
  label,
  all,
  chosen,
  choices,
  to,
}: {
  label: string;
  /** What to call all of them. */
  all: string;
  chosen: string | undefined;
  /** Names, with what they are called. */
  choices: readonly (readonly [string, string])[];
  to: (name: string | undefined) => string;
}) {
  return (
    <Flex as="nav" aria-label={label} gap="4" wrap="wrap" mb="2" data-no-print>
      {[[undefined, all] as const, ...choices].map(([name, words]) =>
        name === chosen ? (
          <strong key={words}>{words}</strong>
        ) : (
          <TextLink key={words} href={to(name)}>
            {words}
          </TextLink>
        ),
      )}
    </Flex>
  );
}
