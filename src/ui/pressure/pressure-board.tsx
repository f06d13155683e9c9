'use client';

import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import type { ChartPoint } from '@/core/reliability/chart-point';
import type { LifeModel } from '@/core/reliability/weibull';
import { dateText } from '@/text/format';
import { LifeRing } from '../drawings/life-ring';
import { type FormAction, PressForm } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { ButtonLink, TextLink } from '../primitives/links';
import { WeekCost } from '../primitives/week-cost';
import { type ChartVehicle, dueText, lifeText, vehicleWords, withHeat } from './chart-vehicle';
import { PressureChart } from './pressure-chart';

/** Loaded with the first vehicle that is chosen. */
const DeferForm = dynamic(() => import('../due/defer-form').then((module) => module.DeferForm), {
  loading: () => null,
});

interface Props {
  readonly points: readonly ChartPoint[];
  readonly model: LifeModel;
  readonly weeklyLife: number;
  readonly wearCostPerPercent: number;
  readonly currency: string;
  /** Pressures are those of whole vehicles, not of one component. */
  readonly isWhole: boolean;
  /** Null for those who may not. */
  readonly open: FormAction | null;
  readonly defer: FormAction | null;
}

/** So many of the list are shown before "more". */
const LISTED = 20;
/** A file can be asked for by address for so many. */
const MAX_EXPORTED = 200;

/** Chart and ranked list: one selection. */
export function PressureBoard({ points: plain, open, defer, isWhole, ...chart }: Props) {
  const points = useMemo(() => withHeat(plain), [plain]);
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const [active, setActive] = useState<string | null>(null);
  // Chosen one by one, the rest stay in sight to choose from; chosen by area, they are what is looked at.
  const [only, setOnly] = useState(false);
  const [listed, setListed] = useState(LISTED);
  const chosen = points.filter((p) => selected.has(p.id));
  const ranked = only && chosen.length > 0 ? chosen : points;
  const select = (ids: ReadonlySet<string>, area = false) => {
    setSelected(ids);
    setOnly(area && ids.size > 0);
  };
  const shown = points.find((p) => p.id === active);
  return (
    <Grid templateColumns={{ base: 'minmax(0, 1fr)', xl: 'minmax(0, 1fr) 400px' }} columnGap="6">
      <Box minW="0">
        <PressureChart
          {...chart}
          points={points}
          selected={selected}
          onSelect={select}
          active={active}
          onActive={setActive}
        />
        <Box aria-live="polite" minH="44px" mt="1" fontSize="sm">
          {shown && (
            <>
              {vehicleWords(shown, chart.currency)}.{' '}
              <TextLink href={`/vehicles/${shown.id}#pressure`}>Explain</TextLink>
            </>
          )}
        </Box>
      </Box>
      <Box minW="0">
        <Flex justify="space-between" borderBottom="1px solid" borderColor="line" pb="1" mb="1">
          <Box as="h2" fontWeight="650">
            {chosen.length > 0 ? `Selected: ${chosen.length}` : 'Highest pressure'}
          </Box>
          <Box color="soft" fontSize="sm">
            {chosen.length > 0 && (
              <chakra.button
                type="button"
                color="action"
                textDecoration="underline"
                mr="3"
                onClick={() => setOnly(!only)}
              >
                {only ? 'show all' : 'only these'}
              </chakra.button>
            )}
            {points.length} vehicles
          </Box>
        </Flex>
        <Box as="ol" aria-label="Vehicles by service pressure" maxH={{ xl: '470px' }} overflowY="auto">
          {ranked.slice(0, listed).map((p) => (
            <Ranked
              key={p.id}
              point={p}
              currency={chart.currency}
              isWhole={isWhole}
              isSelected={selected.has(p.id)}
              isActive={p.id === active}
              onActive={() => setActive(p.id)}
              onToggle={() =>
                setSelected((before) => {
                  const next = new Set(before);
                  if (!next.delete(p.id)) next.add(p.id);
                  return next;
                })
              }
            />
          ))}
        </Box>
        {ranked.length > listed && (
          <Button onClick={() => setListed(listed + 200)}>Show more of {ranked.length}</Button>
        )}
        {chosen.length > 0 && <Selection chosen={chosen} open={open} defer={defer} onClear={() => select(new Set())} />}
      </Box>
    </Grid>
  );
}

