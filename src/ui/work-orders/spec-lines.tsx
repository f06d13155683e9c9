import { Box } from '@chakra-ui/react';
import type { SourceKind } from '@/core/fitment/match';
import { dateText, distanceText, rangeTexts, type UnitSystem } from '../format/format';
import { Code, Facts } from '../primitives/page';
import { SOURCE_WORDS } from './order-words';

export interface SpecFacts {
  readonly part: {
    readonly number: string;
    readonly maker: string;
    readonly thread: string | null;
    readonly seat: string | null;
    readonly hexMm: number | null;
  };
  readonly gapMinMm: number;
  readonly gapMaxMm: number;
  readonly torqueMinNm: number;
  readonly torqueMaxNm: number;
  readonly intervalKm: number | null;
  readonly intervalSevereKm: number | null;
  readonly intervalMonths: number | null;
  readonly sourceKind: SourceKind;
  readonly sourceDocument: string;
  readonly sourceDated: string | null;
  readonly revision: number;
  readonly enteredBy: string;
  readonly checkedBy: string | null;
  readonly note: string | null;
}

/** Part, gap and torque in both units, and where they stand written. */
export function SpecLines({
  spec,
  quantity,
  system,
  angle,
}: {
  spec: SpecFacts;
  quantity: number;
  system: UnitSystem;
  angle: string;
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
                {spec.part.hexMm && `, ${spec.part.hexMm} mm hex`}
              </Box>
            </Box>,
          ],
          ['Gap', <Figure key="gap" first={gap} other={gapOther} />],
          ['Torque', <Figure key="torque" first={torque} other={torqueOther} />],
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
