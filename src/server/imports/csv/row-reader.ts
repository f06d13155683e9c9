import type { PlainDate } from '@/core/calendar/plain-date';
import { type DateOrder, readDate } from '@/core/calendar/read-date';
import type { Certainty } from '@/core/due/due';
import { plainText } from '@/core/units/as-written';
import { readNumber } from '@/core/units/read-number';
import { readQuantity, unitIn, type Window, withUnitName } from '@/core/units/read-quantity';
import { type RangeReading, readRange } from '@/core/units/read-range';
import { type QuantityKind, type UnitName, unitFromText } from '@/core/units/unit';

export interface CellSource {
  /** The trimmed cell of a column, '' where the file has no such column. */
  cell(key: string): string;
  /** The column's name as the person knows it. */
  label(key: string): string;
}

interface Dated {
  readonly date: PlainDate;
  readonly certainty: Certainty;
}

interface Measured {
  readonly si: number;
  readonly unit: UnitName;
  readonly asTyped: string;
  /** Said to be about so much. */
  readonly isAbout: boolean;
}

const MAX_TEXT = 120;
/** Lists and notes may be longer. */
export const MAX_LIST = 600;

/** Reads the typed cells of one row, and gathers what is wrong with each in words, so that a row is refused once, whole. */
export class RowReader {
  readonly faults: string[] = [];
  /** The first fault of each column, for a form that shows it beside the field. */
  readonly byColumn: Record<string, string> = {};

  constructor(
    private readonly source: CellSource,
    private readonly dateOrder?: DateOrder,
  ) {}

  fault(key: string, why: string): null {
    this.faults.push(`${this.source.label(key)}: ${why}`);
    this.byColumn[key] ??= why;
    return null;
  }

  text(key: string, most = MAX_TEXT): string | null {
    const cell = this.source.cell(key);
    if (cell === '') return null;
    if (/^[=+@]|^-(?!$|\d)/.test(cell))
      return this.fault(key, `“${clip(cell)}” starts like a spreadsheet formula. Give the value itself`);
    return cell.length > most ? this.fault(key, `longer than ${most} characters`) : cell.replace(/\s+/g, ' ');
  }

