import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { plainVin, readVin } from '@/core/catalogue/vin';
import { INDUCTIONS } from '@/core/engine/model';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { vehicles } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { fitmentOf, type VehicleFitment } from './fitment-of';

const word = z.string().trim().min(1, 'Say which.').max(120).optional();

export const answerInput = z.object({
  vehicleId: z.uuid(),
  version: z.coerce.number().int(),
  variant: word,
  modelYear: z.coerce.number().int().min(1950, 'A year from 1950 on.').max(2100, 'A year up to 2100.').optional(),
  builtOn: z.iso.date('Give a day, as 2019-04-30.').optional(),
  /** Gives the serial, and the model year a check. */
  vin: word,
  fuel: word,
  induction: z.enum(INDUCTIONS).optional(),
  market: word,
  chosenSheetId: z.uuid().optional(),
});
type FitmentAnswer = z.output<typeof answerInput>;

/** Resolves a fitment question on a vehicle; who said so stands in the audit trail and on the vehicle's page. */
export const answerFitment = useCase({
  permission: 'answer fitment questions',
  input: answerInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), input.vehicleId);
      if (!fitment) return notFound('vehicle');
      const fault = faultOf(input, fitment);
      if (fault) return fail('invalid', 'This answer cannot be taken. See the marked field.', fault);
      const { vehicleId: _, version, vin, ...rest } = input;
      const answers = Object.fromEntries(
        Object.entries({ ...rest, vin: vin === undefined ? undefined : plainVin(vin) }).filter(
          ([, value]) => value !== undefined,
        ),
      );
      if (Object.keys(answers).length === 0) return fail('invalid', 'Say what you have seen on the vehicle.');
      const { vehicle } = fitment;
      const done = await tx
        .update(vehicles)
        .set({ ...answers, version: vehicle.version + 1 })
        .where(and(eq(vehicles.id, vehicle.id), eq(vehicles.version, version)))
        .returning({ id: vehicles.id });
      if (done.length === 0) return editedMeanwhile();
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicle.id]);
      const before = Object.fromEntries(Object.keys(answers).map((key) => [key, vehicle[key as keyof typeof vehicle]]));
      await writeAudit(tx, actor, {
        action: 'answer',
        entity: 'vehicle',
        entityId: vehicle.id,
        changes: { from: before, to: answers },
      });
      return ok(null);
    });
  },
});

function faultOf(input: FitmentAnswer, { family, fitment }: VehicleFitment): Record<string, string> | null {
  if (input.variant !== undefined && !family.variants.includes(input.variant))
    return { variant: `${family.code} has no variant “${input.variant}”. Choose one of the list.` };
  if (input.vin !== undefined) {
    const reading = readVin(input.vin);
    if (!reading.valid) return { vin: reading.reasons.join('; ') };
    if (reading.serial === null) return { vin: 'The last six characters of this VIN are no serial number.' };
  }
  const candidates = fitment.kind === 'needs-answer' ? fitment.candidates : [];
  if (input.chosenSheetId !== undefined && !candidates.some((spec) => spec.id === input.chosenSheetId))
    return { chosenSheetId: 'This sheet is no candidate for this vehicle.' };
  return null;
}
