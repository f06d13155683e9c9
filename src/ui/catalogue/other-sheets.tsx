import { Box } from '@chakra-ui/react';
import type { Component } from '@/core/engine/quantities';
import type { Nm, Ohm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { sayOhmRange, sayOhms, saySmallTorques } from '@/core/units/say';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { NONE } from '@/text/format';
import { TextLink } from '../primitives/links';
import { Code } from '../primitives/page';
import { PlainTable } from '../primitives/plain-table';
import { intervalText } from '../work-orders/spec-lines';
import { CheckedCell, type CheckForm, inForceText, SourceCell, type SourcedSheet } from './sheets-side-by-side';

interface Sheet extends SourcedSheet {
  readonly component: Component;
  readonly part: { readonly id: string; readonly number: string; readonly maker: string };
  readonly torqueMinNm: Nm | null;
  readonly torqueMaxNm: Nm | null;
  readonly torqueAsTyped: string | null;
  readonly primaryMinOhm: Ohm | null;
  readonly primaryMaxOhm: Ohm | null;
  readonly secondaryMinOhm: Ohm | null;
  readonly secondaryMaxOhm: Ohm | null;
  readonly minOhm: Ohm | null;
  readonly maxOhm: Ohm | null;
  readonly maxOhmPerMetre: Ohm | null;
}

interface Props {
  readonly scopes: readonly {
    readonly component: Component;
    readonly scope: string;
    readonly inForceId: string | null;
    readonly sheets: readonly Sheet[];
  }[];
  /** How many of each the engine takes. */
  readonly count: ReadonlyMap<Component, number>;
  readonly system: UnitSystem;
  readonly check: CheckForm | null;
}

/** Every other part of the engine with its sheets: screw, resistances, interval, source, and who checked it. */
export function OtherSheets({ scopes, count, system, check }: Props) {
  return (
    <PlainTable
      heads={['', 'What', 'Part', 'Takes', 'Screw torque', 'Resistance', 'Interval', 'Source', 'Entered and checked']}
    >
      {scopes.flatMap(({ component, scope, inForceId, sheets }) =>
        sheets.map((sheet) => (
          <tr key={sheet.id} className={sheet.id === inForceId ? undefined : 'soft'}>
            <td className="nowrap strong">{inForceText(sheet, inForceId)}</td>
            <td>
              {COMPONENT_WORDS[component]}
              <Box color="soft" fontSize="sm">
                {scope}
              </Box>
            </td>
            <td>
              <TextLink href={`/parts/${sheet.part.id}`}>
                <Code>{sheet.part.number}</Code>
              </TextLink>
              <Box color="soft" fontSize="sm">
                {sheet.part.maker}
              </Box>
            </td>
            <td>{count.get(component) ?? NONE}</td>
            <td>
              {screwText(sheet)}
              {sheet.torqueAsTyped && (
                <Box color="soft" fontSize="sm">
                  written {sheet.torqueAsTyped}
                </Box>
              )}
            </td>
            <td>
              {resistances(sheet).map((line) => (
                <Box key={line}>{line}</Box>
              ))}
            </td>
            <td>{intervalText(sheet, system) || 'on failure'}</td>
            <td>
              <SourceCell sheet={sheet} />
            </td>
            <td>
              <CheckedCell sheet={sheet} inForce={sheet.id === inForceId} check={check} />
            </td>
          </tr>
        )),
      )}
    </PlainTable>
  );
}

const screwText = ({ torqueMinNm: min, torqueMaxNm: max }: Sheet): string =>
  min === null || max === null ? NONE : saySmallTorques({ min, max });

function resistances(sheet: Sheet): readonly string[] {
  const range = (name: string, min: Ohm | null, max: Ohm | null): readonly string[] =>
    min === null || max === null ? [] : [`${name}${sayOhmRange({ min, max })}`];
  const lines = [
    ...range('primary ', sheet.primaryMinOhm, sheet.primaryMaxOhm),
    ...range('secondary ', sheet.secondaryMinOhm, sheet.secondaryMaxOhm),
    ...range('', sheet.minOhm, sheet.maxOhm),
    ...(sheet.maxOhmPerMetre === null ? [] : [`at most ${sayOhms(sheet.maxOhmPerMetre)} a metre`]),
  ];
  return lines.length > 0 ? lines : [NONE];
}
