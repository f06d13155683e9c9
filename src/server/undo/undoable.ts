/** What a change that can be undone answers. */
export interface Undoable {
  /** Its id in the record: what `undoChange` is asked with. */
  readonly undo: number;
}
