import { expect, it } from 'vitest';
import type { Km, Mm, Nm, VehicleId, WorkOrderId } from './kinds';

it('takes a plain value for a kind, and never one kind for another', () => {
  const gap: Mm = 1.05;
  const vehicle: VehicleId = 'v';
  // @ts-expect-error a gap is no torque
  const torque: Nm = gap;
  // @ts-expect-error nor is it a distance
  const distance: Km = gap;
  // @ts-expect-error a vehicle is no order
  const order: WorkOrderId = vehicle;
  const doubled: Mm = gap * 2;
  expect([torque, distance, order, doubled]).toEqual([1.05, 1.05, 'v', 2.1]);
});
