'use client';

import { Box, Flex } from '@chakra-ui/react';
import { type FormEvent, useCallback, useEffect, useState } from 'react';
import type { z } from 'zod';
import type { loadItem } from '@/contracts/http/resources';
import { countText, instantText } from '@/text/format';
import { Button } from '../primitives/button';
import { FileField } from '../primitives/file-field';

type Load = z.output<typeof loadItem>;

const EVERY_MS = 1000;
const OPEN: readonly string[] = ['receiving', 'queued', 'running'] satisfies Load['state'][];
const FAILED: readonly string[] = ['failed', 'stopped'] satisfies Load['state'][];
const count = (n: number | null): string => countText(n ?? 0);

/** A file of any size: sent as a stream, loaded by a worker, its progress told, to be cancelled at any time. */
export function LargeFile() {
  const [loads, setLoads] = useState<readonly Load[]>([]);
  const [sending, setSending] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const look = useCallback(async () => {
    const answer = await fetch('/api/v1/odometer-loads').catch(() => null);
    if (answer?.ok) setLoads(((await answer.json()) as { items: Load[] }).items);
  }, []);
  const running = sending || loads.some(({ state }) => OPEN.includes(state));
  useEffect(() => {
    look();
    if (!running) return;
    const timer = setInterval(look, EVERY_MS);
    return () => clearInterval(timer);
  }, [look, running]);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const file = new FormData(event.currentTarget).get('file');
    if (!(file instanceof File) || file.size === 0) return setMessage('Choose a file first.');
    setSending(true);
    setMessage(null);
    const answer = await fetch(`/api/v1/odometer-readings?name=${encodeURIComponent(file.name)}`, {
      method: 'POST',
      headers: { 'Content-Type': 'text/csv', Prefer: 'respond-async' },
      body: file,
    }).catch(() => null);
    const told = (await answer?.json().catch(() => null)) as { detail?: string } | null;
    setSending(false);
    if (!answer?.ok)
      setMessage(told?.detail ?? 'Isobar could not be reached, so nothing was written. Send the file again.');
    await look();
  };
  const cancel = async (load: Load) => {
    await fetch(`/api/v1/odometer-loads/${load.load_id}`, { method: 'DELETE' }).catch(() => null);
    await look();
  };
  return (
    <>
      <form method="post" onSubmit={submit}>
        <FileField
          name="file"
          label="Drop a file of readings here, or press to choose it"
          hint="CSV of any size up to 4 GB"
          accept=".csv,text/csv"
        />
        <div className="form-line">
          <Button type="submit" disabled={sending}>
            {sending ? 'Sending…' : 'Load it'}
          </Button>
        </div>
      </form>
      {message && (
        <Box role="alert" mt="3" px="3" py="2" rounded="sm" bg="wrong.bg" color="wrong.ink" maxW="70ch">
          {message}
        </Box>
      )}
      <Box mt="3" aria-live="polite">
        {loads.slice(0, 6).map((load) => (
          <OneLoad key={load.load_id} load={load} onCancel={() => cancel(load)} />
        ))}
      </Box>
    </>
  );
}

function OneLoad({ load, onCancel }: { load: Load; onCancel: () => void }) {
  return (
    <Box borderBottom="1px solid" borderColor="hair" py="2">
      <Flex gap="3" align="center" wrap="wrap">
        <strong>{load.file_name}</strong>
        <Box as="span" color={FAILED.includes(load.state) ? 'wrong.ink' : undefined}>
          {stateText(load)}
        </Box>
        {OPEN.includes(load.state) && <Button onClick={onCancel}>Cancel</Button>}
        <Box as="span" color="soft" fontSize="sm">
          {load.started_by}, {instantText(new Date(load.started_at))}
        </Box>
      </Flex>
      {load.refusals.length > 0 && (
        <details>
          <summary>
            Lines that were refused{(load.refused ?? 0) > load.refusals.length && ', the first of them'}
          </summary>
          {load.refusals.map((row) => (
            <Box key={row.line} fontSize="sm">
              Line {row.line}: {row.text}. {row.why}
            </Box>
          ))}
        </details>
      )}
    </Box>
  );
}

function stateText(load: Load): string {
  switch (load.state) {
    case 'receiving':
    case 'queued':
      return load.step;
    case 'running':
      return `${load.step}: ${count(Math.max(load.rows_read, load.rows_judged))} lines read, ${count(load.rows_judged)} checked`;
    case 'done':
      return `${count(load.added)} added, ${count(load.suspect)} of them suspect; ${count(load.known)} were here already, ${count(load.refused)} refused`;
    case 'stopped':
      return 'It did not arrive whole: nothing was written. Send the file again.';
    default:
      return load.message ?? load.state;
  }
}
