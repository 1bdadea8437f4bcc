/** The code under which a record can be opened. */
export class CodeDto {
  code: string;
}
/** What was made or changed, where it has a number and no code. */
export class IdDto {
  id: number;
}
