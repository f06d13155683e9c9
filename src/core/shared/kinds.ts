/*
 * What a number or a text stands for. A plain one is taken wherever such a kind is wanted; one kind is never taken for
 * another: a gap is no torque, and a vehicle's id no order's.
 */

declare const kind: unique symbol;
type OfKind<T, K extends string> = T & { readonly [kind]?: K };

/** Distance, kilometres. */
export type Km = OfKind<number, 'km'>;
/** Length, millimetres. */
export type Mm = OfKind<number, 'mm'>;
/** Torque, newton metres. */
export type Nm = OfKind<number, 'nm'>;
/** Resistance, ohms. */
export type Ohm = OfKind<number, 'ohm'>;
/** A calendar day in the depot's zone, `YYYY-MM-DD`. */
export type Day = OfKind<string, 'day'>;

export type FleetId = OfKind<string, 'fleet'>;
export type VehicleId = OfKind<string, 'vehicle'>;
export type WorkOrderId = OfKind<string, 'work order'>;
export type TaskId = OfKind<string, 'task'>;
export type PartId = OfKind<string, 'part'>;
export type SpecSheetId = OfKind<string, 'spec sheet'>;
export type PersonId = OfKind<string, 'person'>;
export type DepotId = OfKind<string, 'depot'>;
export type BayId = OfKind<string, 'bay'>;