  /** Letters, digits and marks of a part number: one may begin with a hyphen, which no spreadsheet runs by itself. */
  code(key: string, most = MAX_TEXT): string | null {
    const cell = this.source.cell(key);
    return /^-[\w#./-]*$/.test(cell) && cell.length <= most ? cell : this.text(key, most);
  }

  required(key: string): string {
    const text = this.text(key);
    if (text === null && this.source.cell(key) === '') this.fault(key, 'is empty');
    return text ?? '';
  }

  oneOf<T extends string>(key: string, choices: readonly T[], fallback?: T): T | null {
    const cell = this.source
      .cell(key)
      .toLowerCase()
      .replace(/[\s-]+/g, '_');
    if (cell === '' && fallback !== undefined) return fallback;
    const found = choices.find((choice) => choice.toLowerCase() === cell);
    return (
      found ??
      this.fault(
        key,
        `${cell === '' ? 'is empty' : `“${clip(this.source.cell(key))}” is not known`}. Use one of ${choices.join(', ')}`,
      )
    );
  }

  yesNo(key: string): boolean {
    return (
      this.oneOf(key, ['yes', 'no', 'true', 'false', '1', '0', 'y', 'n', 'x'], 'no')?.match(/^(yes|true|1|y|x)$/) !=
      null
    );
  }

  integer(key: string, min: number, max: number): number | null {
    const cell = this.source.cell(key);
    if (cell === '') return null;
    const value = /^\d{1,9}$/.test(cell) ? Number(cell) : Number.NaN;
    return value >= min && value <= max
      ? value
      : this.fault(key, `“${clip(cell)}” is not a whole number from ${min} to ${max}`);
  }

  integers(key: string): number[] {
    const cell = this.source.cell(key);
    const tokens = cell.split(/[\s,;/-]+/).filter(Boolean);
    if (tokens.length > 16 || tokens.some((token) => !/^\d{1,2}$/.test(token))) {
      this.fault(key, `“${clip(cell)}” is not a list of cylinder numbers such as 1 3 4 2`);
      return [];
    }
    return tokens.map(Number);
  }

  /** Whole numbers in one cell; null when it is empty. */
  numbers(key: string, min: number, max: number): number[] | null {
    const tokens = this.source
      .cell(key)
      .split(/[\s,;/|]+/)
      .filter(Boolean);
    if (tokens.length === 0) return null;
    const values = tokens.map((token) => (/^\d{1,9}$/.test(token) ? Number(token) : Number.NaN));
    if (values.length <= 64 && values.every((value) => value >= min && value <= max)) return values;
    return this.fault(key, `“${clip(this.source.cell(key))}” is not a list of whole numbers from ${min} to ${max}`);
  }

  /** Texts in one cell, separated by a vertical bar; null when it is empty. */
  list(key: string): string[] | null {
    const items = (this.text(key, MAX_LIST) ?? '')
      .split('|')
      .map((item) => item.trim())
      .filter(Boolean);
    return items.length > 0 ? items : null;
  }

  /** A range in one cell: "1.0 to 1.1 mm", "1.05 ± 0.05". */
  range(
    key: string,
    kind: QuantityKind,
    unitKey: string,
    fallback: UnitName,
    window?: Window,
  ): Extract<RangeReading, { ok: true }> | null {
    const cell = this.source.cell(key);
    if (cell === '') return null;
    const unit = unitFromText(this.source.cell(unitKey));
    const personUnit = unit?.kind === kind ? unit.name : fallback;
    const reading = readRange({ kind, text: cell, personUnit, window });
    return reading.ok ? reading : this.fault(key, reading.message);
  }

  decimal(key: string, min: number, max: number): number | null {
    const cell = this.source.cell(key);
    if (cell === '') return null;
    const value = readNumber(cell).find((n) => n >= min && n <= max);
    return value ?? this.fault(key, `“${clip(cell)}” is not a number from ${min} to ${max}`);
  }

  /** @param unitKey a column that names the unit of this row */
  quantity(key: string, kind: QuantityKind, unitKey: string, fallback?: UnitName, window?: Window): Measured | null {
    const typed = this.source.cell(key);
    return typed === '' ? null : this.quantityOf(key, typed, kind, unitKey, fallback, window);
  }

  /** The same for text that was taken from the cell. */
  quantityOf(
    key: string,
    typed: string,
    kind: QuantityKind,
    unitKey: string,
    fallback?: UnitName,
    window?: Window,
  ): Measured | null {
    const unitText = this.source.cell(unitKey);
    const unit = unitText === '' ? null : unitFromText(unitText);
    if (unitText !== '' && unit?.kind !== kind)
      return this.fault(unitKey, `“${clip(unitText)}” is not a unit of ${kind}`);
    const plain = plainText(typed.slice(0, MAX_TEXT));
    const needsUnit = unit !== null && unitIn(kind, plain) === null;
    const text = needsUnit ? withUnitName(kind, plain, unit.name) : typed;
    const reading = readQuantity({ kind, text, personUnit: fallback, window });
    if (reading.verdict !== 'ok') return this.fault(key, reading.message);
    return {
      si: reading.valueSi,
      unit: reading.unit,
      asTyped: needsUnit ? `${typed} ${unit.name}` : typed,
      isAbout: reading.isAbout,
    };
  }

  date(key: string): Dated | null {
    const reading = readDate(this.source.cell(key), this.dateOrder);
    switch (reading.kind) {
      case 'exact':
      case 'estimated':
        return { date: reading.date, certainty: reading.kind };
      case 'unknown':
        return null;
      case 'undecided':
        return this.fault(key, 'day and month can be swapped: say which comes first');
      case 'impossible':
        return this.fault(key, reading.why);
    }
  }
}

export const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
