import { Box } from '@chakra-ui/react';
import { sayOpens } from '@/core/engine/access-items';
import { fastenersSaid } from '@/core/work/procedure/phases/way';
import { may } from '@/server/access';
import type { EngineView } from '@/server/catalogue/view-engine';
import { TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { enginePage } from '../engine-page';

export default enginePage(({ view, actor }) => <Access view={view} mayEdit={may(actor, 'enter catalogue data')} />);

/** What comes off before the plugs can be reached, in its order. */
function Access({ view: { family, layout }, mayEdit }: { view: EngineView; mayEdit: boolean }) {
  const items = family.accessItems ?? [];
  return (
    <Section
      id="way"
      title="Access to the plugs"
      aside={
        mayEdit ? <TextLink href={`/engines/${family.id}/way`}>{items.length > 0 ? 'Change' : 'Write'}</TextLink> : null
      }
    >
      {items.length === 0 ? (
        <Box color="soft">Nobody has written the access yet: the steps go by how each bank is reached.</Box>
      ) : (
        <PlainTable heads={['', 'What', 'Opens', 'Held by', 'Off', 'On', 'Kit']}>
          {items.map((item, i) => (
            <tr key={item.key}>
              <td>{i + 1}</td>
              <td>
                {item.what}
                {item.onlyWith && <span className="soft"> only with {item.onlyWith}</span>}
                {item.insteadOf && (
                  <span className="soft"> instead of {items.find(({ key }) => key === item.insteadOf)?.what}</span>
                )}
              </td>
              <td>{sayOpens(layout.model, item.opens)}</td>
              <td>{item.fasteners && fastenersSaid(item.part, item.fasteners)}</td>
              <td>{item.minutesOff} min</td>
              <td>{item.minutesOn} min</td>
              <td>{[item.seal?.what, item.breaks?.what].filter(Boolean).join(', ')}</td>
            </tr>
          ))}
        </PlainTable>
      )}
    </Section>
  );
}
