import { gapGrowth } from '@/core/gap/check';
import { personUnits } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import { remainingKm } from '@/core/work/inspection';
import type { FloorPlace } from '@/core/work/job-record';
import { plugRulesOf, quantityIn } from '@/core/work/order-model';
import { RESULTS } from '@/core/work/place-fields';
import { distanceText } from '@/text/format';
import { RESULT_WORDS } from '@/text/task-words';
import type { Floor } from '../sync/use-floor';
import { text } from './hand';
import { NumberField } from './number-field';
import { FieldHead, Press } from './parts';

/** Usual answers, km. */
const USUAL_KM = [10_000, 20_000, 30_000];

/** What came of a look or a test: good and for how much longer, replaced at once, or bad and still in. */
export function InspectionResult({ floor, place }: { floor: Floor; place: FloorPlace }) {
  const { job, record, set, edit } = floor;
  const { target } = place;
  const fields = record[target] ?? {};
  const unit = personUnits(job.units).distance;
  const put = (km: number) => set(target, 'goodFor', `${Math.round(fromSi(km, unit))} ${unit}`);
  const measured = measuredKm(floor, place);
  return (
    <>
      <FieldHead name="What came of it" />
      <div className="press-row" data-field="result">
        {RESULTS.map((result) => (
          <Press
            key={result}
            chosen={fields.result === result}
            onPress={() => set(target, 'result', fields.result === result ? null : result)}
          >
            {RESULT_WORDS[result]}
          </Press>
        ))}
      </div>
      {fields.result === 'good' && (
        <>
          <NumberField
            component={place.component}
            field="goodFor"
            name="Good for so much more"
            known={measured === null ? 'from here on' : `by its gap about ${distanceText(measured, job.units)}`}
            value={text(fields, 'goodFor')}
            system={job.units}
            active={false}
            onActive={() => edit(target, 'goodFor')}
            onChange={(value) => set(target, 'goodFor', value)}
          />
          <div className="press-row" data-close data-field="goodFor">
            {[...new Set([...(measured === null || measured < 500 ? [] : [measured]), ...USUAL_KM])].map((km) => (
              <Press key={km} onPress={() => put(km)}>
                {distanceText(km, job.units).split(' · ')[0]}
              </Press>
            ))}
          </div>
        </>
      )}
    </>
  );
}

/** What a plug has left by its gap: where it was measured both times, by its own wear. */
function measuredKm({ job, record }: Floor, place: FloorPlace): number | null {
  const rules = plugRulesOf(job);
  const gap = quantityIn(
    job,
    place.target,
    'removedGap',
    text(record[place.target] ?? {}, 'removedGap'),
    personUnits(job.units),
  );
  if (!rules || place.component !== 'plug' || gap === null) return null;
  const { fittedGapMm, sinceKm } = place;
  const rate = fittedGapMm !== null && sinceKm !== null ? gapGrowth(fittedGapMm, gap, sinceKm) : null;
  return remainingKm(gap, rules.gap, rate);
}
