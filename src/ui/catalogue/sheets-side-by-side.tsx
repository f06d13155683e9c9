import { Box, Flex } from '@chakra-ui/react';
import type { ReleaseBlocker, SourceKind } from '@/core/catalogue/match';
import type { Km, Mm, Nm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { BLOCKER_WORDS } from '@/text/catalogue-words';
import { dateText, rangeTexts } from '@/text/format';
import { SOURCE_WORDS } from '@/text/order-words';
import { type FormAction, PressForm } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { TextLink } from '../primitives/links';
import { Code } from '../primitives/page';
import { PlainTable } from '../primitives/plain-table';
import { intervalText } from '../work-orders/spec-lines';

interface Bounds {
  readonly min: number;
  readonly max: number;
}

/** What a sheet of any part is told by. */
export interface SourcedSheet {
  readonly id: string;
  readonly intervalKm: Km | null;
  readonly intervalSevereKm: Km | null;
  readonly intervalMonths: number | null;
  readonly sourceKind: SourceKind;
  readonly sourceDocument: string;
  readonly sourceDated: string | null;
  readonly expiresOn: string | null;
  readonly revision: number;
  readonly enteredBy: string;
  readonly checkedBy: string | null;
  readonly blockers: readonly ReleaseBlocker[];
}

interface Sheet extends SourcedSheet {
  readonly part: { readonly id: string; readonly number: string };
  readonly gapMinMm: Mm;
  readonly gapMaxMm: Mm;
  readonly gapAsTyped: string;
  readonly torqueMinNm: Nm;
  readonly torqueMaxNm: Nm;
}

/** How whoever may check sheets says that they have. */
export interface CheckForm {
  readonly action: FormAction;
  readonly back: string;
  readonly name: string;
}

interface Props {
  readonly scope: {
    readonly scope: string;
    readonly inForceId: string | null;
    readonly agreement: { readonly gapMm: Bounds | null; readonly torqueNm: Bounds | null } | null;
    readonly sheets: readonly Sheet[];
  };
  readonly system: UnitSystem;
  readonly check: CheckForm | null;
}

/** Sources of one scope side by side, with dates: which is in force, and what holds it back. */
export function SheetsSideBySide({ scope, system, check }: Props) {
  return (
    <Box mb="4">
      <Box fontWeight="650" mb="1">
        For {scope.scope}
      </Box>
      <PlainTable heads={['', 'Part', 'Gap', 'Torque, dry', 'Interval', 'Source', 'Entered and checked']}>
        {scope.sheets.map((sheet) => (
          <SheetRow key={sheet.id} sheet={sheet} inForce={sheet.id === scope.inForceId} system={system} check={check} />
        ))}
      </PlainTable>
      {scope.agreement && <Agreement {...scope.agreement} system={system} />}
    </Box>
  );
}

function SheetRow({
  sheet,
  inForce,
  system,
  check,
}: { sheet: Sheet; inForce: boolean } & Pick<Props, 'system' | 'check'>) {
  const [gap, gapOther] = rangeTexts(sheet.gapMinMm, sheet.gapMaxMm, system, 'gap');
  const [torque, torqueOther] = rangeTexts(sheet.torqueMinNm, sheet.torqueMaxNm, system, 'torque');
  return (
    <tr className={inForce ? undefined : 'soft'}>
      <td className="nowrap strong">{inForceText(sheet, inForce ? sheet.id : null)}</td>
      <td>
        <TextLink href={`/parts/${sheet.part.id}`}>
          <Code>{sheet.part.number}</Code>
        </TextLink>
      </td>
      <td>
        {gap}
        <Box color="soft" fontSize="sm">
          {gapOther}; written {sheet.gapAsTyped}
        </Box>
      </td>
      <td>
        {torque}
        <Box color="soft" fontSize="sm">
          {torqueOther}
        </Box>
      </td>
      <td>{intervalText(sheet, system)}</td>
      <td>
        <SourceCell sheet={sheet} />
      </td>
      <td>
        <CheckedCell sheet={sheet} inForce={inForce} check={check} />
      </td>
    </tr>
  );
}

/** In force, beside it, or never: memory releases nothing. */
export function inForceText(
  { id, sourceKind }: Pick<SourcedSheet, 'id' | 'sourceKind'>,
  inForceId: string | null,
): string {
  if (id === inForceId) return '● in force';
  return sourceKind === 'memory' ? 'never' : '○';
}

/** Where a sheet comes from, with its rank, revision and dates. */
export function SourceCell({ sheet }: { sheet: SourcedSheet }) {
  return (
    <>
      {sheet.sourceDocument}
      <Box color="soft" fontSize="sm">
        {SOURCE_WORDS[sheet.sourceKind]}, revision {sheet.revision}, {dateText(sheet.sourceDated)}
        {sheet.expiresOn && `, holds until ${dateText(sheet.expiresOn)}`}
      </Box>
    </>
  );
}

/** Who entered a sheet and who checked it, what holds it back, and the check itself for whoever may make it. */
export function CheckedCell({
  sheet,
  inForce,
  check,
}: {
  sheet: SourcedSheet;
  inForce: boolean;
  check: CheckForm | null;
}) {
  return (
    <>
      by {sheet.enteredBy}; {sheet.checkedBy ? `checked by ${sheet.checkedBy}` : 'not checked'}
      {inForce &&
        sheet.blockers.map((blocker) => (
          <Box key={blocker} color="wrong.ink" fontSize="sm">
            {BLOCKER_WORDS[blocker]}.
          </Box>
        ))}
      {check && sheet.checkedBy === null && sheet.sourceKind !== 'memory' && sheet.enteredBy !== check.name && (
        <PressForm action={check.action} quiet>
          <input type="hidden" name="sheetId" value={sheet.id} />
          <input type="hidden" name="back" value={check.back} />
          <SubmitButton>I have compared it with its source</SubmitButton>
        </PressForm>
      )}
    </>
  );
}

function Agreement({ gapMm, torqueNm, system }: { gapMm: Bounds | null; torqueNm: Bounds | null; system: UnitSystem }) {
  const stop = gapMm === null || torqueNm === null;
  return (
    <Flex
      gap="2"
      color={stop ? 'wrong.ink' : 'ink'}
      bg={stop ? 'wrong.bg' : 'tint'}
      px="3"
      py="2"
      rounded="sm"
      mb="2"
      wrap="wrap"
    >
      <strong>{stop ? 'Stop and ask:' : 'Sources of equal rank: work where they overlap,'}</strong>
      <span>
        {gapMm ? `gap ${rangeTexts(gapMm.min, gapMm.max, system, 'gap').join(' · ')}` : 'their gaps do not overlap'};{' '}
        {torqueNm
          ? `torque ${rangeTexts(torqueNm.min, torqueNm.max, system, 'torque').join(' · ')}`
          : 'their torques do not overlap'}
      </span>
    </Flex>
  );
}
