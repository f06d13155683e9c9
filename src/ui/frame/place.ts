export interface Place {
  readonly href: string;
  readonly label: string;
  /** Where pages of this place stand besides under its own address. */
  readonly also?: string;
  /** What people call it besides. */
  readonly words?: string;
}

/** Places of one part of the work. */
export interface PlaceGroup {
  readonly label: string;
  readonly places: readonly Place[];
}

const isUnder = (path: string, root: string | undefined): boolean =>
  root !== undefined && (path === root || path.startsWith(`${root}/`));

/** The place that a page belongs to: the one with the longest address that the page's begins with. */
export function placeAt(places: readonly Place[], path: string): Place | null {
  const under = places.filter(({ href, also }) => isUnder(path, href) || isUnder(path, also));
  return under.reduce<Place | null>(
    (best, place) => (best && best.href.length >= place.href.length ? best : place),
    null,
  );
}

/** The group of the place that a page belongs to. */
export function groupAt(groups: readonly PlaceGroup[], path: string): PlaceGroup | null {
  const place = placeAt(
    groups.flatMap(({ places }) => places),
    path,
  );
  return groups.find(({ places }) => place !== null && places.includes(place)) ?? null;
}
