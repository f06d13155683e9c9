'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useId, useMemo, useState } from 'react';
import type { FloorJob } from '@/core/work/job-record';
import { KeptPhoto } from '../../primitives/kept-photo';
import type { WaitingPhoto } from '../sync/parts';

const MAX_PX = 1600;

/** A picture made small enough to be sent over a poor network: at most 1,600 pixels, JPEG. */
async function resized(file: File): Promise<Blob> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, MAX_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/jpeg', 0.8),
  );
}

/** Pictures of a site or step: from the camera or a file, kept on the device until they are sent. */
export function PhotoRow({
  target,
  job,
  waiting,
  onAdd,
}: {
  target: string;
  job: FloorJob;
  waiting: readonly WaitingPhoto[];
  onAdd: (target: string, blob: Blob) => void;
}) {
  const id = useId();
  const [fault, setFault] = useState<string | null>(null);
  const sent = job.photos.filter((photo) => photo.target === target);
  const mine = waiting.filter((photo) => photo.target === target && !sent.some((p) => p.id === photo.id));
  const before = job.photosBefore.filter((photo) => photo.target === target);
  const take = async (files: FileList | null) => {
    setFault(null);
    for (const file of files ?? [])
      await resized(file).then(
        (blob) => onAdd(target, blob),
        () => setFault(`${file.name} is no picture that this device can read.`),
      );
  };
  return (
    <Box mt="3">
      <Flex gap="2" wrap="wrap" align="center">
        <chakra.label
          htmlFor={id}
          display="inline-flex"
          alignItems="center"
          minH="48px"
          px="3"
          rounded="sm"
          border="1px solid"
          borderColor="line"
          bg="sheet"
          fontSize="17px"
          cursor="pointer"
          css={{ '&:focus-within': { outline: '2px solid', outlineColor: 'action' } }}
        >
          Take a picture
          <chakra.input
            id={id}
            type="file"
            accept="image/*"
            capture="environment"
            position="absolute"
            opacity="0"
            w="1px"
            h="1px"
            onChange={(event) => {
              void take(event.target.files);
              event.target.value = '';
            }}
          />
        </chakra.label>
        {sent.map(({ id: photo, by }) => (
          <KeptPhoto key={photo} order={job.orderId} photo={photo} words={`Taken by ${by}`} />
        ))}
        {mine.map((photo) => (
          <Unsent key={photo.id} photo={photo} />
        ))}
        {before.length > 0 && <span className="aside">before:</span>}
        {before.map(({ id: photo, orderId, on }) => (
          <KeptPhoto key={photo} order={orderId} photo={photo} words={`The plug before it, ${on}`} />
        ))}
      </Flex>
      {fault && (
        <Box role="alert" color="wrong.ink" mt="1">
          {fault}
        </Box>
      )}
    </Box>
  );
}

function Unsent({ photo }: { photo: WaitingPhoto }) {
  const url = useMemo(() => URL.createObjectURL(photo.blob), [photo.blob]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  return (
    // biome-ignore lint/performance/noImgElement: it lies on the device, there is nothing to make smaller
    <img
      src={url}
      alt="Not sent yet"
      height={48}
      width={64}
      style={{ height: 48, width: 64, objectFit: 'cover', opacity: 0.6 }}
    />
  );
}
