import { IsEmail, IsString, Length, Matches, MaxLength, ValidateIf } from 'class-validator';

export class CustomerDto {
  code: string;
  name: string;
  email: string;
  phone: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  note: string;
  version: number;
}
export class CustomerPageDto {
  rows: CustomerDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class CustomerOrderDto {
  code: string;
  state: string;
  placedAt: Date;
}
export class CustomerSheetDto extends CustomerDto {
  /** Orders that came with the customer's e-mail address, newest first. */
  orders: CustomerOrderDto[];
}
export class EditCustomerDto {
  @Matches(/^[A-Za-z0-9-]{2,20}$/, { message: 'A customer code is 2 to 20 letters, digits and hyphens' }) code: string;
  @IsString() @Length(1, 120) name: string;
  @ValidateIf((c: EditCustomerDto) => c.email !== '')
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' })
  email: string;
  @IsString() @MaxLength(40) phone: string;
  @IsString() @MaxLength(190) addressLine: string;
  @IsString() @MaxLength(80) city: string;
  @IsString() @MaxLength(20) postcode: string;
  @Matches(/^[A-Z]{2}$/, { message: 'A country is two capital letters, such as GB' }) country: string;
  @IsString() @MaxLength(300) note: string;
}
