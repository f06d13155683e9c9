'use client';

import { Box, Flex } from '@chakra-ui/react';
import { type Json, sameJson } from '@/core/work/entry';
import type { Difference, FloorJob } from '@/core/work/job-record';
import { isPlaceField, PLACE_FIELDS } from '@/core/work/place-fields';
import { sayPlaces } from '@/core/work/say-places';
import { readTarget } from '@/core/work/targets';
import type { Floor } from '../sync/use-floor';
import { Press } from './parts';

/** A field as a person calls it. */
export function fieldWords(field: string): string {
  if (isPlaceField(field)) return PLACE_FIELDS[field].says;
  return field === 'state' ? 'step' : field;
}

const shown = (json: Json): string => {
  if (json === null || json === '') return 'nothing';
  if (json === true) return 'done';
  if (json === false) return 'not done';
  return typeof json === 'object' ? JSON.stringify(json) : String(json).replace('_', ' ');
};

/** A target in words. */
export function placeOf({ places }: Pick<FloorJob, 'places'>, target: string): string {
  const place = places.find((place) => place.target === target);
  if (place) return sayPlaces([place]);
  const { kind, key } = readTarget(target);
  return kind === 'place' || kind === null ? target : `${kind} ${key}`;
}

/** Two people said otherwise about one field: both stand here until somebody chooses. */
export function Differences({ floor }: { floor: Floor }) {
  const { job, record, set } = floor;
  if (job.differences.length === 0) return null;
  const now = ({ target, field }: Difference): Json => record[target]?.[field] ?? null;
  return (
    <Box role="alert" bg="caution.bg" color="caution.ink" px="4" py="3" rounded="sm" mb="3">
      {job.differences.map((difference) => (
        <Box key={difference.id} mb="2">
          <Box fontWeight="650" fontSize="18px">
            {placeOf(job, difference.target)}, {fieldWords(difference.field)}: two answers. Which holds?
          </Box>
          <Flex gap="2" wrap="wrap" mt="1">
            <Press onPress={() => set(difference.target, difference.field, now(difference), difference.id)}>
              {shown(now(difference))}, as it stands
            </Press>
            {!sameJson(difference.said, now(difference)) && (
              <Press onPress={() => set(difference.target, difference.field, difference.said, difference.id)}>
                {shown(difference.said)}, by {difference.by}
              </Press>
            )}
          </Flex>
        </Box>
      ))}
    </Box>
  );
}