function Ranked({
  point: p,
  currency,
  isWhole,
  isSelected,
  isActive,
  onActive,
  onToggle,
}: {
  point: ChartVehicle;
  currency: string;
  isWhole: boolean;
  isSelected: boolean;
  isActive: boolean;
  onActive: () => void;
  onToggle: () => void;
}) {
  return (
    <li
      className="ranked"
      data-selected={isSelected || undefined}
      data-active={isActive || undefined}
      onPointerEnter={onActive}
    >
      <input
        type="checkbox"
        checked={isSelected}
        onChange={onToggle}
        onFocus={onActive}
        aria-label={`Select unit ${p.unit}`}
      />
      <LifeRing lifeUsed={p.life} assumed={p.certainty === 'assumed'} />
      <div>
        <div>
          <TextLink href={`/vehicles/${p.id}`}>
            <strong>{p.unit}</strong> {p.name}
          </TextLink>{' '}
          <span className="soft">{p.engine}</span>
        </div>
        <div className="soft small">
          {p.orderNumber ? (
            <>
              <TextLink href={`/work-orders/${p.orderId}`}>order {p.orderNumber}</TextLink> ·{' '}
            </>
          ) : null}
          {dueText(p)}
        </div>
        {p.retiresOn && p.p50 && p.retiresOn <= p.p50 && (
          <div className="doubtful small">leaves the fleet {dateText(p.retiresOn)}, before that</div>
        )}
      </div>
      <div className="right nowrap">
        <strong>
          <WeekCost unit={isWhole ? p.unit : null} amount={p.pressure} currency={currency} />
        </strong>{' '}
        <span className="soft">a week</span>
        <div className="soft small">{lifeText(p)}</div>
      </div>
    </li>
  );
}

function Selection({
  chosen,
  open,
  defer,
  onClear,
}: {
  chosen: readonly ChartVehicle[];
  open: FormAction | null;
  defer: FormAction | null;
  onClear: () => void;
}) {
  const ids = chosen.map((p) => p.id).join(',');
  const without = chosen.filter((p) => p.orderId === null).length;
  return (
    <Box
      data-no-print
      position="sticky"
      bottom="0"
      zIndex="2"
      mt="3"
      py="2"
      bg="paper"
      borderTop="1px solid"
      borderColor="line"
    >
      <Flex gap="2" wrap="wrap" align="start">
        {open && (
          // It stays when every one has its order, with what was said.
          <PressForm action={open}>
            <input type="hidden" name="ids" value={ids} />
            {without > 0 && (
              <Flex gap="2" wrap="wrap">
                <SubmitButton main name="take" value="due">
                  {`Open ${without} work order${without === 1 ? '' : 's'}`}
                </SubmitButton>
                <SubmitButton name="take" value="proposed">
                  With all that belongs to {without === 1 ? 'it' : 'them'}
                </SubmitButton>
              </Flex>
            )}
          </PressForm>
        )}
        {chosen.length <= MAX_EXPORTED && (
          <ButtonLink href={`/due/csv?ids=${ids}`} download>
            CSV
          </ButtonLink>
        )}
        <Button onClick={onClear}>Clear</Button>
      </Flex>
      {defer && (
        <chakra.details mt="2">
          <summary>Defer {chosen.length === 1 ? `unit ${chosen[0]?.unit}` : `these ${chosen.length}`}</summary>
          <Box mt="2">
            <DeferForm action={defer} ids={ids} />
          </Box>
        </chakra.details>
      )}
    </Box>
  );
}
