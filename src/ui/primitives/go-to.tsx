'use client';

import { Box, chakra, Input } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import type { Place } from './top-bar';

const Dialog = chakra('dialog');
const Opener = chakra('button');

interface Target {
  readonly kind: string;
  readonly href: string;
  readonly label: string;
}

type Find = (text: string) => Promise<readonly Target[]>;

/** A pause in typing after which the server is asked, ms. */
const PAUSE = 120;
const MAX_PAGES = 8;

/** One box to go anywhere by keyboard: pages, vehicles, work orders, parts. Opened by Ctrl K. */
export function GoTo({ places, find }: { places: readonly Place[]; find: Find }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  useEffect(() => {
    if (open) dialog.current?.showModal();
  }, [open]);
  return (
    <>
      <Opener
        type="button"
        onClick={() => setOpen(true)}
        border="1px solid"
        borderColor="line"
        rounded="sm"
        px="2"
        minH="30px"
        color="soft"
        cursor="pointer"
        title="Go to a vehicle, order, part or page: Ctrl K"
        aria-keyshortcuts="Control+K"
      >
        Go to
      </Opener>
      <Dialog
        ref={dialog}
        onClose={() => setOpen(false)}
        aria-label="Go to"
        w="min(560px, 94vw)"
        mx="auto"
        mt="12vh"
        p="3"
        bg="sheet"
        color="ink"
        border="1px solid"
        borderColor="line"
        rounded="sm"
      >
        {open && <Finder places={places} find={find} close={() => dialog.current?.close()} />}
      </Dialog>
    </>
  );
}

/** What the server finds for a text, once typing pauses; of which text it is, so that an old answer is not shown. */
function useFound(text: string, find: Find) {
  const [found, setFound] = useState<{ readonly of: string; readonly targets: readonly Target[] }>({
    of: '',
    targets: [],
  });
  useEffect(() => {
    const asked = text.trim();
    if (asked === '') return;
    let current = true;
    const timer = setTimeout(() => {
      find(asked)
        .catch(() => [])
        .then((targets) => current && setFound({ of: asked, targets }));
    }, PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [text, find]);
  return found;
}

function Finder({ places, find, close }: { places: readonly Place[]; find: Find; close: () => void }) {
  const id = useId();
  const router = useRouter();
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const found = useFound(text, find);
  const asked = text.trim();
  const targets = [...pagesFor(places, asked), ...(asked !== '' && found.of === asked ? found.targets : [])];
  const chosen = Math.min(at, targets.length - 1);
  const go = (target: Target | undefined) => {
    if (!target) return;
    close();
    router.push(target.href);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      setAt((chosen + step + targets.length) % Math.max(1, targets.length));
    } else if (event.key === 'Enter') go(targets[chosen]);
  };
  return (
    <>
      <Input
        autoFocus
        role="combobox"
        aria-label="Unit, work order, part or page"
        aria-expanded={targets.length > 0}
        aria-controls={`${id}-list`}
        aria-activedescendant={targets.length > 0 ? `${id}-${chosen}` : undefined}
        placeholder="Unit, work order, part or page"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
        autoComplete="off"
        bg="paper"
      />
      <Box id={`${id}-list`} role="listbox" aria-label="Where to go" mt="2" maxH="56vh" overflowY="auto">
        {targets.map((target, i) => (
          <Box
            key={target.href}
            id={`${id}-${i}`}
            role="option"
            aria-selected={i === chosen}
            px="2"
            py="1.5"
            display="flex"
            gap="3"
            justifyContent="space-between"
            cursor="pointer"
            rounded="sm"
            bg={i === chosen ? 'tint' : undefined}
            onMouseMove={() => setAt(i)}
            onClick={() => go(target)}
          >
            <span>{target.label}</span>
            <Box as="span" color="soft" fontSize="sm">
              {target.kind}
            </Box>
          </Box>
        ))}
      </Box>
      <Box role="status" color="soft" fontSize="sm" px="2">
        {asked !== '' && found.of === asked && targets.length === 0 && 'Nothing has this in its number or name.'}
      </Box>
    </>
  );
}

function pagesFor(places: readonly Place[], asked: string): readonly Target[] {
  const words = asked.toLowerCase();
  return places
    .filter(({ label }) => label.toLowerCase().includes(words))
    .slice(0, asked === '' ? places.length : MAX_PAGES)
    .map((place) => ({ ...place, kind: 'page' }));
}
