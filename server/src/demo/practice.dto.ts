export class PracticeCodeDto {
  code: string;
  says: string;
}
export class PracticeGroupDto {
  title: string;
  codes: PracticeCodeDto[];
}
