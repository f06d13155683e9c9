'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { coilsFromText, standardCoils } from '@/core/engine/coils';
import { holesFromText, layoutOf, modelFaults } from '@/core/engine/layout';
import {
  ARRANGEMENTS,
  BANK_PLACES,
  type Bank,
  type EngineModel,
  IGNITIONS,
  INDUCTIONS,
  MOUNTINGS,
  ROTATIONS,
} from '@/core/engine/model';
import { quantityOf } from '@/core/engine/quantities';
import { TASK_COMPONENTS } from '@/core/work/task';
import { IGNITION_WORDS } from '@/text/catalogue-words';
import { partsText } from '@/text/task-words';
import { EngineDrawing } from '../drawings/engine-drawing';
import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { Form } from '../primitives/form';
import { useFormState } from '../primitives/form-state';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { Section } from '../primitives/page';
import { ACCESS, FASTENERS, OTHER_WORK, RESTING, type RowShape, WEAK_POINTS, words } from './row-shapes';
import { RowsField } from './rows-field';

type Fields = Readonly<Record<string, string>>;

/** An engine family as text that is checked and drawn while it is typed. */
export function EngineEditor({ initial, action }: { initial: Fields; action: FormAction }) {
  const [fields, setFields] = useState<Fields>(initial);
  const set = (key: string) => (value: string) => setFields((before) => ({ ...before, [key]: value }));
  const read = useMemo(() => readModel(fields), [fields]);
  return (
    <Form action={action}>
      <input type="hidden" name="kind" value="engine-families" />
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Box minW="0">
          <What fields={fields} set={set} />
          <Cylinders fields={fields} set={set} />
          <IgnitionFields fields={fields} set={set} />
        </Box>
        <Box minW="0">
          <Section title="As typed" aside="seen from the front of the vehicle">
            <Preview read={read} />
          </Section>
          <ServiceFields fields={fields} set={set} />
          <SubmitButton main>Save the engine family</SubmitButton>
        </Box>
      </Grid>
    </Form>
  );
}

type Setter = (key: string) => (value: string) => void;
interface PartProps {
  readonly fields: Fields;
  readonly set: Setter;
}

function Text({ at, label, fields, set, hint }: PartProps & { at: string; label: string; hint?: string }) {
  const fault = useFormState().fields[at];
  return <LiveText name={at} label={label} value={fields[at] ?? ''} onChange={set(at)} hint={hint} fault={fault} />;
}

function Rows({ at, label, fields, set, shape }: PartProps & { at: string; label: string; shape: RowShape }) {
  return <RowsField name={at} label={label} value={fields[at] ?? ''} shape={shape} onChange={set(at)} />;
}

function Select({
  at,
  label,
  fields,
  set,
  values,
  words,
}: PartProps & { at: string; label: string; values: readonly string[]; words?: Readonly<Record<string, string>> }) {
  const fault = useFormState().fields[at];
  return (
    <LiveSelect
      name={at}
      label={label}
      value={fields[at] ?? ''}
      onChange={set(at)}
      choices={choicesOf(values, words)}
      fault={fault}
    />
  );
}

const VARIANTS = words('variant', 'Variant, as it is seen');
const two = { base: '1fr', sm: '1fr 1fr' };

function What(props: PartProps) {
  return (
    <Section title="What it is">
      <Grid templateColumns={two} columnGap="4">
        <Text {...props} at="code" label="Code" />
        <Text {...props} at="name" label="Name" />
        <Text {...props} at="displacement_l" label="Displacement" hint="litres" />
        <Select {...props} at="induction" label="Induction" values={INDUCTIONS} />
        <Select {...props} at="head_material" label="Head" values={['aluminium', 'iron']} />
        <Select {...props} at="hybrid" label="Traction system to isolate" values={['no', 'yes']} />
        <Text {...props} at="cooling_minutes" label="Head cools with" hint="time constant, min; empty: 100" />
        <Text {...props} at="compression_ratio" label="Compression ratio" hint="such as 10.5" />
        <Text {...props} at="intake_kpa" label="Highest intake pressure" hint="kPa, absolute" />
      </Grid>
      <Rows {...props} at="variants" label="Look-alike variants" shape={VARIANTS} />
      <Rows {...props} at="resting_cylinders" label="Cylinders that rest at part load" shape={RESTING} />
    </Section>
  );
}

function Cylinders(props: PartProps) {
  const single = props.fields.arrangement === 'inline';
  return (
    <Section title="Cylinders" aside="stand in front of the vehicle and look down">
      <Grid templateColumns={two} columnGap="4">
        <Select {...props} at="arrangement" label="Arrangement" values={ARRANGEMENTS} words={{ v: 'V' }} />
        <Select {...props} at="mounting" label="Mounting" values={MOUNTINGS} />
        <Text {...props} at="bank_1" label="Bank 1: holds cylinder 1" hint="such as 1 3 5" />
        <Select {...props} at="bank_1_place" label="Its place" values={BANK_PLACES} />
        {!single && <Text {...props} at="bank_2" label="Bank 2" hint="such as 2 4 6" />}
        {!single && <Select {...props} at="bank_2_place" label="Its place" values={BANK_PLACES} />}
        <Text {...props} at="firing_order" label="Firing order" hint="each cylinder once" />
        <Select {...props} at="plugs_per_cylinder" label="Plugs a cylinder" values={['1', '2']} />
      </Grid>
      {props.fields.plugs_per_cylinder === '2' && (
        <Text
          {...props}
          at="hole_order"
          label="Holes in a row"
          hint="as they lie: 1A 3A 1B 3B | 2A 4A 2B 4B; empty: A and B side by side"
        />
      )}
    </Section>
  );
}

