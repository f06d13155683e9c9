import type { NoticeRow } from '@/db/queries/notices';
import type { Digest } from '../notices/list-notices';

const line = ({ unitNumber, name, depot, text }: NoticeRow): string => `- ${unitNumber} ${name} (${depot}): ${text}`;

/** The digest as plain text. */
export function digestText({ on, sections }: Digest): string {
  if (sections.length === 0) return `Isobar, ${on}\n\nNothing new.\n`;
  const parts = sections.map(({ title, notices }) => `${title} (${notices.length})\n${notices.map(line).join('\n')}`);
  return `Isobar, ${on}\n\n${parts.join('\n\n')}\n`;
}

const LINE_BYTES = 57;

/** The digest as a message (RFC 5322) that any mail program opens; the text travels as base64, whatever its letters. */
export function digestMessage(digest: Digest, to: string, at: Date): string {
  const body = Buffer.from(digestText(digest), 'utf8');
  const lines = Array.from({ length: Math.ceil(body.length / LINE_BYTES) }, (_, i) =>
    body.subarray(i * LINE_BYTES, (i + 1) * LINE_BYTES).toString('base64'),
  );
  const count = digest.sections.reduce((sum, { notices }) => sum + notices.length, 0);
  return [
    'From: Isobar <isobar@localhost>',
    `To: ${to}`,
    `Subject: Isobar, ${digest.on}: ${count} new`,
    `Date: ${at.toUTCString().replace('GMT', '+0000')}`,
    `Message-ID: <digest-${digest.on}@isobar.localhost>`,
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    ...lines,
    '',
  ].join('\r\n');
}

/** The latest notices as an Atom feed (RFC 4287). @param base address of this Isobar */
export function atomFeed(rows: readonly NoticeRow[], base: string, at: Date): string {
  const updated = (rows[0]?.notedAt ?? at).toISOString();
  const entries = rows.map(
    (row) => `  <entry>
    <id>urn:uuid:${row.id}</id>
    <title>${escaped(`${row.unitNumber} ${row.name}: ${row.text}`)}</title>
    <updated>${row.notedAt.toISOString()}</updated>
    <link href="${escaped(`${base}/vehicles/${row.vehicleId}`)}"/>
    <category term="${row.kind}"/>
    <summary>${escaped(`${row.depot}, noted ${row.notedOn}`)}</summary>
  </entry>`,
  );
  return `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
  <id>${escaped(base)}/notices</id>
  <title>Isobar notices</title>
  <updated>${updated}</updated>
  <author><name>Isobar</name></author>
  <link rel="self" href="${escaped(base)}/api/v1/notices.atom"/>
${entries.join('\n')}
</feed>
`;
}

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as XML may hold it: without the characters that it cannot. */
const escaped = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: XML 1.0 forbids them even when escaped
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').replace(/[&<>"]/g, (c) => ENTITIES[c] ?? c);
