import { Box } from '@chakra-ui/react';
import type { SourceKind } from '@/core/catalogue/match';
import type { OtherInForce } from '@/core/catalogue/others-in-force';
import { socketsFor } from '@/core/engine/tools';
import type { PolicyScope } from '@/core/policy/policies';
import type { Km, Mm, Nm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import { othersInForce, SCOPE_WORDS } from '@/text/catalogue-words';
import { dateText, distanceText, gapText, rangeTexts } from '@/text/format';
import { SOURCE_WORDS } from '@/text/order-words';
import { Code, Facts } from '../primitives/page';

interface SpecFacts {
  readonly part: {
    readonly number: string;
    readonly maker: string;
    readonly thread: string | null;
    readonly seat: string | null;
    readonly hexMm: Mm | null;
    readonly preGapMm: Mm | null;
  };
  readonly gapMinMm: Mm;
  readonly gapMaxMm: Mm;
  readonly torqueMinNm: Nm;
  readonly torqueMaxNm: Nm;
  readonly intervalKm: Km | null;
  readonly intervalSevereKm: Km | null;
  readonly intervalMonths: number | null;
  readonly sourceKind: SourceKind;
  readonly sourceDocument: string;
  readonly sourceDated: string | null;
  readonly revision: number;
  readonly enteredBy: string;
  readonly checkedBy: string | null;
  readonly note: string | null;
  readonly method: string | null;
  readonly others?: readonly OtherInForce[];
  readonly boost?: {
    readonly kind: 'in-band' | 'between' | 'above-all';
    readonly kpa: number;
    readonly source: string;
  } | null;
}

interface ThreadFacts {
  readonly says: string;
  readonly doubt: string | null;
  readonly reduction: number;
  readonly torqueNm: { readonly min: number; readonly max: number };
  readonly inForce: { readonly option: { readonly name: string }; readonly scope: PolicyScope; readonly why: string };
}

/** Part, gap and torque in both units, and where they stand written. */
export function SpecLines({
  spec,
  quantity,
  system,
  angle,
  threads = null,
  current = null,
}: {
  spec: SpecFacts;
  quantity: number;
  system: UnitSystem;
  angle: string;
  threads?: ThreadFacts | null;
  current?: CurrentFacts | null;
}) {
  const [gap, gapOther] = rangeTexts(spec.gapMinMm, spec.gapMaxMm, system, 'gap');
  const [torque, torqueOther] = rangeTexts(spec.torqueMinNm, spec.torqueMaxNm, system, 'torque');
  return (
    <>
      <Facts
        rows={[
          [
            'Plug',
            <Box key="part" fontSize="lg">
              <strong>
                <Code>{spec.part.number}</Code>
              </strong>{' '}
              × {quantity}{' '}
              <Box as="span" color="soft" fontSize="sm">
                {spec.part.maker}
              </Box>
            </Box>,
          ],
          ...(current && current.kind !== 'itself'
            ? [['Sold today as', <Current key="current" current={current} />] as const]
            : []),
          ...(spec.part.hexMm === null ? [] : [['Socket', socketsFor(spec.part.hexMm)] as const]),
          ['Gap', <Figure key="gap" first={gap} other={gapOther} />],
          ...(spec.part.preGapMm === null ? [] : [['', asSold(spec, spec.part.preGapMm, system)] as const]),
          [
            'Torque',
            <Figure
              key="torque"
              first={torque}
              other={`${torqueOther} · ${inchPounds(spec.torqueMinNm, spec.torqueMaxNm)}`}
            />,
          ],
          ...(threads ? [['Threads', <ThreadLine key="threads" threads={threads} system={system} />] as const] : []),
          ['', `clean dry thread ${spec.part.thread ?? ''}, ${spec.part.seat ?? ''} seat, start by hand`],
          [
            'Without a wrench',
            `${angle} from finger-tight contact${spec.part.seat === 'gasket' ? ', new gasket' : ''}`,
          ],
          ['Interval', intervalText(spec, system)],
          [
            'Source',
            `${spec.sourceDocument}, ${SOURCE_WORDS[spec.sourceKind]}, revision ${spec.revision}${spec.sourceDated ? `, ${dateText(spec.sourceDated)}` : ''}`,
          ],
          ...othersInForce(spec.others ?? []).map((line) => ['', line] as const),
          ...(spec.boost ? [['Boost', boostLine(spec.boost)] as const] : []),
          ...(spec.method ? [['Out', spec.method] as const] : []),
          [
            'Entered',
            `by ${spec.enteredBy}; ${spec.checkedBy ? `checked by ${spec.checkedBy}` : 'not checked by anyone else yet'}`,
          ],
        ]}
      />
      {spec.note && (
        <Box color="caution.ink" mt="2">
          {spec.note}
        </Box>
      )}
    </>
  );
}

function boostLine({ kind, kpa, source }: NonNullable<SpecFacts['boost']>): string {
  const at = `${kpa} kPa in the intake of this vehicle`;
  if (kind === 'above-all') return `${at}: nobody states a gap for it; ask the maker or whoever tuned it`;
  return kind === 'between'
    ? `${at}, between two known pressures: the tighter gap, with approval (${source})`
    : `gap for ${at} (${source})`;
}

export function intervalText(
  {
    intervalKm,
    intervalSevereKm,
    intervalMonths,
  }: Pick<SpecFacts, 'intervalKm' | 'intervalSevereKm' | 'intervalMonths'>,
  system: UnitSystem,
): string {
  const severe = intervalSevereKm === null ? '' : ` (severe ${distanceText(intervalSevereKm, system)})`;
  return [
    intervalKm === null ? '' : distanceText(intervalKm, system) + severe,
    intervalMonths === null ? '' : `${intervalMonths} months`,
  ]
    .filter(Boolean)
    .join(' or ');
}

/** What the sheet's number goes by today. */
type CurrentFacts =
  | { readonly kind: 'itself' }
  | {
      readonly kind: 'replaced';
      readonly part: { readonly number: string };
      readonly redesigned: boolean;
      readonly notes: readonly string[];
    }
  | { readonly kind: 'needs-answer'; readonly successors: readonly { readonly number: string }[] };

function Current({ current }: { current: Exclude<CurrentFacts, { kind: 'itself' }> }) {
  if (current.kind === 'needs-answer')
    return <>two successors are open: {current.successors.map((p) => p.number).join(' and ')}. Ask the maker</>;
  return (
    <>
      <Code>{current.part.number}</Code>,{' '}
      {current.redesigned ? 'a redesign: a whole set or none, never mixed' : 'the same part under a new number'}
      {current.notes.map((note) => (
        <Box key={note} color="caution.ink">
          {note}
        </Box>
      ))}
    </>
  );
}

/** The third unit, as wrenches for small torques bear it. */
const inchPounds = (minNm: Nm, maxNm: Nm): string =>
  `${fromSi(minNm, 'lbf·in').toFixed(0)} to ${fromSi(maxNm, 'lbf·in').toFixed(0)} lbf·in`;

/** "Pre-gapped" does not mean right for this engine. */
function asSold({ gapMinMm, gapMaxMm }: SpecFacts, preGapMm: Mm, system: UnitSystem): string {
  const sold = `as sold ${gapText(preGapMm, system)}`;
  if (preGapMm >= gapMinMm && preGapMm <= gapMaxMm) return `${sold}, within it; measure all the same`;
  return `${sold}, outside it: ${preGapMm < gapMinMm ? 'too narrow' : 'too wide'} for this engine`;
}

function Figure({ first, other }: { first: string; other: string }) {
  return (
    <Box fontSize="lg">
      <strong>{first}</strong>{' '}
      <Box as="span" color="soft" fontSize="md">
        · {other}
      </Box>
    </Box>
  );
}

/** What goes on the threads, the torque that follows, and the option in force. */
function ThreadLine({ threads, system }: { threads: ThreadFacts; system: UnitSystem }) {
  const { inForce, torqueNm, reduction } = threads;
  const [first, other] = rangeTexts(torqueNm.min, torqueNm.max, system, 'torque');
  return (
    <>
      {threads.says}{' '}
      {reduction > 0 && (
        <strong>
          Torque lowered by {Math.round(reduction * 100)} %: {first} · {other}.
        </strong>
      )}
      {threads.doubt && <Box color="caution.ink">{threads.doubt}</Box>}
      <Box color="soft" fontSize="sm">
        {inForce.option.name}, {SCOPE_WORDS[inForce.scope]}
        {inForce.scope === 'default' ? '' : `: ${inForce.why}`}
      </Box>
    </>
  );
}
