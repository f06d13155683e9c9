import { IMPORT_KINDS, type ImportKind, type ImportKindName } from '../kind';
import { absencesKind } from './absences';
import { accessItemsKind } from './access-items';
import { baysKind } from './bays';
import { crossReferencesKind } from './cross-references';
import { engineFamiliesKind } from './engine-families';
import { engineHoursKind } from './engine-hours';
import { numberCodesKind } from './number-codes';
import { odometerKind } from './odometer';
import { partsKind } from './parts';
import { serviceHistoryKind } from './service-history';
import { specSheetsKind } from './spec-sheets';
import { supersessionsKind } from './supersessions';
import { vehiclesKind } from './vehicles';

const KINDS: Readonly<Record<ImportKindName, ImportKind>> = {
  'engine-families': engineFamiliesKind,
  'access-items': accessItemsKind,
  'number-codes': numberCodesKind,
  parts: partsKind,
  supersessions: supersessionsKind,
  'cross-references': crossReferencesKind,
  'spec-sheets': specSheetsKind,
  vehicles: vehiclesKind,
  odometer: odometerKind,
  'engine-hours': engineHoursKind,
  'service-history': serviceHistoryKind,
  bays: baysKind,
  absences: absencesKind,
};

export const isKindName = (name: string): name is ImportKindName => IMPORT_KINDS.some((kind) => kind === name);

export const kindOf = (name: ImportKindName): ImportKind => KINDS[name];

/** In the order in which they build on each other. */
export const allKinds = (): readonly ImportKind[] => IMPORT_KINDS.map(kindOf);
