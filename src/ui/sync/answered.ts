/** The server answered, and not with what was hoped for. */
export class Answered extends Error {
  constructor(
    readonly status: number,
    readonly detail: string,
  ) {
    super(`answered ${status}`);
  }
}

/** Answers that may be another the next time although they begin with 4. */
const TEMPORARY = [401, 408, 409, 425, 429];

/** Whether sending the same again can ever be taken: a refusal of the request itself cannot. */
export const isPermanent = (error: unknown): error is Answered =>
  error instanceof Answered && error.status >= 400 && error.status < 500 && !TEMPORARY.includes(error.status);
