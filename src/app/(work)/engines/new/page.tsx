import { requireActor } from '@/app/actor';
import { may } from '@/server/access';
import { EngineEditor } from '@/ui/catalogue/engine-editor';
import { Empty, PageHead } from '@/ui/primitives/page';
import { enterRowAction } from '../actions';

const START = {
  arrangement: 'inline',
  mounting: 'transverse',
  ignition: 'coil_on_plug',
  induction: 'natural',
  head_material: 'aluminium',
  hybrid: 'no',
  plugs_per_cylinder: '1',
  bank_1: '1 2 3 4',
  bank_1_place: 'only',
  bank_2_place: 'front',
  firing_order: '1 3 4 2',
  service_minutes: '60',
};

export default async function NewEnginePage() {
  const actor = await requireActor();
  if (!may(actor, 'enter catalogue data')) return <Empty>Ask a supervisor or parts clerk to enter an engine.</Empty>;
  return (
    <>
      <PageHead title="New engine family">Checked and drawn as you type</PageHead>
      <EngineEditor initial={START} action={enterRowAction} />
    </>
  );
}
