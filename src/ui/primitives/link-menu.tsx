'use client';

import { Menu, Portal } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import { Button } from './button';
import { PlainLink } from './links';

interface MenuLink {
  readonly href: string;
  readonly label: string;
  /** Saved as a file instead of opened. */
  readonly isFile?: boolean;
}

/** What else can be done with a page, behind one button. */
export const LinkMenu = ({ label, links }: { label: string; links: readonly MenuLink[] }) => (
  <Menu.Root positioning={{ placement: 'bottom-end' }}>
    <Menu.Trigger asChild>
      <Button>
        {label} <ChevronDown size={16} />
      </Button>
    </Menu.Trigger>
    <Portal>
      <Menu.Positioner>
        <Menu.Content>
          {links.map(({ href, label: words, isFile }) => (
            <Menu.Item key={href} value={href} asChild>
              <PlainLink href={href} download={isFile}>
                {words}
              </PlainLink>
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Portal>
  </Menu.Root>
);
