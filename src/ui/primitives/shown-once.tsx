'use client';

import { Clipboard, QrCode } from '@chakra-ui/react';
import { Button } from './button';
import { TextControl } from './field-frame';

export interface Secret {
  readonly label: string;
  readonly text: string;
  /** An address that a phone opens: it is drawn as a code too. */
  readonly isForPhones?: boolean;
}

/** What only its hash is kept of: to be copied now, or read off the screen by a phone. */
export const ShownOnce = ({ label, text, isForPhones }: Secret) => (
  <Clipboard.Root value={text}>
    <Clipboard.Label>{label}: copy it now, it is shown this once</Clipboard.Label>
    <Clipboard.Control>
      <Clipboard.Input asChild>
        <TextControl mono readOnly />
      </Clipboard.Input>
      <Clipboard.Trigger asChild>
        <Button>
          <Clipboard.Indicator copied="Copied">Copy</Clipboard.Indicator>
        </Button>
      </Clipboard.Trigger>
    </Clipboard.Control>
    {isForPhones && (
      <QrCode.Root value={text} role="img" aria-label={`${label} as a code for phones`}>
        <QrCode.Frame>
          <QrCode.Pattern />
        </QrCode.Frame>
      </QrCode.Root>
    )}
  </Clipboard.Root>
);
