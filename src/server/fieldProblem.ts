/** Input that is well formed but cannot be: the field it concerns and what to do. */
export class FieldProblem extends Error {
  constructor(
    readonly path: readonly (string | number)[],
    message: string,
  ) {
    super(message);
    this.name = 'FieldProblem';
  }
}
