/** The code under which a record can be opened. */
export class CodeDto {
  code: string;
}
