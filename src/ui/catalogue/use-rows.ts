import { useEffect, useRef, useState } from 'react';
import type { ItemFields } from '@/core/engine/access-item-fields';

interface State {
  readonly rows: readonly ItemFields[];
  readonly at: number;
}
const MAX_UNDONE = 100;

/** Rows that are edited: which is in hand, and every change taken back one by one, with the keys that do it everywhere. */
export function useRows(first: readonly ItemFields[]) {
  const [state, setState] = useState<State>({ rows: first, at: 0 });
  const [past, setPast] = useState<readonly State[]>([]);
  /** Letters typed into one field one after the other are one change. */
  const typing = useRef<string | null>(null);
  const change = (rows: readonly ItemFields[], at: number, field: string | null = null) => {
    const same = field !== null && typing.current === `${at} ${field}`;
    typing.current = field === null ? null : `${at} ${field}`;
    if (!same) setPast((before) => [...before, state].slice(-MAX_UNDONE));
    setState({ rows, at });
  };
  const undo =
    past.length === 0
      ? null
      : () => {
          typing.current = null;
          setState(past.at(-1) ?? state);
          setPast(past.slice(0, -1));
        };
  const last = useRef(undo);
  last.current = undo;
  useEffect(() => {
    const byKeys = (event: KeyboardEvent) => {
      if (event.key !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || !last.current) return;
      event.preventDefault();
      last.current();
    };
    window.addEventListener('keydown', byKeys);
    return () => window.removeEventListener('keydown', byKeys);
  }, []);
  return {
    ...state,
    change,
    undo,
    setAt: (at: number) => setState({ ...state, at }),
    /** @param to where it goes, from 0; outside the list: nothing moves */
    move: (from: number, to: number) => {
      const row = state.rows[from];
      if (!row || to < 0 || to >= state.rows.length) return;
      change(state.rows.toSpliced(from, 1).toSpliced(to, 0, row), to);
    },
  };
}
