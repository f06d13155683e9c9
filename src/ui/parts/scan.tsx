'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';

const NO_CODE =
  'No code was found in this picture. Hold the camera closer and straight, with light from the side, or type the number.';
const NO_CAMERA = 'The camera could not be used. Allow it in the browser, choose a photo, or type the number.';

/** Reads a QR or bar code from a photo or the camera. Typing always works: this only fills in what was read. */
export function Scan({ onRead }: { onRead: (text: string) => void }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [live, setLive] = useState(false);
  const fromPhoto = async (file: File | undefined) => {
    if (!file) return;
    setTrouble(null);
    const text = await readPhoto(file);
    if (text === null) setTrouble(NO_CODE);
    else onRead(text);
  };
  return (
    <Box>
      <Flex gap="3" wrap="wrap" align="center" fontSize="sm">
        <chakra.label cursor="pointer" color="action" textDecoration="underline" textUnderlineOffset="3px" py="2">
          Read a code from a photo
          <chakra.input
            type="file"
            accept="image/*"
            capture="environment"
            srOnly
            onChange={(event) => {
              void fromPhoto(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </chakra.label>
        <chakra.button
          type="button"
          color="action"
          textDecoration="underline"
          textUnderlineOffset="3px"
          py="2"
          cursor="pointer"
          onClick={() => {
            setTrouble(null);
            setLive((on) => !on);
          }}
        >
          {live ? 'Stop the camera' : 'Use the camera'}
        </chakra.button>
      </Flex>
      {live && (
        <Camera
          onRead={(text) => {
            setLive(false);
            onRead(text);
          }}
          onTrouble={() => {
            setLive(false);
            setTrouble(NO_CAMERA);
          }}
        />
      )}
      {trouble && (
        <Box role="alert" mt="1" color="wrong.ink" fontSize="sm" fontWeight="600">
          {trouble}
        </Box>
      )}
    </Box>
  );
}

/** The reader is large and rarely wanted, so it is loaded when it is. */
const loadReader = async () => new (await import('@zxing/browser')).BrowserMultiFormatReader();

async function readPhoto(file: File): Promise<string | null> {
  const url = URL.createObjectURL(file);
  try {
    return (await (await loadReader()).decodeFromImageUrl(url)).getText();
  } catch {
    return null;
  } finally {
    URL.revokeObjectURL(url);
  }
}

function Camera({ onRead, onTrouble }: { onRead: (text: string) => void; onTrouble: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const report = useRef({ onRead, onTrouble });
  report.current = { onRead, onTrouble };
  useEffect(() => {
    let stopped = false;
    let stop = (): void => undefined;
    const start = async (): Promise<void> => {
      const reader = await loadReader();
      const controls = await reader.decodeFromVideoDevice(undefined, video.current ?? undefined, (result) => {
        if (result && !stopped) report.current.onRead(result.getText());
      });
      stop = () => controls.stop();
      if (stopped) stop();
    };
    start().catch(() => !stopped && report.current.onTrouble());
    return () => {
      stopped = true;
      stop();
    };
  }, []);
  return (
    <chakra.video
      ref={video}
      muted
      playsInline
      maxH="240px"
      maxW="100%"
      rounded="sm"
      border="1px solid"
      borderColor="line"
    >
      <track kind="captions" />
    </chakra.video>
  );
}
