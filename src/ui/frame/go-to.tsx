'use client';

import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import type { Place } from './place';

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
      <button
        type="button"
        className="top-find"
        onClick={() => setOpen(true)}
        title="Go to a vehicle, order, part or page: Ctrl K"
        aria-keyshortcuts="Control+K"
      >
        Go to
      </button>
      <dialog ref={dialog} className="finder" onClose={() => setOpen(false)} aria-label="Go to">
        {open && <Finder places={places} find={find} close={() => dialog.current?.close()} />}
      </dialog>
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
      <input
        // biome-ignore lint/a11y/noAutofocus: the box was opened to type in
        autoFocus
        className="field"
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
      />
      <div id={`${id}-list`} role="listbox" aria-label="Where to go" className="finder-list">
        {targets.map((target, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the box above hears the keys
          <div
            key={target.href}
            id={`${id}-${i}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === chosen}
            onMouseMove={() => setAt(i)}
            onClick={() => go(target)}
          >
            <span>{target.label}</span>
            <span className="soft small">{target.kind}</span>
          </div>
        ))}
      </div>
      <div role="status" className="soft small">
        {asked !== '' && found.of === asked && targets.length === 0 && 'Nothing has this in its number or name.'}
      </div>
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
