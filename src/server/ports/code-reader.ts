/** A diagnostic-code reader plugged into a vehicle. */
export interface CodeReader {
  /** As it stands in the record of what was read. */
  readonly name: string;
  /** @param after whether the work is done @returns the codes that the engine computer holds, with what it noted of each */
  readonly read: (vehicle: {
    readonly unitNumber: string;
    readonly cylinders: number;
    readonly after: boolean;
  }) => readonly { readonly code: string; readonly freeze: Readonly<Record<string, string>> }[];
  /** Misfires that the engine computer counted, in 1,000 firings of each cylinder; null: this reader or computer gives none. */
  readonly counts: (vehicle: {
    readonly unitNumber: string;
    readonly cylinders: number;
  }) => readonly { readonly cylinder: number; readonly misfires: number }[] | null;
}
