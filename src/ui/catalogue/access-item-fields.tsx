import { Box, Grid } from '@chakra-ui/react';
import { ITEM_CHOICES, type ItemFaults, type ItemField, type ItemFields } from '@/core/engine/access-item-fields';
import { Button } from '../primitives/button';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { Section } from '../primitives/page';

const LABELS: Readonly<Record<ItemField, readonly [label: string, hint: string]>> = {
  part: ['Kind', ''],
  what: ['Name', 'such as intake manifold'],
  opens: ['Opens', 'all, rear bank, or cylinders 5 6'],
  count: ['How many', 'screws, clips, clamps or locks'],
  size: ['Size of its screws', 'none: clips or clamps'],
  driver: ['Turned with', ''],
  torque: ['Torque', 'with its unit: 9 N·m, 80 lbf·in'],
  order: ['Tightened', ''],
  captive: ['Captive', 'stay in their part'],
  record_torque: ['Torque written down', 'when they go on again'],
  coil_connectors: ['Connectors of the coils', 'stay plugged with it, or come off with it'],
  minutes_off: ['Off', 'min'],
  minutes_on: ['On', 'min; 0: nothing is put back'],
  how_off: ['How it comes off', 'what is special'],
  how_on: ['How it goes on', 'what is special'],
  caution: ['Caution', 'what can hurt somebody or break'],
  breaks: ['Often breaks', 'goes on the kit'],
  breaks_number: ['Its number', ''],
  breaks_chance: ['How often', 'of 100 visits'],
  seal: ['Gasket or seal', 'that is disturbed'],
  seal_number: ['Its number', ''],
  seal_rule: ['Used again', 'new always, or if it is pliable, proud and not cut'],
  only_with: ['Only with', 'such as air suspension'],
  instead_of: ['Instead of', 'name of the usual item'],
  speaks: ['For and against', 'of this way'],
};

const WORDS: Readonly<Record<string, string>> = {
  '': '–',
  if_sound: 'if it is sound',
  stay: 'stay plugged in',
  new: 'new always',
  fuel_line: 'fuel line',
  centre_outward: 'from the centre outward',
};

const GROUPS: readonly (readonly [string, readonly ItemField[]])[] = [
  ['What it is', ['part', 'what', 'opens', 'minutes_off', 'minutes_on']],
  ['What holds it', ['count', 'size', 'driver', 'torque', 'order', 'captive', 'record_torque', 'coil_connectors']],
  ['How', ['how_off', 'how_on', 'caution']],
  ['What it takes', ['breaks', 'breaks_number', 'breaks_chance', 'seal', 'seal_number', 'seal_rule']],
  ['When', ['only_with', 'instead_of', 'speaks']],
];

/** Every field of one item, with what is wrong beside it. */
export function AccessItemFields({
  row,
  place,
  faults,
  listed,
  onChange,
  onRemove,
}: {
  row: ItemFields;
  place: number;
  faults: ItemFaults;
  /** What is wrong with it in its list. */
  listed: readonly string[];
  onChange: (field: ItemField, value: string) => void;
  onRemove: () => void;
}) {
  return (
    <Section title={`Item ${place + 1}: ${row.what || 'no name yet'}`}>
      {listed.map((says) => (
        <Box key={says} role="alert" color="wrong.ink" mb="2">
          {says}
        </Box>
      ))}
      {GROUPS.map(([name, fields]) => (
        <fieldset key={name} className="item-group">
          <legend>{name}</legend>
          <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr', lg: 'repeat(3, minmax(0, 1fr))' }} columnGap="4">
            {fields.map((field) => (
              <Field
                key={field}
                field={field}
                value={row[field] ?? ''}
                fault={faults[field]}
                onChange={(value) => onChange(field, value)}
              />
            ))}
          </Grid>
        </fieldset>
      ))}
      <Button onClick={onRemove}>Remove this item</Button>
    </Section>
  );
}

function Field({
  field,
  value,
  fault,
  onChange,
}: {
  field: ItemField;
  value: string;
  fault: string | undefined;
  onChange: (value: string) => void;
}) {
  const [label, hint] = LABELS[field];
  const choices = ITEM_CHOICES[field];
  const framed = { label, hint, fault, value, onChange };
  return choices ? <LiveSelect {...framed} choices={choicesOf(choices, WORDS)} /> : <LiveText {...framed} />;
}
