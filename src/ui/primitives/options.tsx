export interface Choice {
  readonly value: string;
  readonly label: string;
}

/** The choices of a select. */
export const Options = ({ choices }: { choices: readonly Choice[] }) =>
  choices.map((choice) => (
    <option key={choice.value} value={choice.value}>
      {choice.label}
    </option>
  ));