function IgnitionFields(props: PartProps) {
  const distributor = props.fields.ignition === 'distributor';
  return (
    <Section title="Ignition">
      <Select {...props} at="ignition" label="Ignition" values={IGNITIONS} words={IGNITION_WORDS} />
      <Text
        {...props}
        at="coils"
        label="Plugs that each coil fires"
        hint="empty: as usual; else 1 4, 2 3 or, for one housing, 1 4 2 3; terminals: 1A upper 1B lower"
      />
      {props.fields.ignition === 'coil_on_plug' && (
        <Select {...props} at="connector_rail" label="One rail holds all connectors of a bank" values={['no', 'yes']} />
      )}
      {distributor && (
        <Grid templateColumns={two} columnGap="4">
          <Select
            {...props}
            at="rotation"
            label="Rotor turns, seen from above"
            values={['', ...ROTATIONS]}
            words={{ '': '–' }}
          />
          <Text {...props} at="tower_of_cylinder_1" label="Tower of cylinder 1" hint="clockwise from 1" />
        </Grid>
      )}
      <Text {...props} at="lead_lengths_mm" label="Leads it needs" hint="mm, in order of cylinder; empty: none" />
    </Section>
  );
}

function ServiceFields(props: PartProps) {
  return (
    <Section title="Access and fasteners">
      <Text {...props} at="service_minutes" label="Bay time of a plug service" hint="min" />
      <Rows {...props} at="access" label="Access by bank, that of cylinder 1 first" shape={ACCESS} />
      <Rows {...props} at="fasteners" label="Fasteners; a list can be pasted" shape={FASTENERS} />
      <Rows {...props} at="weak_points" label="Known weak points" shape={WEAK_POINTS} />
      <Rows {...props} at="other_work" label="Other work in the same visit, not ignition" shape={OTHER_WORK} />
    </Section>
  );
}

type Read =
  | { readonly ok: true; readonly model: EngineModel }
  | { readonly ok: false; readonly faults: readonly string[] };

function Preview({ read }: { read: Read }) {
  const layout = read.ok ? layoutOf(read.model) : null;
  return (
    <>
      {layout ? (
        <EngineDrawing layout={layout} title="The engine as typed" ignition />
      ) : (
        <Box role="status" bg="wrong.bg" color="wrong.ink" px="4" py="3" rounded="sm">
          <strong>Not consistent yet</strong>
          <Box as="ul" pl="4">
            {(read.ok ? [] : read.faults).map((fault) => (
              <li key={fault}>{fault}</li>
            ))}
          </Box>
        </Box>
      )}
      {layout && (
        <Box color="soft" fontSize="sm" mt="2" role="status">
          Consistent:{' '}
          {TASK_COMPONENTS.map((component) => ({ component, n: quantityOf(layout, component) }))
            .filter(({ n }) => n > 0)
            .map(({ component, n }) => `${n} ${partsText(component, n)}`)
            .join(' · ')}
        </Box>
      )}
    </>
  );
}

const numbers = (text: string | undefined): number[] =>
  (text ?? '')
    .split(/[\s,;/-]+/)
    .filter((token) => /^\d{1,2}$/.test(token))
    .map(Number);

const oneOf = <T extends string>(values: readonly [T, ...T[]] | readonly T[], text: string | undefined): T =>
  values.find((value) => value === text) ?? (values[0] as T);

function readModel(fields: Fields): Read {
  const arrangement = oneOf(ARRANGEMENTS, fields.arrangement);
  const first: Bank = { place: oneOf(BANK_PLACES, fields.bank_1_place), cylinders: numbers(fields.bank_1) };
  const second: Bank = { place: oneOf(BANK_PLACES, fields.bank_2_place), cylinders: numbers(fields.bank_2) };
  const base = {
    arrangement,
    mounting: oneOf(MOUNTINGS, fields.mounting),
    ignition: oneOf(IGNITIONS, fields.ignition),
    plugsPerCylinder: fields.plugs_per_cylinder === '2' ? (2 as const) : (1 as const),
    banks: arrangement === 'inline' || second.cylinders.length === 0 ? [first] : [first, second],
    firingOrder: numbers(fields.firing_order),
    connectorRail: fields.connector_rail === 'yes' && fields.ignition === 'coil_on_plug',
    holes: null,
  };
  const typed = (fields.coils ?? '').trim();
  const coils = typed === '' ? standardCoils(base) : coilsFromText(base, typed);
  const rotation = ROTATIONS.find((way) => way === fields.rotation);
  const distributor = rotation ? { rotation, towerOfCylinder1: Number(fields.tower_of_cylinder_1 || 1) } : null;
  if (!coils) return { ok: false, faults: [`“${typed}” is not a list of coils such as 1, 2, 3 or 1 4, 2 3`] };
  const row = base.plugsPerCylinder === 2 ? (fields.hole_order ?? '').trim() : '';
  const holes = row === '' ? null : holesFromText(row);
  if (row !== '' && !holes) return { ok: false, faults: [`“${row}” is not a list of holes such as 1A 3A 1B 3B`] };
  const model: EngineModel = { ...base, coils, distributor, holes };
  const faults = modelFaults(model);
  return faults.length === 0 ? { ok: true, model } : { ok: false, faults };
}
