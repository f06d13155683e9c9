'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { type ReactNode, useId } from 'react';
import { readSiteQuantity, SITE_QUANTITIES, type SiteQuantity } from '@/core/procedure/site-done';
import type { UnitName } from '@/core/units/unit';
import { gapText, torqueText, type UnitSystem } from '../format/format';
import { FieldHead, Press } from './parts';

export const unitsOf = (system: UnitSystem): { gap: UnitName; torque: UnitName } =>
  system === 'us' ? { gap: 'in', torque: 'lbf·ft' } : { gap: 'mm', torque: 'N·m' };

/** A quantity: typed on the pad or a keyboard, told at once as it is read, in both units. */
export function NumberField({
  field,
  name,
  known,
  value,
  system,
  active,
  verdict,
  onActive,
  onChange,
  pad,
}: {
  field: SiteQuantity;
  name: string;
  known?: string;
  value: string;
  system: UnitSystem;
  active: boolean;
  /** What the figure means here, and whether it is well. */
  verdict?: { readonly words: string; readonly well: boolean } | null;
  onActive: () => void;
  onChange: (value: string) => void;
  /** The number pad, where there is no room for it beside the fields. */
  pad?: ReactNode;
}) {
  const id = useId();
  const read = readSiteQuantity(field, value, unitsOf(system));
  const text = SITE_QUANTITIES[field].kind === 'gap' ? gapText : torqueText;
  const shown = read.ok && read.value !== null ? text(read.value, system) : null;
  return (
    <Box>
      <label htmlFor={id}>
        <FieldHead name={name} known={known} />
      </label>
      <Flex
        align="center"
        gap="3"
        border="2px solid"
        borderColor={active ? 'action' : 'line'}
        bg="sheet"
        rounded="sm"
        px="3"
        minH="54px"
        wrap="wrap"
      >
        <chakra.input
          id={id}
          value={value}
          inputMode="none"
          autoComplete="off"
          onFocus={onActive}
          onChange={(event) => onChange(event.target.value)}
          aria-describedby={`${id}-read`}
          aria-invalid={!read.ok || undefined}
          flex="1 1 110px"
          minW="90px"
          bg="transparent"
          fontSize="24px"
          fontWeight="650"
          border="none"
          outline="none"
        />
        <Box id={`${id}-read`} aria-live="polite" fontSize="15px" textAlign="right">
          {shown && shown.replace(' · ', '') !== value && (
            <Box as="span" color="soft">
              {shown}{' '}
            </Box>
          )}
          {verdict && (
            <Box as="span" fontWeight="650" color={verdict.well ? 'action' : 'wrong.ink'}>
              {verdict.well ? '✓ ' : '✕ '}
              {verdict.words}
            </Box>
          )}
        </Box>
      </Flex>
      {!read.ok && (
        <Box color="wrong.ink" fontSize="15px" mt="1" role="alert">
          {read.message}
          <Flex gap="2" wrap="wrap" mt="1">
            {read.suggestions.slice(0, 3).map((suggestion) => (
              <Press key={suggestion.text} onPress={() => onChange(suggestion.text.split(' = ')[0] ?? '')}>
                {suggestion.text}
              </Press>
            ))}
          </Flex>
        </Box>
      )}
      {active && pad && (
        <Box display={{ base: 'block', md: 'none' }} mt="2">
          {pad}
        </Box>
      )}
    </Box>
  );
}
