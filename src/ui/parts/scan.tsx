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

/** The readers are large and rarely wanted, so they are loaded when they are. */
async function loadReaders() {
  const { BrowserQRCodeReader, BrowserMultiFormatOneDReader } = await import('@zxing/browser');
  return [new BrowserQRCodeReader(), new BrowserMultiFormatOneDReader()] as const;
}

async function readPhoto(file: File): Promise<string | null> {
  const url = URL.createObjectURL(file);
  try {
    for (const reader of await loadReaders()) {
      const scanned = await reader.decodeFromImageUrl(url).catch(() => null);
      if (scanned) return scanned.getText();
    }
    return null;
  } finally {
    URL.revokeObjectURL(url);
  }
}

const FRAME_MS = 250;

/** Looks at a few frames a second until one holds a code. */
function Camera({ onRead, onTrouble }: { onRead: (text: string) => void; onTrouble: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const report = useRef({ onRead, onTrouble });
  report.current = { onRead, onTrouble };
  useEffect(() => {
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setInterval> | undefined;
    let stopped = false;
    const stop = (): void => {
      stopped = true;
      clearInterval(timer);
      for (const track of stream?.getTracks() ?? []) track.stop();
    };
    const start = async (): Promise<void> => {
      const readers = await loadReaders();
      stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
      if (stopped || !video.current) return stop();
      video.current.srcObject = stream;
      await video.current.play();
      timer = setInterval(() => {
        const text = video.current && readFrame(video.current, readers);
        if (!text || stopped) return;
        stop();
        report.current.onRead(text);
      }, FRAME_MS);
    };
    start().catch(() => {
      if (!stopped) report.current.onTrouble();
      stop();
    });
    return stop;
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

function readFrame(video: HTMLVideoElement, readers: Awaited<ReturnType<typeof loadReaders>>): string | null {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
  canvas.getContext('2d')?.drawImage(video, 0, 0);
  for (const reader of readers) {
    try {
      return reader.decodeFromCanvas(canvas).getText();
    } catch {
      // This frame holds no code of this kind.
    }
  }
  return null;
}
