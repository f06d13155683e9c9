import type { z } from 'zod';
import type { fitmentAnswer, fitmentSheet } from '@/contracts/http/resources';
import { scopeWords } from '@/core/catalogue/scope';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { viewFitment } from '@/server/catalogue/view-fitment';
import { deps } from '@/server/deps';
import { reply, route } from '../../../http';

type View = Extract<Awaited<ReturnType<typeof viewFitment>>, { ok: true }>['value'];
type Sheet = View['specs'][number];

const sheetJson = (spec: Sheet): z.output<typeof fitmentSheet> => ({
  spec_sheet_id: spec.id,
  part_number: spec.part.number,
  scope: scopeWords(spec),
  gap_mm: { min: spec.gapMinMm, max: spec.gapMaxMm },
  torque_nm: { min: spec.torqueMinNm, max: spec.torqueMaxNm },
  source_kind: spec.sourceKind,
  source_document: spec.sourceDocument,
  revision: spec.revision,
  checked_by: spec.checkedBy,
});

const range = (min: number | null, max: number | null) => (min === null || max === null ? null : { min, max });

function componentJson({ component, quantity, fitment, blockers }: View['components'][number]) {
  const spec = fitment.kind === 'match' ? fitment.spec : null;
  return {
    component,
    result: fitment.kind,
    part_number: spec?.part.number ?? null,
    quantity,
    torque_nm: spec && range(spec.torqueMinNm, spec.torqueMaxNm),
    primary_ohm: spec && range(spec.primaryMinOhm, spec.primaryMaxOhm),
    secondary_ohm: spec && range(spec.secondaryMinOhm, spec.secondaryMaxOhm),
    resistance_ohm: spec && range(spec.minOhm, spec.maxOhm),
    interval_km: spec?.intervalKm ?? null,
    interval_months: spec?.intervalMonths ?? null,
    source_document: spec?.sourceDocument ?? null,
    blocked_by: [...blockers],
  };
}

function answerJson({
  vehicle,
  family,
  fitment,
  blockers,
  question,
  components,
}: View): z.output<typeof fitmentAnswer> {
  return {
    vehicle_id: vehicle.id,
    unit_number: vehicle.unitNumber,
    result: fitment.kind,
    spec: fitment.kind === 'match' ? sheetJson(fitment.spec) : null,
    quantity: fitment.kind === 'match' ? quantityOf(layoutOf(family.model), 'plug') : null,
    blocked_by: [...blockers],
    question:
      fitment.kind === 'needs-answer'
        ? { key: fitment.key, text: question ?? '', choices: [...fitment.choices] }
        : null,
    candidates: fitment.kind === 'needs-answer' ? fitment.candidates.map(sheetJson) : [],
    components: components.map(componentJson),
    reason: fitment.kind === 'no-spec' ? fitment.reason : null,
  };
}

export const GET = route<{ id: string }>(async ({ actor, params: { id } }) =>
  reply(await viewFitment(deps(), actor, id), answerJson),
);
