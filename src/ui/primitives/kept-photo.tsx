/** A picture of a work order, small; pressed, it opens whole. */
export function KeptPhoto({ order, photo, words }: { order: string; photo: string; words: string }) {
  const address = `/api/v1/work-orders/${order}/photos/${photo}`;
  return (
    <a href={address} target="_blank" rel="noreferrer">
      {/* biome-ignore lint/performance/noImgElement: kept small already, and shown to those signed in alone */}
      <img src={address} alt={words} title={words} style={{ height: 48, width: 64, objectFit: 'cover' }} />
    </a>
  );
}
