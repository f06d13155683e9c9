import { requireActor } from '@/app/actor';
import { Code, Facts, PageHead } from '@/ui/primitives/page';
import packageFile from '../../../../../package.json';

/** What whoever helps asks for first. */
export default async function AboutPage() {
  const actor = await requireActor();
  return (
    <>
      <PageHead title="About this Isobar">What whoever helps you will ask for</PageHead>
      <Facts
        rows={[
          ['Version', <Code key="version">{packageFile.version}</Code>],
          ['Your units', actor.unitSystem === 'us' ? 'US customary' : 'metric'],
          ['Typeface', 'Atkinson Hyperlegible Next and Mono, under the SIL Open Font License'],
        ]}
      />
    </>
  );
}
