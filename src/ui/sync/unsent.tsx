import type { Link } from './outbox';

const LINK_WORDS: Readonly<Record<Link, string>> = {
  opening: 'Opening…',
  fresh: '',
  sending: 'sending…',
  cut: 'no connection',
  'signed-out': 'sign in again to send',
  'other-person': 'somebody else is signed in: sign in again to send yours',
  closed: 'the order is closed: nothing more is taken',
  unkept: 'This browser keeps nothing for Isobar: allow it to store data, or use another',
};

/** An answer that is on its way is no news; one that does not come is. */
const QUIET: readonly Link[] = ['opening', 'fresh', 'sending'];

interface Props {
  /** Entries and pictures that the server does not have yet. */
  readonly unsent: number;
  /** Of those, figures that cannot be right. */
  readonly unreadable?: number;
  /** Entries of other people on this device. */
  readonly ofOthers: number;
  readonly link: Link;
}

/** What the server does not have yet: always in sight. */
export function Unsent({ unsent, unreadable = 0, ofOthers, link }: Props) {
  // What is being typed waits until its field is left, and says nothing more than that it is here.
  const mend = unreadable > 0 ? `${unreadable} to be mended first` : '';
  const kept = [`${unsent} kept here`, LINK_WORDS[link] || mend].filter(Boolean).join(', ');
  const nothing = link === 'cut' ? 'No connection, nothing waits' : LINK_WORDS[link] || 'All sent';
  return (
    <div
      role="status"
      aria-label="Not yet sent"
      className="unsent"
      data-doubt={unsent > 0 || link !== 'fresh' || undefined}
      data-waiting={unsent > 0 || undefined}
      data-stuck={!QUIET.includes(link) || unreadable > 0 || undefined}
    >
      {unsent > 0 ? kept : nothing}
      {ofOthers > 0 && ` · ${ofOthers} of someone else wait for them to sign in`}
    </div>
  );
}
