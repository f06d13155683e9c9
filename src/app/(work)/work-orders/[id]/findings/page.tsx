import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { FindingsSection } from '../findings-section';
import { orderPage } from '../order-page';

export default orderPage(async ({ view, actor }) => {
  const people = await listPeople(deps(), actor);
  return (
    <FindingsSection
      view={view}
      actor={actor}
      people={people.ok ? people.value.filter(({ active }) => active).map(toChoice) : []}
    />
  );
});

/** Who can see to a follow-up. */
const toChoice = ({ id, name }: { id: string; name: string }) => ({ value: id, label: name });
