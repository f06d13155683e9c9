import type { ReactNode } from 'react';

/** What a long page holds, by the id of its section; false where it does not stand on this one. */
type Contained = readonly [id: string, label: string] | false | null;

/** A long page with its own contents, which stays in sight: beside it where there is room, over it where there is not. */
export function WithContents({ of, children }: { of: readonly Contained[]; children: ReactNode }) {
  return (
    <div className="with-contents">
      <nav className="contents" aria-label="On this page" data-no-print>
        {of.map(
          (each) =>
            each && (
              <a key={each[0]} href={`#${each[0]}`}>
                {each[1]}
              </a>
            ),
        )}
      </nav>
      <div>{children}</div>
    </div>
  );
}
