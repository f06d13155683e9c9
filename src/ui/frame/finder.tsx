'use client';

import { createListCollection, Dialog, Listbox, Portal } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { Place } from './place';

export interface Target {
  readonly kind: string;
  readonly href: string;
  readonly label: string;
}

export type Find = (text: string) => Promise<readonly Target[]>;

/** A pause in typing after which the server is asked, ms. */
const PAUSE = 120;
const MAX_PAGES = 8;

interface Props {
  readonly places: readonly Place[];
  readonly find: Find;
  readonly onClose: () => void;
}

/** Pages, vehicles, work orders and parts by what is typed. Loaded when the box is opened for the first time. */
export function Finder({ places, find, onClose }: Props) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [at, setAt] = useState<string | null>(null);
  const answer = useFound(text, find);
  const asked = text.trim();
  const isAnswered = asked !== '' && answer.asked === asked;
  const collection = useMemo(
    () =>
      createListCollection({
        items: [...pagesFor(places, asked), ...(isAnswered ? answer.targets : [])],
        itemToValue: ({ href }) => href,
        itemToString: ({ label }) => label,
      }),
    [places, asked, isAnswered, answer],
  );
  // The first, unless another one was chosen that is still there.
  const chosen = at !== null && collection.has(at) ? at : collection.firstValue;
  const go = (href: string | undefined) => {
    if (!href) return;
    onClose();
    router.push(href);
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => open || onClose()} placement="top">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content aria-label="Go to">
            <Listbox.Root
              collection={collection}
              highlightedValue={chosen}
              onHighlightChange={({ highlightedValue }) => setAt(highlightedValue)}
              onValueChange={({ value }) => go(value[0])}
              loopFocus
            >
              <Listbox.Input
                className="field"
                role="combobox"
                aria-expanded={collection.size > 0}
                aria-label="Unit, work order, part or page"
                placeholder="Unit, work order, part or page"
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
              <Listbox.Content>
                {collection.items.map((target) => (
                  <Listbox.Item key={target.href} item={target}>
                    <span>{target.label}</span>
                    <span className="soft small">{target.kind}</span>
                  </Listbox.Item>
                ))}
              </Listbox.Content>
            </Listbox.Root>
            <div role="status" className="soft small">
              {isAnswered && collection.items.length === 0 && 'Nothing has this in its number or name.'}
            </div>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** What the server finds for a text, once typing pauses; with the text, so that an old answer is not shown. */
function useFound(text: string, find: Find) {
  const [found, setFound] = useState<{ readonly asked: string; readonly targets: readonly Target[] }>({
    asked: '',
    targets: [],
  });
  useEffect(() => {
    const asked = text.trim();
    if (asked === '') return;
    let current = true;
    const timer = setTimeout(() => {
      find(asked)
        .catch(() => [])
        .then((targets) => current && setFound({ asked, targets }));
    }, PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [text, find]);
  return found;
}

function pagesFor(places: readonly Place[], asked: string): readonly Target[] {
  const words = asked.toLowerCase();
  return places
    .filter(({ label, words: others = '' }) => `${label} ${others}`.toLowerCase().includes(words))
    .slice(0, asked === '' ? places.length : MAX_PAGES)
    .map((place) => ({ ...place, kind: 'page' }));
}
