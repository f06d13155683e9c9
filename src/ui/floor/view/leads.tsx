import type { UnitSystem } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import type { LeadWay } from '@/core/wiring/lead-ways';
import { FieldHead, Press } from './parts';

/** Every lead with its tower or coil and the length that goes there: one press when it is on. */
export function Leads({
  leads,
  on,
  system,
  onChange,
}: {
  leads: readonly LeadWay[];
  /** Plugs whose lead is on, by site. */
  on: string;
  system: UnitSystem;
  onChange: (on: string) => void;
}) {
  const done = on.split(' ').filter(Boolean);
  const toggle = (site: string) =>
    onChange((done.includes(site) ? done.filter((other) => other !== site) : [...done, site]).join(' '));
  return (
    <fieldset aria-label="Leads, one at a time">
      <FieldHead name="Leads, one at a time" known={`${done.length} of ${leads.length} on`} />
      <div className="press-row">
        {leads.map((lead) => (
          <Press key={lead.site} chosen={done.includes(lead.site)} onPress={() => toggle(lead.site)}>
            {lead.name} from {lead.from}
            {lengthWords(lead, system)}
          </Press>
        ))}
      </div>
    </fieldset>
  );
}

/** The new lead by its length, or what the engine needs where no new one is known. */
function lengthWords({ newMm, neededMm }: LeadWay, system: UnitSystem): string {
  const length = newMm ?? neededMm;
  if (length === null) return '';
  const text = system === 'us' ? `${fromSi(length, 'in').toFixed(1)} in` : `${Math.round(length)} mm`;
  return newMm === null ? `, needs ${text}` : `, ${text}`;
}
