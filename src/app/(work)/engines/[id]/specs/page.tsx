import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import type { EngineView } from '@/server/catalogue/view-engine';
import { OtherSheets } from '@/ui/catalogue/other-sheets';
import { type CheckForm, SheetsSideBySide } from '@/ui/catalogue/sheets-side-by-side';
import { Empty, Section } from '@/ui/primitives/page';
import { checkSheetAction } from '../../actions';
import { enginePage } from '../engine-page';

export default enginePage(({ view, actor }) => {
  const check = may(actor, 'check spec sheets')
    ? { action: checkSheetAction, back: `/engines/${view.family.id}/specs`, name: actor.name }
    : null;
  return (
    <>
      <Section title="Plug specs" aside="sources of one scope side by side; the highest rank is in force">
        {view.scopes.length === 0 && <Empty>No sheet yet: nothing can be fitted to this engine.</Empty>}
        {view.scopes.map((scope) => (
          <SheetsSideBySide key={scope.scope} scope={scope} system={actor.unitSystem} check={check} />
        ))}
      </Section>
      <OtherParts view={view} system={actor.unitSystem} check={check} />
    </>
  );
});

function OtherParts({
  view: { others, quantities },
  system,
  check,
}: {
  view: EngineView;
  system: UnitSystem;
  check: CheckForm | null;
}) {
  if (others.length === 0) return null;
  const count = new Map(quantities.map(({ component, quantity }) => [component, quantity]));
  return (
    <Section title="Other parts" aside="each with its own sheet and clock; the highest rank is in force">
      <OtherSheets scopes={others} count={count} system={system} check={check} />
    </Section>
  );
}
