import { Box } from '@chakra-ui/react';
import { readVin, yearContradiction } from '@/core/catalogue/vin';
import { sideWords } from '@/core/engine/sides';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText, instantText, NONE } from '@/text/format';
import { TextLink } from '@/ui/primitives/links';
import { Code, Facts, Section } from '@/ui/primitives/page';
import { DistributorSection } from './distributor-section';

/** What the vehicle is, as far as it decides about its work, and who said so. */
export function WhatItIs({ view, actor }: { view: VehicleView; actor: Actor }) {
  const { vehicle, depot, family, layout } = view;
  return (
    <Section id="vehicle" title="What it is">
      <Facts
        rows={[
          ['Vehicle', [vehicle.make, vehicle.model, vehicle.modelYear].filter(Boolean).join(' ') || NONE],
          ['VIN', <Vin key="vin" vin={vehicle.vin} modelYear={vehicle.modelYear} />],
          ['Built', vehicle.builtOn === null ? 'day not recorded' : dateText(vehicle.builtOn)],
          ['Fuel', vehicle.fuel ?? 'not recorded'],
          ['Depot', `${depot}, ${vehicle.dutyGroup}`],
          ['In service', `since ${dateText(vehicle.inServiceOn)}${vehicle.severeDuty ? ', severe duty' : ''}`],
          [
            'Engine',
            <Box key="engine">
              <TextLink href={`/engines/${family.id}`}>{family.code}</TextLink>, {family.name}
            </Box>,
          ],
          ...(vehicle.intakeKpa === null ? [] : [['Intake', `${vehicle.intakeKpa} kPa, not its family’s`] as const]),
          ['Variant', vehicle.variant ?? (family.variants.length > 0 ? 'not known' : 'has none')],
          ['Firing order', layout.model.firingOrder.join(' ')],
          ...sideRows(view),
        ]}
      />
      <DistributorSection view={view} mayRecord={may(actor, 'record work')} />
      <Answers view={view} />
    </Section>
  );
}

function Vin({ vin, modelYear }: { vin: string | null; modelYear: number | null }) {
  if (vin === null) return 'not recorded';
  const doubt = modelYear === null ? null : yearContradiction(vin, modelYear);
  const { checkDigitOk, reasons } = readVin(vin);
  return (
    <>
      <Code>{vin}</Code>{' '}
      <Box as="span" color={doubt ? 'wrong.ink' : 'soft'} fontSize="sm">
        {doubt ?? (checkDigitOk ? 'check digit agrees' : reasons[0])}
      </Box>
    </>
  );
}

/** What people call the banks, where the steering side is known. */
function sideRows({ layout, vehicle }: VehicleView): readonly (readonly [string, string])[] {
  const named = layout.model.banks.flatMap((bank) => {
    const words = sideWords(bank.place, vehicle.steering);
    return words ? [`${bank.place} in the drawing is the ${words}: cylinders ${bank.cylinders.join(' ')}`] : [];
  });
  return named.length > 0 ? [['Sides', named.join('; ')]] : [];
}

function Answers({ view: { answers } }: { view: VehicleView }) {
  if (answers.length === 0) return null;
  return (
    <Box color="soft" fontSize="sm" mt="2">
      {answers.map((entry) => {
        const { to } = entry.changes as { to?: Record<string, unknown> };
        return (
          <Box key={entry.at.toISOString()}>
            {Object.entries(to ?? {})
              .map(([key, value]) => `${key.replace(/([A-Z])/g, ' $1').toLowerCase()}: ${value}`)
              .join(', ')}
            , said by {entry.who} on {instantText(entry.at)}
          </Box>
        );
      })}
    </Box>
  );
}
