import { Image } from '@chakra-ui/react';

/** A picture of a work order, small; pressed, it opens whole. */
export function KeptPhoto({ order, photo, words }: { order: string; photo: string; words: string }) {
  const address = `/api/v1/work-orders/${order}/photos/${photo}`;
  return (
    <a href={address} target="_blank" rel="noreferrer">
      <Image src={address} alt={words} title={words} h="48px" w="64px" objectFit="cover" />
    </a>
  );
}
